/** Points of the plan and ids, the small change of all edits. */
import type { Point } from "../core/types";

/** An id that the list does not have yet: the letter and the next free number. */
export function freshId(letter: string, taken: { id: string }[]): string {
  const ids = new Set(taken.map((item) => item.id));
  for (let n = taken.length + 1; ; n++) if (!ids.has(`${letter}${n}`)) return `${letter}${n}`;
}

/** The mean of some points. */
export function mean(points: number[][]): Point {
  const sum = points.reduce<Point>((a, p) => [a[0] + (p[0] ?? 0), a[1] + (p[1] ?? 0)], [0, 0]);
  const n = points.length || 1;
  return [sum[0] / n, sum[1] / n];
}

/** A bearing in degrees from 0 up to 360. */
export const bearing = (from: Point, to: Point): number =>
  ((Math.atan2(to[0] - from[0], to[1] - from[1]) * 180) / Math.PI + 360) % 360;

/** Rounds to a number of decimals, for values that a hand has set. */
export const rounded = (value: number, decimals: number): number => Number(value.toFixed(decimals));

export const roundPoint = ([x, y]: Point): Point => [rounded(x, 2), rounded(y, 2)];

export const shifted = (points: number[][], east: number, north: number, decimals: number): Point[] =>
  points.map(([x = 0, y = 0]) => [rounded(x + east, decimals), rounded(y + north, decimals)]);

/** A plain copy of what may be a draft under change. */
export function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
