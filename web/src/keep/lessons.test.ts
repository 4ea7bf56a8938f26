import { beforeEach, expect, test } from "vitest";
import { KINDS, kindOf, useLessons } from "./lessons";

beforeEach(() => useLessons.getState().forget());

test("questions come in turn, and what was missed comes again in between until it is right as often", () => {
  const { noted } = useLessons.getState();
  const four = [1, 2, 3, 4].map((number) => kindOf(number, {}));
  expect(new Set(four)).toEqual(new Set(KINDS));
  noted("night", false);
  noted("night", false);
  noted("lens", false);
  const { scores } = useLessons.getState();
  const eight = [1, 2, 3, 4, 5, 6, 7, 8].map((number) => kindOf(number, scores));
  expect(eight.filter((kind) => kind === "night").length).toBeGreaterThanOrEqual(4);
  // The others are not forgotten.
  expect(new Set(eight)).toEqual(new Set(KINDS));
  noted("night", true);
  noted("night", true);
  noted("lens", true);
  expect(kindOf(2, useLessons.getState().scores)).toBe(kindOf(2, {}));
  expect(useLessons.getState().next).toBe(7);
});
