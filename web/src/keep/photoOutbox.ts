/**
 * Photos on their way: each stays on this device until a revision that the server has names it. A lost connection, a closed window,
 * a refusal or a spot that is gone loses none; only a person throws one away.
 */
import { useEffect } from "react";
import { create } from "zustand";
import { Refused } from "../core/errors";
import type { Fitting, Photo, PictureHead, Point, SiteFile } from "../core/types";
import { targetOf } from "../model/lookups";
import { Away, request } from "./http";
import { type PendingPhoto, photosOf, take, write } from "./shelf";
import { onRevision, useSite } from "./store";
import { alone } from "./tabs";

export type Owner = PendingPhoto["owner"];

/** A photo that waits, as it is shown. */
export interface Waiting {
  key: string;
  owner: Owner;
  blob: Blob;
  /** Why it does not go on by itself: the server does not take it, its place is gone, or it was taken out of the site. */
  stuck: string | null;
}

interface Store {
  site: string | null;
  waiting: Waiting[];
}

export const usePhotoStore = create<Store>(() => ({ site: null, waiting: [] }));

const RETRY = 3000;

/** Takes a photo for a spot or target of the open site; false if this device has no room for it. */
export async function takePhoto(site: string, owner: Owner, blob: Blob, takenAt?: Point): Promise<boolean> {
  const key = `photo/${crypto.getRandomValues(new Uint32Array(4)).join("-")}`;
  const photo: PendingPhoto = { site, owner, blob, ...(takenAt ? { takenAt } : {}) };
  if (!(await write(key, photo))) return false;
  void sendPending(site);
  return true;
}

/** Sends what waits; one window at a time. */
export async function sendPending(site: string): Promise<void> {
  await alone(`outbox/${site}`, async () => {
    for (const [key, photo] of await photosOf(site)) if (!(await forward(site, key, photo))) break;
  });
  await show(site);
}

/** Takes a photo as far as it goes now; false when the server is away, so that the others need not be tried. */
async function forward(site: string, key: string, photo: PendingPhoto): Promise<boolean> {
  let name = photo.name;
  if (name === undefined && photo.refused === undefined) {
    try {
      // Evidence is kept to its last byte.
      const path = photo.owner.kind === "evidence" ? "/api/pictures?as_it_is=true" : "/api/pictures";
      name = (await request<PictureHead>("POST", path, photo.blob)).name;
      await write(key, { ...photo, name });
    } catch (error) {
      if (error instanceof Away) return false;
      const refused = error instanceof Refused ? error.message : "the server does not take it";
      await write(key, { ...photo, refused });
      return true;
    }
  }
  const open = useSite.getState().open;
  // An old revision that is looked at takes nothing in.
  if (name === undefined || open?.id !== site || open.saving.kind === "looking") return true;
  if (photo.attached || names(open.site, photo.owner, name)) return true;
  if (attach(photo, name)) await write(key, { ...photo, name, attached: true });
  return true;
}

/** Whether what a photo shows names it: the same picture may be of two places. */
const names = (site: SiteFile, owner: Owner, picture: string): boolean =>
  owner.kind === "evidence"
    ? [...(site.proofs ?? []), ...(site.snapshots ?? [])].some((one) => one.picture?.picture === picture)
    : (ownerOf(site, owner)?.photos?.some((photo) => photo.picture === picture) ?? false);

/** Writes a photo into the open site; false if what it shows is not there. */
function attach({ owner, takenAt }: PendingPhoto, picture: string): boolean {
  const open = useSite.getState().open;
  // Evidence stood in the site before it went out.
  if (owner.kind === "evidence") return true;
  if (!open || !ownerOf(open.site, owner)) return false;
  useSite.getState().edit("Add a photo", (site) => {
    const camera = owner.kind === "camera" ? site.cameras.find(({ id }) => id === owner.id) : undefined;
    if (camera) camera.fitting ??= {};
    const item = ownerOf(site, owner);
    const photo: Photo = { picture, ...(takenAt ? { taken_at: takenAt } : {}) };
    if (item) item.photos = [...(item.photos ?? []), photo];
  });
  return true;
}

export const ownerOf = (site: SiteFile, owner: Owner): { photos?: Photo[] } | undefined =>
  owner.kind === "camera"
    ? fittingOf(site, owner.id)
    : owner.kind === "spot"
      ? site.spots?.find((spot) => spot.id === owner.id)
      : owner.kind === "target"
        ? targetOf(site, owner.id)
        : undefined;

/** What was done at a camera; nothing yet where it is there. */
function fittingOf(site: SiteFile, id: string): Fitting | undefined {
  const camera = site.cameras.find((held) => held.id === id);
  return camera && (camera.fitting ?? {});
}

/** Shows what waits. */
async function show(site: string): Promise<void> {
  const photos = await photosOf(site);
  const open = useSite.getState().open;
  if (open?.id !== site) return;
  const stuck = ({ name, attached, refused, owner }: PendingPhoto): string | null => {
    if (refused !== undefined) return refused;
    if (name !== undefined && names(open.site, owner, name)) return null;
    if (attached) return "it was taken out of the site before it was saved";
    return owner.kind === "evidence" || ownerOf(open.site, owner) ? null : `the ${owner.kind} that it shows is gone`;
  };
  usePhotoStore.setState({
    site,
    waiting: photos.map(([key, photo]) => ({ key, owner: photo.owner, blob: photo.blob, stuck: stuck(photo) })),
  });
}

/** Tries a photo again that does not go on by itself, for another spot or target if one is named. */
export async function tryAgain(site: string, key: string, owner?: Owner): Promise<void> {
  const found = (await photosOf(site)).find(([held]) => held === key);
  if (!found) return;
  const photo = { ...found[1] };
  delete photo.refused;
  delete photo.attached;
  await write(key, owner ? { ...photo, owner } : photo);
  await sendPending(site);
}

/** Throws a photo away that somebody does not want. */
export async function throwAway(site: string, key: string): Promise<void> {
  await take(key);
  await show(site);
}

/** Lets go of the photos that a revision on the server names. */
onRevision((id, site) => {
  void (async () => {
    for (const [key, photo] of await photosOf(id))
      if (photo.name !== undefined && names(site, photo.owner, photo.name)) await take(key);
    await show(id);
  })();
});

/** Sees that what waits goes out while a site is open. */
export function usePendingPhotos(site: string): void {
  useEffect(() => {
    usePhotoStore.setState({ site, waiting: [] });
    void sendPending(site);
    const timer = window.setInterval(() => {
      if (usePhotoStore.getState().waiting.length > 0) void sendPending(site);
    }, RETRY);
    return () => window.clearInterval(timer);
  }, [site]);
}
