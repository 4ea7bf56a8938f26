/** The light of a night over a site, and the ways that mend the picture of the head in hand. */
import { useEffect, useState } from "react";
import { onceAtRest } from "../../../core/hand";
import { core } from "../../../core/port";
import type { HeadRef, LightTold, Mends, SiteFile, Units } from "../../../core/types";

/** How long the site must rest before it is asked, ms. */
const REST = 200;

export interface LightShown {
  site: SiteFile;
  /** The head that the ways are of, as JSON. */
  of: string;
  light: LightTold;
  mends: Mends | null;
}

export function useLight(site: SiteFile, head: HeadRef | null, units: Units): LightShown | null {
  const [shown, setShown] = useState<LightShown | null>(null);
  const of = JSON.stringify(head);
  useEffect(() => {
    let current = true;
    const ref = JSON.parse(of) as HeadRef | null;
    const callOff = onceAtRest(REST, () => {
      Promise.all([core.light(site), ref ? core.washedWays(site, ref, units) : null]).then(
        ([light, mends]) => current && setShown({ site, of, light, mends }),
        () => undefined,
      );
    });
    return () => {
      current = false;
      callOff();
    };
  }, [site, of, units]);
  return shown;
}
