/** Routing: three answers, one after the other. */
import { solve } from "./solver";
import type { RouteWish, Routed, SiteFile } from "./types";

export const WISHES: RouteWish[] = ["cheapest", "fewest_aloft", "least_lost"];

/** Answers each wish as it is found. Rejects with `Refused` for a site that cannot be wired at all; ends when `signal` says so. */
export function routed(
  site: SiteFile,
  onEach: (place: number, answer: Routed) => void,
  signal: AbortSignal,
): Promise<void> {
  return solve(
    site,
    WISHES.map((wish) => ({ kind: "route", wish: JSON.stringify(wish) })),
    (place, answer) => onEach(place, JSON.parse(answer) as Routed),
    signal,
  );
}
