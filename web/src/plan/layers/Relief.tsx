/** The relief as a sea chart: one tint, contours at the needs in use, soundings, bare paper where nothing sees. */
import { memo, useMemo, useRef } from "react";
import type { Raster } from "../../core/reliefs";
import { useHand } from "../../core/hand";
import type { Point, Units } from "../../core/types";
import { unitOf } from "../../ui/length";
import type { Inks } from "../chart/messages";
import { useChart } from "../chart/useChart";
import { type PlanView, toScreen } from "../view";

interface Props {
  view: PlanView;
  /** The raster of the site as it is now, or the one before it. */
  raster: Raster | null;
  /** The needs that the site's promises use, px/m. */
  needs: number[];
  /** A picture lies beneath and shows through. */
  over: boolean;
  dark: boolean;
  units: Units;
  /** Whether the raster is of the site as it is now. */
  settled: boolean;
}

export const Relief = memo(function Relief({ view, raster, needs, over, dark, units, settled }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const inks = useMemo(() => inksOf(dark), [dark]);
  // Under a hand the chart is always a little behind: that needs no mark.
  const holds = useHand((hand) => hand.holds);
  const drawn = useChart(frame, raster, needs, view, over, inks, unitOf(units));
  return (
    <div
      ref={frame}
      className={holds ? "relief" : "relief told told-slow"}
      role="img"
      aria-label="Coverage map"
      data-testid="relief"
      data-settled={settled && drawn !== null && drawn === raster}
    />
  );
});

/** The chart's inks; canvases do not read stylesheets. */
const inksOf = (dark: boolean): Inks =>
  dark
    ? { pale: [27, 42, 50], deep: [64, 140, 156], ink: "#b9e2e8", paper: "#1a2129" }
    : { pale: [226, 237, 234], deep: [70, 138, 153], ink: "#0e3a4a", paper: "#f5f1e6" };

/** The outline of a picture on the ground, thin, with ticks where it leaves the sheet. */
export function PictureOutline({ view, lines }: { view: PlanView; lines: number[][][] }) {
  const drawn = lines.map((line) => line.map((place) => toScreen(view, place)));
  return (
    <g className="picture-outline" aria-hidden="true" data-testid="picture-outline">
      <path d={drawn.map((line) => `M${line.map((p) => p.map((c) => c.toFixed(1)).join(" ")).join("L")}`).join("")} />
      <path d={drawn.flatMap((line) => ticks(line, view.size)).join("")} className="picture-tick" />
    </g>
  );
}

/** A stroke square to the line where it crosses the edge of the sheet. */
function ticks(line: Point[], [width, height]: Point): string[] {
  const inside = ([u, v]: Point): boolean => u >= 0 && v >= 0 && u <= width && v <= height;
  const found: string[] = [];
  for (let i = 1; i < line.length; i++) {
    const [a, b] = [line[i - 1], line[i]];
    if (!a || !b || inside(a) === inside(b)) continue;
    let [low, high] = inside(a) ? [a, b] : [b, a];
    for (let halving = 0; halving < 24; halving++) {
      const middle: Point = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2];
      if (inside(middle)) low = middle;
      else high = middle;
    }
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const [du, dv] = [((b[1] - a[1]) / long) * 7, ((a[0] - b[0]) / long) * 7];
    found.push(`M${low[0] - du} ${low[1] - dv}L${low[0] + du} ${low[1] + dv}`);
  }
  return found;
}
