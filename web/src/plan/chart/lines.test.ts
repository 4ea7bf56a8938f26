import { describe, expect, it } from "vitest";
import type { Raster } from "../../core/reliefs";
import { contoursAt, shoreOf, soundingsOf } from "./lines";

/** A raster of one-metre cells from a function of their centres. */
function raster(columns: number, rows: number, density: (x: number, y: number) => number): Raster {
  const values = new Float32Array(columns * rows);
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) values[row * columns + column] = density(column + 0.5, row + 0.5);
  return {
    wish: { west: 100, south: 50, east: 100 + columns, north: 50 + rows, cell: 1, height: 1.6 },
    columns,
    rows,
    values,
  };
}

describe("contours", () => {
  it("run where the density passes the need", () => {
    // The density falls to the east as 1000 / x: 125 px/m is passed at x = 8.
    const [contour] = contoursAt(
      raster(30, 20, (x) => 1000 / x),
      [125],
    );
    const points = contour?.lines.flat() ?? [];
    expect(points.length).toBeGreaterThan(10);
    for (const [x] of points) expect(x).toBeCloseTo(108, 0);
  });

  it("do not run along a shadow or where one picture ends over another", () => {
    const shadow = raster(30, 20, (x, y) => (y > 10 ? 0 : 1000 / x));
    for (const line of contoursAt(shadow, [125])[0]?.lines ?? [])
      for (const [, y] of line) expect(y).toBeLessThan(50 + 10.1);
    const overlap = raster(30, 20, (_, y) => (y > 10 ? 50 : 300));
    expect(contoursAt(overlap, [125])[0]?.lines).toEqual([]);
  });
});

describe("the shore", () => {
  it("has its strokes on the unseen side", () => {
    const hachures = shoreOf(
      raster(30, 20, (x) => (x > 15 ? 0 : 100)),
      1,
    );
    expect(hachures.length).toBeGreaterThan(10);
    for (const { at, towards } of hachures) {
      expect(at[0]).toBeCloseTo(115.5, 0);
      expect(towards[0]).toBeGreaterThan(0.9);
    }
    const other = shoreOf(
      raster(30, 20, (x) => (x > 15 ? 100 : 0)),
      1,
    );
    expect(other.length).toBeGreaterThan(10);
    for (const { towards } of other) expect(towards[0]).toBeLessThan(-0.9);
  });

  it("is not where the raster ends", () => {
    expect(
      shoreOf(
        raster(30, 20, () => 100),
        1,
      ),
    ).toEqual([]);
  });
});

describe("soundings", () => {
  it("stand on a lattice that keeps its places, where something is seen", () => {
    const seen = raster(30, 20, (x) => (x > 15 ? 0 : 80));
    const found = soundingsOf(seen, 4);
    expect(found.length).toBeGreaterThan(8);
    for (const { at, density } of found) {
      expect([density, at[1] % 4, at[0] % 2]).toEqual([80, 0, 0]);
      expect(at[0]).toBeLessThan(115.01);
    }
    const moved = { ...seen, wish: { ...seen.wish } };
    expect(soundingsOf(moved, 4)).toEqual(found);
  });
});
