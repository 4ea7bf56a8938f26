import { describe, expect, it } from "vitest";
import { faultInWords, placeInWords } from "./place";

describe("the place of a fault", () => {
  it("is told in words, with the name of what it is about where that is known", () => {
    const site = { cameras: [{ name: "Fuel berth" }] } as never;
    for (const [path, words] of [
      ["cameras[0].heads[1].focal_mm", "camera 1 (Fuel berth), head 2, focal"],
      ["targets[2].shape.points[0][1]", "target 3, point 1"],
      ["rules.face_kept_deg", "face kept"],
      ["drawing.scale_from[0].distance_m", "drawing, distance 1, distance"],
      ["name", "name"],
      ["", ""],
    ] as const)
      expect(placeInWords(path, site)).toBe(words);
  });

  it("stands before what is wrong, and no bracket of a file is left", () => {
    const said = faultInWords({ path: "targets[0].height_m", message: "-1 is outside 0 to 500 m" });
    expect(said).toBe("Target 1, height: -1 is outside 0 to 500 m");
    expect(faultInWords({ path: "line 4", message: "from is empty" })).toBe("Line 4: from is empty");
    expect(faultInWords({ path: "", message: "this is no JSON file" })).toBe("This is no JSON file");
  });
});
