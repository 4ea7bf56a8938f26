import { expect, test } from "vitest";
import type { PictureTold } from "../../../core/types";
import { loupeCorner, loupeSize } from "./Loupe";
import { SHUTTER_TIME, widthIn } from "./pictureView";

test("a loupe shows whole pixels, as large as its room takes them, and never fewer than one for one", () => {
  // A face of 38 × 44 px: a margin around it, and twice as large.
  expect(loupeSize([100, 100, 138, 144], [188, 128])).toEqual({ across: 56, down: 64, times: 2 });
  // A plate that is wider than the room is cut off at its sides, one to one.
  expect(loupeSize([0, 0, 400, 80], [188, 128])).toEqual({ across: 188, down: 112, times: 1 });
  expect(loupeSize(null, [188, 128]).times).toBeGreaterThan(1);
});

test("a loupe lies where it hides no promise, least of all the one in hand", () => {
  const mark = (target: string, pixel: [number, number]): PictureTold["marks"][number] => ({
    target,
    pixel,
    bracket: [pixel[0] - 20, pixel[1] - 20, pixel[0] + 20, pixel[1] + 20],
    px_per_m: 100,
    good_for: "observe",
    verdict: "kept",
    clear: true,
    blur_px: 0,
  });
  const told = (marks: PictureTold["marks"]): PictureTold => ({
    frame: { origin: [0, 0], scale: 4, width: 300, height: 200 },
    sensor_px: [1200, 800],
    focal_px: 1000,
    marks,
    clipped: 0,
    infrared: false,
    lamps: false,
    horizon: [],
    level: [],
    masks: [],
  });
  const at = (marks: PictureTold["marks"]): string =>
    loupeCorner(told(marks), "t", [300, 200], { across: 50, down: 40, times: 2 });
  expect(at([mark("t", [600, 400])])).toBe("bottom-right");
  expect(at([mark("t", [1100, 700])])).toBe("bottom-left");
  const all = ([[1100, 700], [100, 700], [1100, 100], [100, 100]] as [number, number][]).map((p, i) => mark(i === 0 ? "t" : `o${i}`, p)); // prettier-ignore
  expect(at(all)).not.toBe("bottom-right");
});

test("a shutter time is written as photographers write it", () => {
  expect(SHUTTER_TIME.format(500)).toBe("1/500 s");
  expect(["1/250 s", "250", " 1 / 2000", "slow", "0.5"].map((text) => SHUTTER_TIME.parse(text))).toEqual([
    250,
    250,
    2000,
    null,
    null,
  ]);
});

test("a picture fits its room whole", () => {
  expect(widthIn([2688, 1520], 351, 200)).toBe(351);
  expect(widthIn([1944, 1944], 351, 200)).toBe(200);
});
