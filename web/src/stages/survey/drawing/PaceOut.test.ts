import { describe, expect, it } from "vitest";
import { corners } from "./corners";

describe("a sketch that is paced out", () => {
  it("goes over the corners that lengths and bearings lead to", () => {
    const walked = corners(
      [10, 20],
      [
        { length: 5, bearing: 90 },
        { length: 3, bearing: 0 },
        { length: 5, bearing: 270 },
        { length: 3, bearing: 180 },
      ],
    );
    expect(walked.map(([x, y]) => [Number(x.toFixed(9)), Number(y.toFixed(9))])).toEqual([
      [10, 20],
      [15, 20],
      [15, 23],
      [10, 23],
      [10, 20],
    ]);
  });

  it("is only its start without a leg", () => {
    expect(corners([1, 2], [])).toEqual([[1, 2]]);
  });
});
