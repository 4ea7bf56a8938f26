/** A part of a mount on the way to be one of the firm's own. */
import type { MountPart } from "../core/types";
import { type Draft, type Field, made, typedOf } from "./typed";

/** Its form's fields, each with its name, its word, its unit and how it is read. */
export const PART_FIELDS = [
  { field: "name", word: "Name", unit: "", kind: "text", needed: true },
  { field: "kind", word: "Kind", unit: "", kind: "part", needed: true },
  { field: "weight_kg", word: "Weight", unit: "kg", kind: "number", needed: true },
  { field: "carries_kg", word: "Carries", unit: "kg", kind: "number", needed: false },
  { field: "reach_m", word: "Brings the camera out", unit: "m", kind: "number", needed: false, empty: "0" },
  { field: "drop_m", word: "Brings it down", unit: "m", kind: "number", needed: false, empty: "0" },
  { field: "plate_m", word: "Height of its plate", unit: "m", kind: "number", needed: false },
  { field: "screws", word: "Screws", unit: "", kind: "number", needed: false },
  { field: "holds_tails", word: "Room for tails", unit: "yes/no", kind: "yesno", needed: false, empty: "no" },
  { field: "conduit_mm", word: "Widest conduit", unit: "mm", kind: "number", needed: false, empty: "none" },
  { field: "forms", word: "Fits", unit: "all where none is said", kind: "forms", needed: false },
  {
    field: "bought_with",
    word: "Bought with it",
    unit: "apart by commas",
    kind: "list",
    needed: false,
    empty: "nothing",
  },
  { field: "price", word: "Price", unit: "", kind: "number", needed: false },
] as const satisfies Field[];

/** A new one has an id that no other device makes, too. */
export const draftOfPart = (part: MountPart | null): Draft => {
  const from: Record<string, unknown> = part
    ? { ...part }
    : { id: `own-${crypto.getRandomValues(new Uint32Array(2)).join("-")}` };
  return { typed: typedOf(from, PART_FIELDS), from };
};

/** The part that a draft makes, or the word of the field that is missing or makes no sense. */
export function partOf(draft: Draft): { part: MountPart } | { wrong: string } {
  const read = made(draft, PART_FIELDS);
  return "wrong" in read ? read : { part: read.made as unknown as MountPart };
}
