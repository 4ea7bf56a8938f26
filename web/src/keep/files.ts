/** Site files out of and into the browser. */
import { Refused } from "../core/errors";
import { request } from "./http";
import { beginSite } from "./sites";
import type { Fault, Revision, SiteFile } from "../core/types";

/** Saves a site as a file. */
export function exportSite(site: SiteFile): void {
  saveFile(new Blob([`${JSON.stringify(site, null, 2)}\n`], { type: "application/json" }), site.name, "json");
}

/** Hands a file to the browser to be saved. */
export function saveFile(blob: Blob, title: string, ending: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(blob);
  const name = title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  link.download = `${name || "site"}.${ending}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

/** Keeps a file's site as a new one; answers its id, or the faults. */
export async function importSite(file: File): Promise<{ id: string } | { faults: Fault[] }> {
  const text = await file.text();
  // The file goes to the server as it is: what is wrong with it is found and named in one place.
  try {
    JSON.parse(text);
  } catch (error) {
    return { faults: [{ path: "", message: `this is no JSON file: ${(error as Error).message}` }] };
  }
  try {
    const says = `Import of ${file.name}`.slice(0, 200);
    const made = await request<Revision>("POST", "/api/sites", { says, site: JSON.parse(text) as unknown });
    return { id: made.site_id };
  } catch (error) {
    if (error instanceof Refused) return { faults: error.faults };
    throw error;
  }
}

/** Begins an empty site; answers its id. */
export function createSite(name: string): Promise<string> {
  const site: SiteFile = { format: "bright-angle/site", version: 1, name, obstacles: [], targets: [], cameras: [] };
  return beginSite(site, "New site");
}
