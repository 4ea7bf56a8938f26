/** What is done to the outline of an obstacle: drawn, offset, split, moved and set together with others. */
import { GUIDE } from "../core/guide";
import type { Obstacle, ObstacleBegins, Point, SiteFile } from "../core/types";
import { obstacleOf } from "./lookups";
import { duplicateObstacle, removeObstacle, setKind } from "./obstacles";
import { freshId, mean, plain, rounded, shifted } from "./points";
import { edgesOf } from "./snap";

/** How an obstacle of a kind begins: filled or a thin wall, how high, how well one sees through it. */
export function obstacleBegins(kind: Obstacle["kind"]): ObstacleBegins {
  const known = GUIDE.begins.obstacles.find((begins) => begins.kind === kind);
  if (!known) throw new Error(`nobody says how a ${kind} begins`);
  return known;
}
export const OBSTACLE_KINDS = GUIDE.begins.obstacles.map(({ kind }) => kind);

/** Adds what was drawn. */
export function addDrawn(
  site: SiteFile,
  kind: Obstacle["kind"],
  points: Point[],
  closed: boolean,
  top: number,
): string {
  site.obstacles ??= [];
  const id = freshId("o", site.obstacles);
  const begins = obstacleBegins(kind);
  const obstacle: Obstacle = {
    id,
    name: `${kind[0]?.toUpperCase() ?? ""}${kind.slice(1)} ${site.obstacles.length + 1}`,
    kind,
    outline: points.map(([x, y]) => [rounded(x, 3), rounded(y, 3)]),
    closed,
    base_m: Math.min(begins.base_m, top - 0.05),
    top_m: top,
    see_through: begins.see_through,
  };
  if (kind === "door") setKind(obstacle, "door");
  site.obstacles.push(obstacle);
  return id;
}

const length = ([a, b]: [Point, Point]): number => Math.hypot(b[0] - a[0], b[1] - a[1]);

/** The area of an outline, positive when it runs counter-clockwise. */
function area(points: Point[]): number {
  return edgesOf(points, true).reduce((sum, [a, b]) => sum + (a[0] * b[1] - b[0] * a[1]) / 2, 0);
}

/** An outline with every side moved outwards by so much (inwards below zero); of a thin wall to its right. */
export function offsetOutline(outline: number[][], closed: boolean, by: number): Point[] {
  const points = outline.map(([x = 0, y = 0]): Point => [x, y]);
  const out = closed && area(points) < 0 ? -by : by;
  const edges = edgesOf(points, closed).map(([a, b]): [Point, Point] => {
    const long = length([a, b]) || 1;
    const [nx, ny] = [((b[1] - a[1]) / long) * out, (-(b[0] - a[0]) / long) * out];
    return [
      [a[0] + nx, a[1] + ny],
      [b[0] + nx, b[1] + ny],
    ];
  });
  return points.map((_, place): Point => {
    const before = edges[closed ? (place + edges.length - 1) % edges.length : place - 1];
    const after = edges[place];
    const met = before && after ? meet(before, after) : (after?.[0] ?? before?.[1] ?? [0, 0]);
    return [rounded(met[0], 3), rounded(met[1], 3)];
  });
}

