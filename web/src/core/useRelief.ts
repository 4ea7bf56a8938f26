/** The relief of what the plan shows: coarse while something moves, fine once it rests. */
import { useEffect, useMemo, useRef, useState } from "react";
import { onceAtRest } from "./hand";
import { Latest } from "./latest";
import { type Raster, relief } from "./reliefs";
import type { ReliefWish, SiteFile } from "./types";

/** Sides of a cell on the screen, px: while something moves, and at rest. */
const COARSE_PX = 6;
const FINE_PX = 2;
/** How long everything must rest before the fine relief is worked out, ms. */
const REST = 140;
/** While something moves the relief is worked out at most so often, ms: the hand comes first. */
const AT_MOST = 60;
/** How far past the plan's edges the relief reaches, share of its size: moved a little, nothing is missing. */
const MARGIN = 0.12;

export interface PlanWindow {
  centre: readonly [number, number];
  /** Pixels per metre. */
  scale: number;
  size: readonly [number, number];
}

export interface ReliefShown {
  raster: Raster;
  /** The state of the site that it is of. */
  of: SiteFile;
}

interface Wish {
  site: SiteFile;
  window: ReliefWish;
  slot: 0 | 1;
}

/** The cells over a window of the plan; they lie on whole multiples of their side, so that a moved plan keeps its cells. */
export function cellsOver({ centre, scale, size }: PlanWindow, px: number, height: number): ReliefWish {
  const cell = px / scale;
  const reach = [0, 1].map((axis) => ((size[axis] ?? 0) / scale) * (0.5 + MARGIN));
  const whole = (value: number): number => Math.round(value / cell) * cell;
  const [west, south] = [whole(centre[0] - (reach[0] ?? 0)), whole(centre[1] - (reach[1] ?? 0))];
  const [columns, rows] = reach.map((half) => Math.max(Math.round((2 * half) / cell), 1));
  return { west, south, east: west + (columns ?? 1) * cell, north: south + (rows ?? 1) * cell, cell, height };
}

/** Whether cells lie under all of a window. */
function covers({ west, south, east, north }: ReliefWish, { centre: [x, y], scale, size }: PlanWindow): boolean {
  const [half, tall] = [size[0] / scale / 2, size[1] / scale / 2];
  return x - half >= west && x + half <= east && y - tall >= south && y + tall <= north;
}

export function useRelief(site: SiteFile, plan: PlanWindow, height: number, sheet: 0 | 1 = 0): ReliefShown | null {
  const [shown, setShown] = useState<ReliefShown | null>(null);
  const runner = useMemo(
    () =>
      new Latest<Wish, Raster | null>(
        ({ site: of, window, slot }) => relief(of, window, slot, sheet),
        ({ site: of }, raster) => raster && setShown({ raster, of }),
        (took) => Math.max(AT_MOST - took, took),
      ),
    [sheet],
  );
  const { centre, scale, size } = plan;
  const [x, y] = centre;
  const [width, tall] = size;
  const first = useRef(true);
  const latest = useRef<ReliefShown | null>(null);
  useEffect(() => {
    latest.current = shown;
  });
  useEffect(() => () => runner.stop(), [runner]);
  useEffect(() => {
    if (width === 0 || tall === 0) return;
    const over = (px: number): ReliefWish => cellsOver({ centre: [x, y], scale, size: [width, tall] }, px, height);
    // A plan that is only moved shows what it has, as far as that reaches.
    const { raster, of } = latest.current ?? {};
    const has =
      of === site &&
      raster?.wish.height === height &&
      covers(raster.wish, { centre: [x, y], scale, size: [width, tall] });
    if (!first.current && !has) runner.want({ site, window: over(COARSE_PX), slot: 0 });
    first.current = false;
    return onceAtRest(REST, () => runner.want({ site, window: over(FINE_PX), slot: 1 }));
  }, [runner, site, x, y, scale, width, tall, height]);
  return shown;
}
