/**
 * What the Aim screen shows of the site in hand. Geometry is drawn from the site as it is now; figures come from the pair of
 * an answer and the state that it is of. While those two differ the figures stand, marked as being worked out; never is an
 * answer told as that of another state.
 */
import { useMemo } from "react";
import type { Fault, HeadRef, Line, Sights, SiteFile } from "./types";
import { useAnswer } from "./useAsked";

export interface Shown {
  /** The site as it is now. */
  site: SiteFile;
  /** The sight line in hand. */
  line: Line | null;
  /** The newest figures; of `of`, which may be a state before this one. */
  sights: Sights | null;
  /** The state that the figures are of. */
  of: SiteFile | null;
  /** Whether the figures are of exactly this site, and of the line in hand. */
  settled: boolean;
  /** Why there are no figures of this site. */
  faults: Fault[] | null;
}

export function useSights(site: SiteFile, target: string | null, head: HeadRef | null): Shown {
  // A refused state gives no figures: those before it stay, marked as not of it.
  const asked = useAnswer(site, { ask: "sights", target, head }, { rest: "live", keeps: true });
  const { value: sights, of, settled, faults } = asked;
  const { camera, head: name, view = null } = head ?? {};
  const line = useMemo(
    () => (target && camera && name ? { camera, head: name, view, target } : null),
    [target, camera, name, view],
  );
  return useMemo(() => ({ site, line, sights, of, settled, faults }), [site, line, sights, of, settled, faults]);
}
