/** Changes that were found for a state of the site, made on the site as it is now: thing by thing, never by place in a list. */
import type { SiteFile } from "../core/types";
import { merge } from "./merging";
import { useSite } from "./store";

/**
 * Takes over what was found: `then` is what `found` would become. If the site has moved on since, both are put together; false if
 * what moved is what was to be changed.
 */
export async function takeOver(says: string, found: SiteFile, then: SiteFile): Promise<boolean> {
  for (;;) {
    const { open, edit } = useSite.getState();
    if (!open) return false;
    const now = open.site;
    if (now === found) {
      edit(says, then);
      return true;
    }
    const merged = await merge(found, now, then);
    if (!merged.site || merged.clashes.length > 0) return false;
    // The hand may have gone on once more.
    if (useSite.getState().open?.site !== now) continue;
    edit(says, merged.site);
    return true;
  }
}
