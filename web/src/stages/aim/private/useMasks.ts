/** What must be masked of each head's picture for the private places of a site; nothing is asked where there are none. */
import { core } from "../../../core/port";
import type { Masked, SiteFile } from "../../../core/types";
import { type Asked, useAsked } from "../../../core/useAsked";

export function useMasks(site: SiteFile): Asked<Masked[]> {
  return useAsked(site, (site.private ?? []).length > 0 ? "masks" : null, core.masks);
}
