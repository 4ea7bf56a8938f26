/** One grammar for every figure that is typed. */
import { expect, it } from "vitest";
import { length, plain, whole } from "./Measure";
import { parseNumber } from "./number";

it("takes a comma and a point as the decimal sign, and nothing that could be a thousand times another", () => {
  expect(["62,5", "62.5", " 62,5 ", ",5", "+3", "−4", "-4", "7."].map(parseNumber)).toEqual([
    62.5, 62.5, 62.5, 0.5, 3, -4, -4, 7,
  ]);
  expect(["", "-", ".", "1.234,5", "1,234.5", "1 234", "12-", "any", "1e3", "0x10", "NaN"].map(parseNumber)).toEqual(
    Array(11).fill(null),
  );
});

it("reads the unit behind it, in any case, and no other", () => {
  const bearing = plain("°", 1, 1);
  expect(["90", "90,5°", "90 deg", "90 m"].map((text) => bearing.parse(text))).toEqual([90, 90.5, 90, null]);
  expect(plain("px/m", 1, 1).parse("62,5 PX/M")).toBe(62.5);
  expect(plain("km/h", 0, 1).parse("30 km/h")).toBe(30);
  expect(length("metres").parse("62,5")).toBe(62.5);
});

it("a count is whole", () => {
  const days = whole("days");
  expect(["14", "14 days", "2,5", "1e2"].map((text) => days.parse(text))).toEqual([14, 14, null, null]);
  expect([days.format(14), whole("").format(2)]).toEqual(["14 days", "2"]);
});
