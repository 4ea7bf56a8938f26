import { expect, test } from "vitest";
import { siteChange } from "../core/siteChange";
import type { Point, SiteFile } from "../core/types";
import { addPrivate, removePrivate } from "./privatePlaces";

const EMPTY: SiteFile = { format: "bright-angle/site", version: 1, name: "S", obstacles: [], targets: [], cameras: [] };
const LINE: Point[] = [
  [1, 2],
  [3.00049, 2],
];

test("a private place that was drawn upright hangs like a window, a filled one lies on its ground", () => {
  const site = structuredClone(EMPTY);
  expect(addPrivate(site, LINE, false, 2.2)).toBe("n1");
  expect(addPrivate(site, [...LINE, [2, 5]], true, 1.5)).toBe("n2");
  expect(
    site.private?.map(({ outline, closed, base_m, top_m }) => ({ corners: outline.length, closed, base_m, top_m })),
  ).toEqual([
    { corners: 2, closed: false, base_m: 0.9, top_m: 2.2 },
    { corners: 3, closed: true, base_m: 0, top_m: 1.5 },
  ]);
  expect(site.private?.[0]?.outline[1]).toEqual([3, 2]);
});

test("a low one is never upside down", () => {
  const site = structuredClone(EMPTY);
  addPrivate(site, LINE, false, 0.5);
  expect(site.private?.[0]?.base_m).toBeLessThan(0.5);
});

test("with the last one gone the file is as if there had never been any, and a core hears of each change", () => {
  const site = structuredClone(EMPTY);
  addPrivate(site, LINE, false, 2);
  expect(siteChange(EMPTY, site)?.private?.order).toEqual(["n1"]);
  const after = structuredClone(site);
  removePrivate(after, "n1");
  expect(after).toEqual(EMPTY);
  expect(siteChange(site, after)).toEqual({ private: { order: [], put: [] } });
});
