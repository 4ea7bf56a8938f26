import { expect, test } from "vitest";
import type { PhotoLaid } from "../../core/types";
import { placeIn, warped } from "./inPhoto";

const laid = (at: PhotoLaid["at"]): PhotoLaid => ({
  picture: "",
  columns: 3,
  rows: 2,
  at,
  share: 1,
  focal_36_mm: 28,
  off_share: 0,
  doubtful: null,
  fits: true,
});
const WHOLE: PhotoLaid["at"] = [
  [0, 0],
  [0.5, 0],
  [1, 0],
  [0, 1],
  [0.5, 1],
  [1, 1],
];

test("between the places that are told it goes straight; beside one that is not there is nothing", () => {
  expect(placeIn(laid(WHOLE), 0.25, 0.4)).toEqual([0.25, 0.4]);
  expect(placeIn(laid(WHOLE), 1, 1)).toEqual([1, 1]);
  const half = laid([...WHOLE.slice(0, 2), null, ...WHOLE.slice(3)]);
  expect(placeIn(half, 0.2, 0.9)).not.toBeNull();
  expect(placeIn(half, 0.8, 0.9)).toBeNull();
});

test("a view that is the whole photo is the photo, and what the photo does not show is paper", () => {
  const photo = { width: 4, height: 2, data: new Uint8ClampedArray(32).map((_, place) => place * 7) } as ImageData;
  expect(Array.from(warped(laid(WHOLE), photo, 4, 2))).toEqual(Array.from(photo.data));
  const nothing = warped(laid(WHOLE.map(() => null)), photo, 4, 2);
  expect(Array.from(nothing.slice(0, 4))).toEqual([255, 253, 247, 255]);
});
