/**
 * The lines of the chart: contours where the density passes a need, and the shore where the seen ground ends.
 *
 * A contour is drawn only where the density passes the need gradually. Where it jumps (at a shadow's edge, or where one head's
 * picture ends over another's) there is no contour to draw: towards unseen ground that is the shore, else nothing.
 */
import { contours } from "d3-contour";
import type { Raster } from "../../core/reliefs";
import type { Point } from "../../core/types";
import type { Contour, Hachure, Sounding } from "./messages";

/** Between neighbouring cells more than this factor apart the density jumps. */
const JUMP = 1.35;
/** What is seen at all, px/m. */
const SEEN = 1e-6;

/** Reads a raster by cell; outside of it nothing is known. */
export class Cells {
  constructor(private readonly raster: Raster) {}

  at(column: number, row: number): number | undefined {
    const { columns, rows, values } = this.raster;
    return column < 0 || row < 0 || column >= columns || row >= rows ? undefined : values[row * columns + column];
  }

  /** The four cells around a place, in cells from the south-west corner. */
  around([x, y]: Point): (number | undefined)[] {
    const [column, row] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
    return [this.at(column, row), this.at(column + 1, row), this.at(column, row + 1), this.at(column + 1, row + 1)];
  }

  /** A place in cells as metres. */
  ground([x, y]: Point): Point {
    const { west, south, cell } = this.raster.wish;
    return [west + x * cell, south + y * cell];
  }
}

function ringsAt({ columns, rows, values }: Raster, threshold: number): Point[][] {
  const found = contours()
    .size([columns, rows])
    .contour(values as unknown as number[], threshold);
  return found.coordinates.flatMap((polygon) => polygon as Point[][]);
}

/** Whether the density passes gradually around a place. */
function gradual(around: (number | undefined)[]): boolean {
  let [least, most] = [Infinity, 0];
  for (const value of around) {
    if (value === undefined || value < SEEN) return false;
    least = Math.min(least, value);
    most = Math.max(most, value);
  }
  return most < least * JUMP;
}

/** The parts of a ring whose segments hold a condition. */
function parts(ring: Point[], holds: (middle: Point) => boolean): Point[][] {
  const found: Point[][] = [];
  let open: Point[] | null = null;
  for (let i = 1; i < ring.length; i++) {
    const [a, b] = [ring[i - 1], ring[i]];
    if (!a || !b) continue;
    if (holds([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2])) {
      if (open) open.push(b);
      else found.push((open = [a, b]));
    } else open = null;
  }
  return found;
}

/** The contours at some needs. */
export function contoursAt(raster: Raster, needs: number[]): Contour[] {
  const cells = new Cells(raster);
  return needs.map((need) => ({
    need,
    lines: ringsAt(raster, need)
      .flatMap((ring) => parts(ring, (middle) => gradual(cells.around(middle))))
      .filter((line) => line.length > 3)
      .map((line) => line.map((place) => cells.ground(place))),
  }));
}

/** Strokes along the shore, `apart` metres apart. */
export function shoreOf(raster: Raster, apart: number): Hachure[] {
  const cells = new Cells(raster);
  const hachures: Hachure[] = [];
  const step = apart / raster.wish.cell;
  for (const ring of ringsAt(raster, SEEN)) {
    // Where the raster ends nothing is known: that is no shore.
    for (const part of parts(ring, (middle) => cells.around(middle).every((value) => value !== undefined))) {
      let along = step / 2;
      for (let i = 1; i < part.length; i++) {
        const [a, b] = [part[i - 1], part[i]];
        if (!a || !b) continue;
        const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
        for (; along < length; along += step) {
          const share = along / length;
          // d3 walks a ring with what is over the threshold on its right hand in its own axes, so on the left of ours.
          const towards: Point = [(b[1] - a[1]) / length, -(b[0] - a[0]) / length];
          const at: Point = [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share];
          hachures.push({ at: cells.ground(at), towards: unseenSide(cells, at, towards) });
        }
        along -= length;
      }
    }
  }
  return hachures;
}

/** The side of a place on the shore that is not seen. */
function unseenSide(cells: Cells, [x, y]: Point, [east, north]: Point): Point {
  const there = cells.at(Math.floor(x + east), Math.floor(y + north)) ?? 0;
  const back = cells.at(Math.floor(x - east), Math.floor(y - north)) ?? 0;
  return there > back ? [-east, -north] : [east, north];
}

/** Soundings on a lattice `apart` metres wide that stays where it is when the plan moves. */
export function soundingsOf(raster: Raster, apart: number): Sounding[] {
  const { west, south, east, north, cell } = raster.wish;
  const cells = new Cells(raster);
  const found: Sounding[] = [];
  for (let row = Math.ceil(south / apart); row * apart < north; row++) {
    for (let column = Math.ceil(west / apart); column * apart < east; column++) {
      // Every other row stands half a step aside, as in a chart.
      const at: Point = [(column + (row % 2 === 0 ? 0 : 0.5)) * apart, row * apart];
      const density = cells.at(Math.floor((at[0] - west) / cell), Math.floor((at[1] - south) / cell));
      if (density !== undefined && density > SEEN) found.push({ at, density });
    }
  }
  return found;
}
