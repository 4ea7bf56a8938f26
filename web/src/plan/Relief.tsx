/**
 * Density as depth on a sea chart: one relief of the best that any head gives, pale to deep in one hue,
 * with a line where each need ends. Bare paper is ground that nothing sees.
 */
import type { Footprint } from "../engine/types";
import { density } from "../verdict/words";
import { type PlanView, toScreen } from "./planView";

const path = (view: PlanView, polygons: number[][][]): string =>
  polygons.map((polygon) => `M${polygon.map((p) => toScreen(view, p).map((c) => c.toFixed(1)).join(" ")).join("L")}Z`).join("");

interface Props {
  view: PlanView;
  footprints: Footprint[];
  inHand: Footprint | undefined;
  /** A picture lies beneath and shows through. */
  over: boolean;
}

export function Relief({ view, footprints, inHand, over }: Props) {
  const bands = footprints[0]?.bands ?? [];
  return (
    <g className={over ? "relief relief-over" : "relief"} aria-hidden="true">
      {bands.map((band, depth) => {
        const d = path(view, footprints.flatMap((footprint) => footprint.bands[depth]?.polygons ?? []));
        // The line first and the fill over it: what overlaps inside is hidden, the outer edge stays.
        return (
          <g key={band.task} className={`depth depth-${depth}`}>
            <path d={d} className="depth-line" />
            <path d={d} className="depth-fill" />
          </g>
        );
      })}
      {inHand && <path d={path(view, inHand.outline)} className="picture-outline" />}
    </g>
  );
}

/** What the 2025 edition calls the steps that are drawn. */
const STEPS_2025: Record<string, string> = {
  detect: "outline", observe: "discern", recognise: "perceive", identify: "characterise", inspect: "scrutinise",
};

export function ReliefLegend({ footprints, needs }: { footprints: Footprint[]; needs: string }) {
  const bands = footprints[0]?.bands ?? [];
  if (bands.length === 0) return null;
  return (
    <div className="legend" role="group" aria-label="Pixel density at eye height, 1.6 m">
      {bands.map((band, depth) => (
        <div key={band.task}>
          <span className={`legend-swatch depth-${depth}`} />
          <span>{needs === "2025" ? STEPS_2025[band.task] : band.task}</span>
          <span className="legend-figure figure">{density(band.px_per_m)}</span>
        </div>
      ))}
      <div className="legend-unit">px/m at eye height</div>
    </div>
  );
}
