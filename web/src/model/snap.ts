/** Where a hand that draws means to be: on a corner, an edge, its extension, at a right angle to the side before. */
import type { Obstacle, Point } from "../core/types";
import { rounded } from "./points";

export interface Snapped {
  at: Point;
  /** What it snapped to; null for nothing. */
  to: "corner" | "first" | "edge" | "extension" | "right angle" | null;
}

type Edge = [Point, Point];

const apart = (a: Point, b: Point): number => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** How near it must come, as a share of the reach: corners pull harder than lines. */
const LINES = 0.75;
/** How near to a right angle, degrees. */
const SQUARE = 4;

/** The outlines' edges; those of a filled one close. */
export function edgesOf(outline: number[][], closed: boolean): Edge[] {
  const points = outline.map(([x = 0, y = 0]): Point => [x, y]);
  const ends = closed ? [...points, ...points.slice(0, 1)] : points;
  return ends.slice(1).map((end, place): Edge => [ends[place] ?? end, end]);
}

/** The foot of a point on the line through an edge, and where along the edge it is, 0 to 1 on it. */
export function footOn([a, b]: Edge, [x, y]: Point): { at: Point; along: number } {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dy * dy;
  const along = square === 0 ? 0 : ((x - a[0]) * dx + (y - a[1]) * dy) / square;
  return { at: [a[0] + dx * along, a[1] + dy * along], along };
}

/** How far a point is from an edge. */
export function toEdge(edge: Edge, from: Point): number {
  const { at, along } = footOn(edge, from);
  return along < 0 ? apart(edge[0], from) : along > 1 ? apart(edge[1], from) : apart(at, from);
}

/**
 * Snaps a place. `reach` is how near something must be to pull, m; `drawn` are the points drawn so far; `frame` is the outline of
 * the picture from above, if there is one.
 */
export function snap(where: Point, reach: number, obstacles: Obstacle[], drawn: Point[], frame: Point[] = []): Snapped {
  const first = drawn[0];
  if (first && drawn.length > 2 && apart(first, where) <= reach) return { at: first, to: "first" };
  const edges = [...obstacles.flatMap((o) => edgesOf(o.outline, o.closed !== false)), ...edgesOf(frame, true)];
  const corners = [...edges.flat(), ...drawn.slice(0, -1)];
  const corner = nearest(corners, where);
  if (corner && apart(corner, where) <= reach) return { at: corner, to: "corner" };
  const feet = edges.map((edge) => ({ ...footOn(edge, where), edge }));
  const on = nearest(
    feet.filter((foot) => foot.along >= 0 && foot.along <= 1).map((foot) => foot.at),
    where,
  );
  const square = squared(where, drawn);
  if (on && apart(on, where) <= reach * LINES) return { at: on, to: "edge" };
  // Past its ends an edge is followed for as long as it is itself.
  const beyond = nearest(
    feet.filter((foot) => foot.along > -1 && foot.along < 2).map((foot) => foot.at),
    where,
  );
  if (beyond && apart(beyond, where) <= (reach * LINES) / 2) return { at: beyond, to: "extension" };
  if (square) return { at: square, to: "right angle" };
  return { at: [rounded(where[0], 2), rounded(where[1], 2)], to: null };
}

function nearest(points: Point[], to: Point): Point | undefined {
  let [best, far]: [Point | undefined, number] = [undefined, Infinity];
  for (const point of points) {
    const here = apart(point, to);
    if (here < far) [best, far] = [point, here];
  }
  return best;
}

/** The place at a right angle to the side before, or along it, if that is nearly meant; the first side goes with the compass. */
function squared(where: Point, drawn: Point[]): Point | null {
  const last = drawn.at(-1);
  if (!last) return null;
  const before = drawn.at(-2);
  const from = before ? bearingOf(before, last) : 0;
  const length = apart(last, where);
  const off = bearingOf(last, where) - from;
  const turn = Math.round(off / 90) * 90;
  if (Math.abs(off - turn) > SQUARE || length === 0) return null;
  return along(last, length * Math.cos(((off - turn) * Math.PI) / 180), from + turn);
}

/** A bearing, degrees clockwise from north. */
export const bearingOf = (a: Point, b: Point): number => (Math.atan2(b[0] - a[0], b[1] - a[1]) * 180) / Math.PI;

/** The place so far away on a bearing, to the millimetre. */
export function along([x, y]: Point, length: number, bearing: number): Point {
  const turn = (bearing * Math.PI) / 180;
  return [rounded(x + Math.sin(turn) * length, 3), rounded(y + Math.cos(turn) * length, 3)];
}

type Box = readonly [west: number, south: number, east: number, north: number];
const boxes = new WeakMap<number[][], Box>();

/** What encloses an outline; kept with it, since an outline that changes is another one. */
function boxOf(outline: number[][]): Box {
  const held = boxes.get(outline);
  if (held) return held;
  const [xs, ys] = [outline.map(([x = 0]) => x), outline.map(([, y = 0]) => y)];
  const box: Box = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  boxes.set(outline, box);
  return box;
}

/** Whether a place is within so many metres of an outline's sides. */
export function isBeside(outline: number[][], closed: boolean, [x, y]: Point, within: number): boolean {
  const [west, south, east, north] = boxOf(outline);
  if (x < west - within || x > east + within || y < south - within || y > north + within) return false;
  return edgesOf(outline, closed).some((edge) => toEdge(edge, [x, y]) <= within);
}
