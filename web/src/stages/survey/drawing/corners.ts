/** Corners that lengths and bearings lead over. */
import type { Point } from "../../../core/types";

export interface Leg {
  /** m */
  length: number;
  /** Degrees clockwise from north. */
  bearing: number;
}

/** The corners from a start, the start first. */
export function corners(start: Point, legs: Leg[]): Point[] {
  return legs.reduce<Point[]>(
    (points, leg) => {
      const [x, y] = points.at(-1) ?? start;
      const bearing = (leg.bearing * Math.PI) / 180;
      return [...points, [x + Math.sin(bearing) * leg.length, y + Math.cos(bearing) * leg.length]];
    },
    [start],
  );
}
