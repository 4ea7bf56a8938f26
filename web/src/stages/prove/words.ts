/** The words of Prove. */
import type { LookKind, Verdict } from "../../core/types";

export const VERDICT_WORDS: Record<Verdict, string> = {
  kept: "kept",
  tight: "tight",
  broken: "broken",
  unknown: "not proved",
};

export const LOOK_WORDS: Record<LookKind, string> = {
  moved: "It moved",
  blocked: "Something hides it",
  grown: "Grown over",
  hazed: "Dirty or hazed",
  out_of_focus: "Out of focus",
  darker: "Darker",
  clock_wrong: "Clock wrong",
};

export const half = (night: boolean): string => (night ? "by night" : "by day");

/** A time as it is read. */
export const when = (at: string): string =>
  new Date(at).toLocaleString("en-GB", { dateStyle: "medium", timeStyle: "short" });
