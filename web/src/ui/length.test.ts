import { describe, expect, it } from "vitest";
import { formatLength, parseLength, roundLabel, roundLength } from "./length";

// One inch is 25.4 mm exactly: international yard and pound agreement of 1959.
describe("parseLength", () => {
  it.each([
    ["3.6", "metres", 3.6],
    ["3,6", "metres", 3.6],
    ["3.6 m", "feet", 3.6],
    ["360 cm", "metres", 3.6],
    ["11' 10\"", "metres", 11 * 0.3048 + 10 * 0.0254],
    ["11'10", "metres", 11 * 0.3048 + 10 * 0.0254],
    ["11 ft 10 in", "feet", 11 * 0.3048 + 10 * 0.0254],
    ["142 in", "metres", 142 * 0.0254],
    ["142″", "metres", 142 * 0.0254],
    ["62", "feet", 62 * 0.3048],
    ["-2' 6\"", "feet", -0.762],
  ] as const)("reads %s in %s", (text, units, metres) => {
    expect(parseLength(text, units)).toBeCloseTo(metres, 9);
  });

  it.each(["", "abc", "3 4", "3.6.1", "10 in 2 ft", "1e400x", "5 m -2 cm", "NaN", "∞", "3 furlongs"])(
    "refuses %j",
    (text) => {
      expect(parseLength(text, "metres")).toBeNull();
    },
  );
});

describe("formatLength", () => {
  it("writes what it reads", () => {
    for (const inches of [0, 1, 11, 12, 13, 142, 719]) {
      const text = formatLength(inches * 0.0254, "feet");
      expect(parseLength(text, "feet")).toBeCloseTo(inches * 0.0254, 9);
    }
    expect(formatLength(3.6, "metres")).toBe("3.60 m");
    expect(formatLength(3.6, "feet")).toBe("11' 10\"");
    expect(formatLength(3.6525, "feet")).toBe("12' 0\"");
  });
});

describe("roundLength", () => {
  it("is one, two or five times a power of ten, and not longer than asked", () => {
    expect(roundLength(27, "metres")).toBe(20);
    expect(roundLength(0.7, "metres")).toBe(0.5);
    expect(roundLabel(roundLength(27, "feet"), "feet")).toBe("50 ft");
  });
});
