import { describe, expect, it } from "vitest";
import { toGround, toPixel } from "./drawingPlace";

const drawing = {
  picture: "",
  width_px: 1200,
  height_px: 800,
  metres_per_px: 0.1,
  centre: [60, 40],
  turn_deg: 0,
  fade: 0,
  scale_from: [],
};

describe("a drawing on the site", () => {
  it("has its middle where it says and its top to the north", () => {
    expect(toGround(drawing, [600, 400])).toEqual([60, 40]);
    expect(toGround(drawing, [600, 300])).toEqual([60, 50]);
    expect(toGround(drawing, [700, 400])).toEqual([70, 40]);
  });

  it("turns clockwise with the bearing of its top", () => {
    const [x, y] = toGround({ ...drawing, turn_deg: 90 }, [600, 300]);
    expect([x, y].map((c) => Number(c.toFixed(9)))).toEqual([70, 40]);
  });

  it("goes there and back", () => {
    const turned = { ...drawing, turn_deg: -37.5 };
    const [u, v] = toPixel(turned, toGround(turned, [123.4, 567.8]));
    expect(u).toBeCloseTo(123.4, 9);
    expect(v).toBeCloseTo(567.8, 9);
  });
});
