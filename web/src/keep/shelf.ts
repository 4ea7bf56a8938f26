/**
 * What is kept on this device, in IndexedDB: every site that was opened or pinned, as the server had it last; what the server does
 * not have yet; photos on their way. Each write says whether it went well: a full device is told, not swallowed.
 */
import { type UseStore, createStore, del, entries, get, set } from "idb-keyval";
import { create } from "zustand";
import type { SiteFile } from "../core/types";

/** A site as the server had it when it was last asked. */
export interface Kept {
  id: string;
  number: number;
  savedAt: string;
  says: string;
  site: SiteFile;
  openedAt: string;
  /** Kept on this device because somebody wants it there. */
  pinned: boolean;
}

/** What one window has that the server does not. */
export interface Draft {
  id: string;
  /** The window. */
  tab: string;
  /** The revision that it is based on; 0 for a site that the server does not know yet. */
  basedOn: number;
  /** That revision's file; null with 0. */
  base: SiteFile | null;
  /** What was sent and may have arrived, though no answer came. */
  sent: SiteFile[];
  says: string;
  site: SiteFile;
  /** When it was written, ms. */
  at: number;
}

interface ShelfState {
  /** Why something could not be kept on this device; null if all is well. */
  trouble: string | null;
}

export const useShelf = create<ShelfState>(() => ({ trouble: null }));

let store: UseStore | undefined;
const shelf = (): UseStore => (store ??= createStore("bright-angle", "shelf"));

/** Writes something; answers whether it stands there now. */
export async function write(key: string, value: unknown): Promise<boolean> {
  try {
    await set(key, value, shelf());
    if (useShelf.getState().trouble !== null) useShelf.setState({ trouble: null });
    return true;
  } catch (error) {
    useShelf.setState({ trouble: troubleOf(error) });
    return false;
  }
}

const troubleOf = (error: unknown): string =>
  error instanceof DOMException && error.name === "QuotaExceededError"
    ? "This device has no room left: what you do now stands in this window only until the server has it."
    : `This browser does not let anything be kept on the device (${(error as Error).message}).`;

/** What stands under a key; null where nothing does, or nothing can be read. */
export async function read<T>(key: string): Promise<T | null> {
  try {
    return (await get<T>(key, shelf())) ?? null;
  } catch {
    return null;
  }
}

export async function take(key: string): Promise<void> {
  try {
    await del(key, shelf());
  } catch {
    // What cannot be taken away stays, and is found to be done with the next time.
  }
}

async function all<T>(prefix: string): Promise<[string, T][]> {
  try {
    const found = await entries<string, T>(shelf());
    return found.filter(([key]) => key.startsWith(prefix));
  } catch {
    return [];
  }
}

const keptKey = (id: string): string => `kept/${id}`;
const draftKey = (id: string, tab: string): string => `draft/${id}/${tab}`;

export async function keptOn(id: string): Promise<Kept | null> {
  try {
    return (await get<Kept>(keptKey(id), shelf())) ?? null;
  } catch {
    return null;
  }
}

export const allKept = async (): Promise<Kept[]> => (await all<Kept>("kept/")).map(([, kept]) => kept);

/** Keeps a site as the server has it; whether it is pinned stays as it was. */
export async function keep(kept: Omit<Kept, "pinned" | "openedAt"> & Partial<Kept>): Promise<boolean> {
  const held = await keptOn(kept.id);
  const before = { openedAt: held?.openedAt ?? new Date().toISOString(), pinned: held?.pinned ?? false };
  return write(keptKey(kept.id), { ...before, ...kept });
}

/** Takes a site off this device, with what was not saved of it. */
export async function takeOff(id: string): Promise<void> {
  await take(keptKey(id));
  for (const [key] of await all(`draft/${id}/`)) await take(key);
  for (const [key] of await photosOf(id)) await take(key);
  for (const held of ["fit", "prove", "evidence"]) for (const [key] of await all(`${held}/${id}/`)) await take(key);
}

export const putDraft = (draft: Draft): Promise<boolean> => write(draftKey(draft.id, draft.tab), draft);
export const takeDraft = (id: string, tab: string): Promise<void> => take(draftKey(id, tab));

/** What windows have of a site that the server does not, the oldest first. */
export async function draftsOf(id: string): Promise<Draft[]> {
  const found = (await all<Draft>(`draft/${id}/`)).map(([, draft]) => draft);
  return found.sort((a, b) => a.at - b.at);
}

export const allDrafts = async (): Promise<Draft[]> => (await all<Draft>("draft/")).map(([, draft]) => draft);

/** A photo on its way. */
export interface PendingPhoto {
  site: string;
  owner: { kind: "spot" | "target" | "camera" | "evidence"; id: string };
  blob: Blob;
  takenAt?: [number, number];
  /** Its name, once the server has it. */
  name?: string;
  /** Whether it was written into the site. */
  attached?: boolean;
  /** Why the server does not take it. */
  refused?: string;
}

export const allPhotos = async (): Promise<PendingPhoto[]> =>
  (await all<PendingPhoto>("photo/")).map(([, photo]) => photo);

export const photosOf = async (site: string): Promise<[string, PendingPhoto][]> =>
  (await all<PendingPhoto>("photo/")).filter(([, photo]) => photo.site === site);

/** Asks the browser not to clear what is kept here when the device runs short; answers whether it promises. */
export async function persist(): Promise<boolean> {
  try {
    return (await navigator.storage.persisted()) || (await navigator.storage.persist());
  } catch {
    return false;
  }
}

/** How much this device holds for the application, and how much it may, bytes. */
export async function room(): Promise<{ usage: number; quota: number } | null> {
  try {
    const { usage = 0, quota = 0 } = await navigator.storage.estimate();
    return { usage, quota };
  } catch {
    return null;
  }
}
