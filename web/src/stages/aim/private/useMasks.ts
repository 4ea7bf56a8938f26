/** What must be masked of each head's picture for the private places of a site; nothing is asked where there are none. */
import type { Masked, SiteFile } from "../../../core/types";
import { type Asked, useAnswer } from "../../../core/useAsked";

export function useMasks(site: SiteFile): Asked<Masked[]> {
  return useAnswer(site, (site.private ?? []).length > 0 ? { ask: "masks" } : null, { by: "surveyor" });
}
