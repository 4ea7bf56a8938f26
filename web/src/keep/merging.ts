/** Two states of a site: whether they say the same, and what comes of both. The core tells. */
import { ask } from "../core/port";
import type { Choice, Merged, SiteFile } from "../core/types";
import { useSettings } from "./settings";

/** Whether two files say the same, however they write it. */
export async function same(a: SiteFile, b: SiteFile): Promise<boolean> {
  if (a === b) return true;
  try {
    return (await ask(b, { ask: "compare", before: a, units: "metres" })).length === 0;
  } catch {
    // A state that the core refuses says the same as nothing else.
    return false;
  }
}

/** Puts two states together that came from one. */
export function merge(base: SiteFile, mine: SiteFile, theirs: SiteFile, choices: Choice[] = []): Promise<Merged> {
  return ask(mine, { ask: "merge", base, theirs, choices, units: useSettings.getState().units });
}
