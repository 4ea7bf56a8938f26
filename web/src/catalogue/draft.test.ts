/** A model goes into a form and comes out of it as it was; what makes no sense is named. */
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import type { Model, MountPart } from "../core/types";
import { FIELDS, draftOf, modelOf } from "./draft";
import { draftOfPart, partOf } from "./partDraft";

// The models that ship: tests are run from the front end's folder.
const SHIPPED = JSON.parse(readFileSync("../crates/core/data/catalogue.json", "utf8")) as Model[];

describe("a model's draft", () => {
  it("gives back every model that ships, with all that the form does not show", () => {
    expect(SHIPPED.length).toBeGreaterThan(30);
    for (const model of SHIPPED) expect(modelOf(draftOf(model)), model.name).toEqual({ model });
  });

  it("names the field that is missing, and the one that is no number", () => {
    const [first] = SHIPPED;
    if (!first) throw new Error("there is a model");
    const draft = draftOf(first);
    for (const { field, word, kind, needed } of FIELDS) {
      const typed = (text: string) => modelOf({ ...draft, typed: { ...draft.typed, [field]: text } });
      if (needed) expect(typed("  "), field).toEqual({ wrong: `${word} is missing` });
      if (kind === "number") expect(typed("4 or 6"), field).toEqual({ wrong: `${word} is no number` });
    }
    expect(modelOf(draftOf(null))).toHaveProperty("wrong");
  });

  it("takes a comma for a point, and forgets what was emptied", () => {
    const model = SHIPPED.find((known) => known.weight_kg != null);
    if (!model) throw new Error("one has a weight");
    const { typed, from } = draftOf(model);
    expect(modelOf({ from, typed: { ...typed, weight_kg: "0,75" } })).toMatchObject({ model: { weight_kg: 0.75 } });
    expect(modelOf({ from, typed: { ...typed, weight_kg: "" } })).not.toHaveProperty("model.weight_kg");
    expect(model.weight_kg).not.toBe(0.75);
  });
});

describe("a part's draft", () => {
  const PARTS = JSON.parse(readFileSync("../crates/core/data/mounts.json", "utf8")) as MountPart[];

  it("gives back every part that ships", () => {
    expect(PARTS.length).toBeGreaterThan(10);
    for (const part of PARTS) expect(partOf(draftOfPart(part)), part.name).toEqual({ part });
  });

  it("names what is missing, and calls each new one by another id", () => {
    expect(partOf(draftOfPart(null))).toEqual({ wrong: "Name is missing" });
    expect(draftOfPart(null).from["id"]).not.toBe(draftOfPart(null).from["id"]);
  });
});
