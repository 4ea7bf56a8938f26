/** Two states of a site: whether they say the same, and what comes of both. The core tells. */
import { core } from "../core/port";
import type { Choice, Merged, SiteFile } from "../core/types";
import { useSettings } from "./settings";

/** Whether two files say the same, however they write it. */
export async function same(a: SiteFile, b: SiteFile): Promise<boolean> {
  if (a === b) return true;
  try {
    return (await core.compare(a, b, "metres")).length === 0;
  } catch {
    // A state that the core refuses says the same as nothing else.
    return false;
  }
}

/** Puts two states together that came from one. */
export function merge(base: SiteFile, mine: SiteFile, theirs: SiteFile, choices: Choice[] = []): Promise<Merged> {
  return core.merge(mine, base, theirs, choices, useSettings.getState().units);
}
