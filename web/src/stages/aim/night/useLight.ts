/** The light of a night over a site, and the ways that mend the picture of the head in hand. */
import type { HeadRef, LightTold, Mends, SiteFile, Units } from "../../../core/types";
import { type Asked, useAnswer } from "../../../core/useAsked";

export function useLight(
  site: SiteFile,
  head: HeadRef | null,
  units: Units,
): { light: Asked<LightTold>; mends: Asked<Mends> } {
  const light = useAnswer(site, { ask: "light" }, { by: "surveyor" });
  const mends = useAnswer(site, head && { ask: "washed_ways", head, units }, { by: "surveyor" });
  return { light, mends };
}