/** Where the lines through two edges meet; of parallel ones the end of the first. */
function meet([a, b]: [Point, Point], [c, d]: [Point, Point]): Point {
  const [rx, ry, sx, sy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const cross = rx * sy - ry * sx;
  if (Math.abs(cross) < 1e-9) return b;
  const t = ((c[0] - a[0]) * sy - (c[1] - a[1]) * sx) / cross;
  return [a[0] + rx * t, a[1] + ry * t];
}

/** Adds a copy with every side moved by so much. */
export function offsetCopy(site: SiteFile, id: string, by: number): string | null {
  const copy = duplicateObstacle(site, id);
  const [held, made] = [obstacleOf(site, id), copy && obstacleOf(site, copy)];
  if (!held || !made) return null;
  made.outline = offsetOutline(held.outline, held.closed !== false, by);
  return copy;
}

/** Splits an obstacle in two: a thin wall in the middle of its length, a filled one across the middles of its longest side and the side opposite. */
export function splitObstacle(site: SiteFile, id: string): string | null {
  const held = obstacleOf(site, id);
  if (!held) return null;
  const parts = held.closed === false ? splitWall(held.outline) : splitFilled(held.outline);
  if (!parts) return null;
  const other = structuredClone(plain(held));
  other.id = freshId("o", site.obstacles ?? []);
  other.name = `${held.name} (2)`.slice(0, 200);
  delete other.open_outline;
  delete other.open;
  [held.outline, other.outline] = parts;
  delete held.open_outline;
  delete held.open;
  if (held.kind === "door") for (const leaf of [held, other]) setKind(leaf, "door");
  site.obstacles?.push(other);
  return other.id;
}

function splitWall(outline: number[][]): [Point[], Point[]] {
  const edges = edgesOf(outline, false);
  let left = edges.reduce((sum, edge) => sum + length(edge), 0) / 2;
  const place = edges.findIndex((edge) => {
    if (left <= length(edge)) return true;
    left -= length(edge);
    return false;
  });
  const [a, b] = edges[Math.max(place, 0)] ?? [
    [0, 0],
    [0, 0],
  ];
  const share = left / (length([a, b]) || 1);
  const at: Point = [rounded(a[0] + (b[0] - a[0]) * share, 3), rounded(a[1] + (b[1] - a[1]) * share, 3)];
  const points = outline.map(([x = 0, y = 0]): Point => [x, y]);
  const same = (p: Point | undefined): boolean => p !== undefined && Math.hypot(p[0] - at[0], p[1] - at[1]) < 1e-3;
  const [before, after] = [points.slice(0, place + 1), points.slice(place + 1)];
  return [same(before.at(-1)) ? before : [...before, at], same(after[0]) ? after : [at, ...after]];
}

function splitFilled(outline: number[][]): [Point[], Point[]] | null {
  const edges = edgesOf(outline, true);
  const count = edges.length;
  const longest = edges.reduce((best, edge, place) => (length(edge) > length(edges[best] ?? edge) ? place : best), 0);
  const opposite = (longest + Math.floor(count / 2)) % count;
  const [first, second] = [Math.min(longest, opposite), Math.max(longest, opposite)];
  const middle = (place: number): Point => {
    const [x, y] = mean(edges[place] ?? []);
    return [rounded(x, 3), rounded(y, 3)];
  };
  if (first === second || second - first < 1 || count < 4) return null;
  const points = outline.map(([x = 0, y = 0]): Point => [x, y]);
  const [p, q] = [middle(first), middle(second)];
  return [
    [...points.slice(0, first + 1), p, q, ...points.slice(second + 1)],
    [p, ...points.slice(first + 1, second + 1), q],
  ];
}

/** The obstacles of which a corner lies in a box. */
export function inBox(site: SiteFile, [ax, ay]: Point, [bx, by]: Point): string[] {
  const [x0, x1, y0, y1] = [Math.min(ax, bx), Math.max(ax, bx), Math.min(ay, by), Math.max(ay, by)];
  const holds = ([x = 0, y = 0]: number[]): boolean => x >= x0 && x <= x1 && y >= y0 && y <= y1;
  return (site.obstacles ?? []).filter((obstacle) => obstacle.outline.some(holds)).map((obstacle) => obstacle.id);
}

export function moveAll(site: SiteFile, ids: string[], east: number, north: number): void {
  for (const obstacle of (site.obstacles ?? []).filter((held) => ids.includes(held.id))) {
    obstacle.outline = shifted(obstacle.outline, east, north, 3);
    if (obstacle.open_outline) obstacle.open_outline = shifted(obstacle.open_outline, east, north, 3);
  }
}

/** Sets the top of several obstacles; none is set at or under its own underside. */
export function setTops(site: SiteFile, ids: string[], top: number): void {
  for (const obstacle of (site.obstacles ?? []).filter((held) => ids.includes(held.id)))
    obstacle.top_m = Math.max(top, (obstacle.base_m ?? 0) + 0.01);
}

export function copyAll(site: SiteFile, ids: string[]): string[] {
  return ids.flatMap((id) => duplicateObstacle(site, id) ?? []);
}

export function removeAll(site: SiteFile, ids: string[]): void {
  for (const id of ids) removeObstacle(site, id);
}
