/** Figures of rules in words: every rule has its word; units stand beside; light first in times. */
import { expect, test } from "vitest";
import type { RuleName, RuleResult } from "../core/types";
import { RULE_WORDS, lux, pixels, ruleLimit, ruleValue, times } from "./words";

const rule = (over: Partial<RuleResult>): RuleResult => ({
  rule: "pixel_density",
  value: 50,
  worst: null,
  limit: 62.5,
  broken_past: null,
  unit: "px/m",
  verdict: "broken",
  basis: "",
  ...over,
});

test("densities stand in px/m, and in px/ft beside it where lengths are in feet", () => {
  expect(pixels(62.5, "metres")).toBe("62.5 px/m");
  // 62.5 px/m × 0.3048 m/ft.
  expect(pixels(62.5, "feet")).toBe("62.5 px/m · 19.1 px/ft");
  expect(pixels(250, "feet")).toBe("250 px/m · 76.2 px/ft");
});

test("light stands in lux, and in foot-candles beside it where lengths are in feet", () => {
  expect(lux(107.6, "metres")).toBe("108 lx");
  // A foot-candle is a lumen on a square foot: 10.764 lx.
  expect(lux(107.6, "feet")).toBe("108 lx · 10.0 fc");
  expect(lux(0, "feet")).toBe("0 lx · 0 fc");
});

test("a ratio of light is told in times first: a stop is twice", () => {
  expect(times(4)).toBe("16 × (4.0 stops)");
  expect(times(1)).toBe("2.0 × (1.0 stops)");
  expect(times(-1)).toBe("0.5 × (-1.0 stops)");
});

test.each<[Partial<RuleResult>, string, string]>([
  [{}, "50 px/m", "≥ 62.5 px/m"],
  [{ value: null }, "out of the picture", "≥ 62.5 px/m"],
  [{ rule: "in_view", unit: "deg", value: 4.31, limit: 1 }, "±4.3°", "≥ 1°"],
  [
    { rule: "face_from_above", unit: "deg", value: 20.04, limit: 15, broken_past: 30 },
    "20.0°",
    "≤ 15°, broken past 30°",
  ],
  [{ rule: "unseen", unit: "s", value: 23.2, limit: 10 }, "23 s", "≤ 10 s"],
  [{ rule: "unseen", unit: "s", value: 8.24, limit: null }, "8.2 s", "no limit stated"],
  [{ rule: "looks", unit: "looks", value: 2, limit: 3, broken_past: 1 }, "2 pictures", "≥ 3 pictures, broken under 1"],
  [{ rule: "zone_infrared", unit: "stops", value: 3, limit: 2 }, "8.0 × (3.0 stops)", "≤ 4.0 × (2.0 stops)"],
  [{ rule: "clear", unit: "hidden", value: 0, limit: 0 }, "nothing in the way", "nothing in the way"],
  [{ rule: "clear", unit: "hidden", value: 0.25, limit: 0.05 }, "25 % of it hidden", "≤ 5 % of it hidden"],
  [{ rule: "clear", unit: "hidden", value: 0.001, limit: 0.05 }, "under 1 % of it hidden", "≤ 5 % of it hidden"],
  [{ rule: "clear", unit: "hidden", value: 1, limit: 0.05 }, "all of it hidden", "≤ 5 % of it hidden"],
  [{ rule: "masked", unit: "masked", value: 0.5, limit: 0 }, "50 % of it masked", "nothing of it masked"],
  [{ rule: "weather", unit: "ip", value: null, limit: 66 }, "not stated", "≥ IP66"],
  [{ rule: "weather", unit: "ip", value: 54, limit: 66 }, "IP54", "≥ IP66"],
  [{ rule: "within_reach", unit: "m", value: 2.1, limit: 2.4 }, "2.1 m up", "≥ 2.4 m, or made for it"],
  [{ rule: "lane_width", unit: "m", value: 7.25, limit: 6 }, "7.3 m", "≤ 6.0 m"],
  [{ rule: "blur", unit: "px", value: 1.26, limit: 1, broken_past: 2 }, "1.3 px", "≤ 1.0 px, broken past 2.0 px"],
  [{ rule: "overexposed", unit: "times", value: 7.6, limit: 4 }, "7.6 × what it needs", "≤ 4.0 × what it needs"],
  [{ rule: "light_enough", unit: "times", value: 15.3, limit: 1 }, "15 × what it needs", "≥ 1.0 × what it needs"],
  [{ rule: "headlights", unit: "s", value: 0.002, limit: 0.001 }, "1/500 s", "≤ 1/1000 s"],
  [{ rule: "build", unit: "deg", value: 61, limit: 80 }, "61.0°", "its tilt range ends at 80°"],
])("%j in words", (over, value, limit) => {
  expect(ruleValue(rule(over), "metres")).toBe(value);
  expect(ruleLimit(rule(over), "metres")).toBe(limit);
});

test("in feet, lengths of rules are in feet and inches", () => {
  const reach = rule({ rule: "within_reach", unit: "m", value: 2.1336, limit: 2.4384 });
  expect([ruleValue(reach, "feet"), ruleLimit(reach, "feet")]).toEqual(["7' 0\" up", "≥ 8' 0\", or made for it"]);
});

test("every rule has a word of its own, and none of those that nobody on a ladder understands", () => {
  const names = Object.keys(RULE_WORDS) as RuleName[];
  expect(new Set(names.map((name) => RULE_WORDS[name])).size).toBe(names.length);
  for (const word of Object.values(RULE_WORDS))
    expect(word).not.toMatch(/looks? |bleach|build takes|end to end|slack/i);
});
