import { expect, test } from "vitest";
import type { Model, MountPart, Stock } from "../core/types";
import { together } from "./ownCatalogue";

const model = (name: string, price?: number): Model => ({
  name,
  form: "turret",
  sensor: { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04 },
  lens: { focal_min_mm: 2.8, focal_max_mm: 2.8 },
  ...(price === undefined ? {} : { price }),
});
const stock = (...models: Model[]): Stock => ({ format: "bright-angle/catalogue", version: 1, models });
const told = (found: Stock): string[] => found.models.map(({ name, price }) => `${name} ${price ?? "-"}`);

test("what each side did is done", () => {
  const base = stock(model("A"), model("B"), model("C"));
  const mine = stock(model("A", 1), model("B"), model("D"));
  const theirs = stock(model("A"), model("B", 2), model("C"), model("E"));
  expect(told(together(base, mine, theirs))).toEqual(["A 1", "B 2", "E -", "D -"]);
});

test("what both changed stands there twice, and what one took out that the other changed stays", () => {
  const base = stock(model("A"), model("B"), model("C"));
  const mine = stock(model("A", 1), model("C", 3));
  const theirs = stock(model("A", 2), model("B", 4));
  expect(told(together(base, mine, theirs))).toEqual(["A 2", "A (2) 1", "B 4", "C 3"]);
});

test("the same done twice is done once", () => {
  const base = stock(model("A"));
  expect(told(together(base, stock(model("A", 1)), stock(model("A", 1))))).toEqual(["A 1"]);
  expect(told(together(base, stock(), stock()))).toEqual([]);
});

test("parts of mounts are put together as models are, and no two of them share an id", () => {
  const part = (name: string, weight_kg: number): MountPart => ({ id: `own-${name}`, name, kind: "arm", weight_kg });
  const of = (...mounts: MountPart[]): Stock => ({ ...stock(), ...(mounts.length > 0 ? { mounts } : {}) });
  const base = of(part("A", 1), part("B", 1));
  const found = together(base, of(part("A", 2), part("B", 1), part("C", 1)), of(part("A", 3)));
  expect(found.mounts?.map(({ name, weight_kg }) => `${name} ${weight_kg}`)).toEqual(["A 3", "A (2) 2", "C 1"]);
  expect(new Set(found.mounts?.map(({ id }) => id)).size).toBe(3);
  // Renamed here, and changed there: both stay, and the server takes them.
  const renamed = { ...part("A", 1), name: "Z" };
  const both = together(base, of(renamed, part("B", 1)), of(part("A", 3), part("B", 1)));
  expect(both.mounts?.map(({ name }) => name)).toEqual(["A", "B", "Z"]);
  expect(new Set(both.mounts?.map(({ id }) => id)).size).toBe(3);
  // A catalogue from before there were any has none afterwards.
  expect(together(stock(), stock(model("A")), stock())).not.toHaveProperty("mounts");
});
