import { describe, expect, it } from "vitest";
import type { Import, SiteFile } from "../core/types";
import { bringIn, bringInPoints, choicesOf, countOf, pointsOf } from "./bringIn";

const outline = [
  [0, 0],
  [4, 0],
  [4, 3],
];
const solid = (id: string, kind: "building" | "wall") => ({
  id,
  name: id,
  kind,
  outline,
  closed: kind === "building",
  base_m: 1,
  top_m: 3,
});
const brought: Import = {
  coordinates: "metres",
  layers: [
    { name: "HOUSES", kind: "building", obstacles: [solid("i1", "building"), solid("i2", "building")] },
    { name: "WALLS", kind: "wall", obstacles: [solid("i3", "wall")] },
  ],
  points: [
    { source: "point 4", layer: "P", name: "Under the eave", at: [1.23456, 2], height_m: 1.35 },
    { source: "point 5", layer: "P", name: null, at: [3, 4], height_m: -1.8 },
    { source: "point 6", layer: "P", name: "Till", at: [5, 6], height_m: 0.1 },
  ],
  left_out_count: 0,
  left_out: [],
  middle: [2, 1.5],
  size_m: [4, 3],
};

describe("a drawing that is brought in", () => {
  it("adds the chosen layers under ids of the site, moved, as what they were said to be", () => {
    const site: SiteFile = {
      format: "bright-angle/site",
      version: 1,
      name: "Yard",
      obstacles: [solid("o1", "wall")],
      targets: [],
      cameras: [],
    };
    const [houses, walls] = choicesOf(brought);
    if (!houses || !walls) throw new Error("two layers");
    const choices = [
      { ...houses, taken: false },
      { ...walls, kind: "door" as const, top: 0.5 },
    ];
    expect([countOf(brought, choicesOf(brought)), countOf(brought, choices)]).toEqual([3, 1]);
    const ids = bringIn(site, brought, choices, [10, -1]);
    expect(ids).toEqual(["o2"]);
    const made = site.obstacles?.[1];
    expect([made?.kind, made?.outline[1], made?.top_m, made?.open_outline?.length]).toEqual([
      "door",
      [14, -1],
      1.01,
      3,
    ]);
    expect(brought.layers[1]?.obstacles[0]).toMatchObject({ id: "i3", outline });
  });

  it("makes spots and targets of the points that were chosen, at their heights over where the rangefinder stood", () => {
    const site: SiteFile = { format: "bright-angle/site", version: 1, name: "Yard", targets: [], cameras: [] };
    bringInPoints(site, brought, pointsOf(brought), [0, 0]);
    expect([site.spots, site.targets]).toEqual([undefined, []]);
    bringInPoints(site, brought, { as: ["spot", "spot", "target"], zero: 1.5 }, [10, -1]);
    expect(site.spots).toMatchObject([
      { name: "Under the eave", position: [11.23, 1], height_m: 2.85 },
      { name: "Spot 2", position: [13, 3], height_m: 0, ground_m: -0.3 },
    ]);
    expect(site.targets).toMatchObject([{ name: "Till", shape: { points: [[15, 5]] }, height_m: 1.6 }]);
  });
});
