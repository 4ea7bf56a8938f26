/** What a hand does while it draws: points by taps and by typed lengths, finishing, and the box that selects. */
import type { Outlined, Point, SiteFile } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { addPrivate } from "../../../model/privatePlaces";
import { addDrawn, inBox } from "../../../model/shapes";
import { type Snapped, along, bearingOf, snap } from "../../../model/snap";
import { corners } from "../../../plan/drawingPlace";
import { usePlanView } from "../../../plan/planView";
import { useDraw } from "./drawView";

/** How near something must be to pull the hand, px. */
const REACH = 11;

export function snapped(site: SiteFile, where: Point): Snapped {
  const frame = site.drawing ? corners(site.drawing) : [];
  return snap(where, REACH / usePlanView.getState().scale, site.obstacles ?? [], useDraw.getState().points, frame);
}

/** Where a hand that drags a corner means to be: pulled by all but the obstacle's own sides, and square to the side before. */
export function snappedCorner(site: SiteFile, obstacle: Outlined, place: number, to: Point): Point {
  const { outline } = obstacle;
  const open = obstacle.closed === false;
  const before = (back: number): number[] | undefined =>
    open ? outline[place - back] : outline[(place - back + 2 * outline.length) % outline.length];
  const drawn = [before(2), before(1)].filter((p) => p !== undefined) as Point[];
  const others = (site.obstacles ?? []).filter((held) => held.id !== obstacle.id);
  const frame = site.drawing ? corners(site.drawing) : [];
  return snap(to, REACH / usePlanView.getState().scale, others, drawn.length === 2 || open ? drawn : [], frame).at;
}

/** Begins to draw. */
export function draw(): void {
  useDraw.getState().set({ points: [], hand: null });
  useInHand.getState().place("draw");
}

/** Begins to select by a box. */
export function selectByBox(): void {
  useDraw.getState().set({ corner: null, hand: null, chosen: [] });
  useInHand.getState().place("box");
}

/** Puts the next point; on the first one it closes the outline. */
export function putPoint({ at, to }: Snapped): void {
  const { points, set } = useDraw.getState();
  if (to === "first") {
    set({ closed: true });
    finish();
    return;
  }
  const last = points.at(-1);
  if (last && last[0] === at[0] && last[1] === at[1]) return;
  set({ points: [...points, at] });
}

/** The next point by a typed length and bearing; where no bearing was typed it is the hand's. Answers whether it made sense. */
export function putTyped(length: number | null, bearing: number | null): boolean {
  const { points, hand } = useDraw.getState();
  const last = points.at(-1);
  if (!last || length === null || length <= 0) return false;
  const way = bearing ?? (hand ? bearingOf(last, hand.at) : null);
  if (way === null) return false;
  putPoint({ at: along(last, length, way), to: null });
  return true;
}

export function takeBack(): void {
  const { points, set } = useDraw.getState();
  set({ points: points.slice(0, -1) });
}

/** How many points it takes. */
export const leastPoints = (closed: boolean): number => (closed ? 3 : 2);

/** Adds what was drawn to the site, and takes it in hand. */
export function finish(): void {
  const { kind, closed, top, points, set } = useDraw.getState();
  if (points.length < leastPoints(closed)) return;
  let made = "";
  useSite.getState().edit(`Draw a ${kind === "private" ? "private place" : kind}`, (site) => {
    made = kind === "private" ? addPrivate(site, points, closed, top) : addDrawn(site, kind, points, closed, top);
  });
  set({ points: [], hand: null });
  useInHand.getState().take({ kind: kind === "private" ? "private" : "obstacle", id: made });
}

/** The corners of the box that selects: the first tap, and the second. */
export function putBoxCorner(site: SiteFile, at: Point): void {
  const { corner, set } = useDraw.getState();
  if (!corner) {
    // Without a pointer the middle of the plan is the hand, and the plan is moved under it.
    set({ corner: at, hand: null });
    return;
  }
  // The same place once more is no box yet.
  if (corner[0] === at[0] || corner[1] === at[1]) return;
  set({ corner: null, chosen: inBox(site, corner, at) });
  useInHand.getState().place(null);
}
