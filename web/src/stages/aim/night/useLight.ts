/** The light of a night over a site, and the ways that mend the picture of the head in hand. */
import { core } from "../../../core/port";
import type { HeadRef, LightTold, Mends, SiteFile, Units } from "../../../core/types";
import { type Asked, useAsked } from "../../../core/useAsked";

export function useLight(
  site: SiteFile,
  head: HeadRef | null,
  units: Units,
): { light: Asked<LightTold>; mends: Asked<Mends> } {
  const light = useAsked(site, "light", core.light);
  const key = head && JSON.stringify({ head, units });
  const mends = useAsked(site, key, (of) => core.washedWays(of, head ?? { camera: "", head: "" }, units));
  return { light, mends };
}
