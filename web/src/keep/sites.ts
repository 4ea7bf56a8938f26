/** The sites as a whole: those on the server and those on this device; beginning one, pinning one, deleting one. */
import type { Revision, SiteFile, SiteHead, SitePage, Standing } from "../core/types";
import { Away, request } from "./http";
import { type Kept, allDrafts, allKept, allPhotos, keep, putDraft, takeOff } from "./shelf";
import { TAB } from "./tabs";

/** A site in the list. */
export interface Listed extends Pick<
  SiteHead,
  "id" | "name" | "targets" | "cameras" | "says" | "revision" | "client" | "address" | "demo"
> {
  saved_at: string;
  /** Whether it opens on this device without a network. */
  here: boolean;
  pinned: boolean;
  /** Whether this device has something of it that the server does not. */
  unsaved: boolean;
}

/** A page of the list; of what is on this device alone while the server is away. */
export interface Page {
  sites: Listed[];
  total: number;
  next: string | null;
  /** Whether the server was asked in vain. */
  away: boolean;
}

export async function listSites(after: string | null, named: string, signal?: AbortSignal): Promise<Page> {
  const [kept, drafts, photos] = await Promise.all([allKept(), allDrafts(), allPhotos()]);
  const unsaved = new Set([...drafts.map((draft) => draft.id), ...photos.map((photo) => photo.site)]);
  const here = new Map(kept.map((one) => [one.id, one]));
  const query = new URLSearchParams({ most: "50", ...(after ? { after } : {}), ...(named ? { named } : {}) });
  const fits = ({ name, brief }: SiteFile, says: string): boolean =>
    [name, brief?.client, brief?.address, says].join(" ").toLowerCase().includes(named.toLowerCase());
  const begun = drafts.filter((draft) => draft.basedOn === 0 && fits(draft.site, draft.says) && !here.has(draft.id));
  try {
    const page = await request<SitePage>("GET", `/api/sites?${query}`, undefined, signal);
    const listed = page.sites.map((head) => ({
      ...head,
      here: here.has(head.id),
      pinned: here.get(head.id)?.pinned ?? false,
      unsaved: unsaved.has(head.id),
    }));
    const known = new Set(page.sites.map((head) => head.id));
    const only = after ? [] : begun.filter((draft) => !known.has(draft.id)).map((d) => ofDraft(d.id, d.site, d.at));
    return { sites: [...only, ...listed], total: page.total + only.length, next: page.next, away: false };
  } catch (error) {
    if (!(error instanceof Away)) throw error;
    const sites = [
      ...begun.map((draft) => ofDraft(draft.id, draft.site, draft.at)),
      ...kept.filter((one) => fits(one.site, one.says)).map((one) => ofKept(one, unsaved.has(one.id))),
    ].sort((a, b) => b.saved_at.localeCompare(a.saved_at));
    return { sites, total: sites.length, next: null, away: true };
  }
}

const told = (site: SiteFile): Pick<Listed, "name" | "targets" | "cameras" | "client" | "address" | "demo"> => ({
  name: site.name,
  client: site.brief?.client ?? null,
  address: site.brief?.address ?? null,
  demo: false,
  targets: site.targets.length,
  cameras: site.cameras.length,
});

const ofKept = ({ id, number, savedAt, says, site, pinned }: Kept, unsaved: boolean): Listed => ({
  id,
  ...told(site),
  says,
  revision: number,
  saved_at: savedAt,
  here: true,
  pinned,
  unsaved,
});

const ofDraft = (id: string, site: SiteFile, at: number): Listed => ({
  id,
  ...told(site),
  says: "Not on the server yet",
  revision: 0,
  saved_at: new Date(at).toISOString(),
  here: true,
  pinned: false,
  unsaved: true,
});

/** Keeps a site on this device, or lets it go from there. */
export async function pin(id: string, pinned: boolean): Promise<void> {
  const newest = await request<Revision>("GET", `/api/sites/${id}`);
  const { number, saved_at: savedAt, says, site } = newest;
  await keep({ id, number, savedAt, says, site, pinned });
}

/** Begins a site. Without a server it stands on this device until there is one. */
export async function beginSite(site: SiteFile, says: string): Promise<string> {
  const id = crypto.randomUUID();
  const draft = { id, tab: TAB, basedOn: 0, base: null, sent: [], says, site, at: Date.now() };
  if (!(await putDraft(draft))) {
    // This device keeps nothing: then it must go to the server at once.
    await request<Revision>("POST", "/api/sites", { id, says, site });
  }
  return id;
}

/** Deletes a site for good, on the server and on this device. */
export async function deleteSite(id: string, name: string): Promise<void> {
  await request("DELETE", `/api/sites/${id}`, { name });
  await takeOff(id);
}

/** Where a site stands: how its promises stand, what is left to ask, its plan drawn small. */
export const standingOf = (id: string, signal?: AbortSignal): Promise<Standing> =>
  request<Standing>("GET", `/api/sites/${id}/standing`, undefined, signal);
