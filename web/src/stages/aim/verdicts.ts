/** How the promises stand, as the plan draws it. */
import { useMemo } from "react";
import type { Verdict } from "../../core/types";

/** The needs that the promises use, from the least. */
export function useNeeds(results: { needs_px_per_m: number }[]): number[] {
  const key = [...new Set(results.map((result) => result.needs_px_per_m))].sort((a, b) => a - b).join(" ");
  return useMemo(() => (key === "" ? [] : key.split(" ").map(Number)), [key]);
}

/** How the promises stand; the same map while nothing of it changes. */
export function useVerdicts(results: { target: string; verdict: Verdict }[]): ReadonlyMap<string, Verdict> {
  const key = JSON.stringify(results.map(({ target, verdict }) => [target, verdict]));
  return useMemo(() => new Map(JSON.parse(key) as [string, Verdict][]), [key]);
}
