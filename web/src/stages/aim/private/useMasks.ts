/** What must be masked of each head's picture for the private places of a site; nothing is asked where there are none. */
import { useEffect, useState } from "react";
import { onceAtRest } from "../../../core/hand";
import { core } from "../../../core/port";
import type { Masked, SiteFile } from "../../../core/types";

/** How long the site must rest before it is asked, ms. */
const REST = 200;

export interface MasksShown {
  masks: Masked[];
  /** Whether they are of the site as it is. */
  settled: boolean;
}

export function useMasks(site: SiteFile): MasksShown | null {
  const [found, setFound] = useState<{ of: SiteFile; masks: Masked[] } | null>(null);
  const any = (site.private ?? []).length > 0;
  useEffect(() => {
    if (!any) return;
    let current = true;
    const leave = onceAtRest(REST, () => {
      core.masks(site).then(
        (masks) => current && setFound({ of: site, masks }),
        () => undefined,
      );
    });
    return () => {
      current = false;
      leave();
    };
  }, [site, any]);
  return any && found ? { masks: found.masks, settled: found.of === site } : null;
}
