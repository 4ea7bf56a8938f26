/** The ways to keep the sight line in hand, asked once the site has come to rest. */
import type { Line, SiteFile, Units, Ways } from "./types";
import { useAnswer } from "./useAsked";

/** How long the site must rest before ways are asked for, ms. */
const REST = 180;

export type WaysState = { kind: "none" } | { kind: "asking" } | { kind: "found"; ways: Ways };

/** `ready` says whether it is known that they are wanted of this very site: while it is not, nothing is asked. */
export function useWays(site: SiteFile, line: Line | null, wanted: boolean, ready: boolean, units: Units): WaysState {
  const question = wanted && ready && line ? { ask: "ways" as const, line, units } : null;
  // A site that makes no sense has no ways: the screen says so elsewhere.
  const { value, settled } = useAnswer(site, question, { rest: REST, by: "thinker" });
  if (!wanted || !line) return { kind: "none" };
  return settled && value ? { kind: "found", ways: value } : { kind: "asking" };
}
