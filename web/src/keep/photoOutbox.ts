/**
 * Photos on their way: kept on this device until the server has them, then written into the site. A lost connection or a closed
 * window loses none.
 */
import { del, entries, set as put } from "idb-keyval";
import { useEffect } from "react";
import { create } from "zustand";
import { Refused } from "../core/errors";
import { Away, ask } from "./http";
import type { Photo, PictureHead, Point, SiteFile } from "../core/types";
import { targetOf } from "../model/lookups";
import { useSite } from "./store";

export interface Owner {
  kind: "spot" | "target";
  id: string;
}

interface Pending {
  site: string;
  owner: Owner;
  blob: Blob;
  takenAt?: Point;
}

interface Store {
  /** How many wait, by owner. */
  waiting: Record<string, number>;
  /** Why the last one was refused. */
  refused: string | null;
}

export const usePhotoStore = create<Store>(() => ({ waiting: {}, refused: null }));
export const ownerKey = (owner: Owner): string => `${owner.kind}/${owner.id}`;

const RETRY = 3000;
let sending: Promise<void> | null = null;

/** Takes a photo for a spot or target of the open site. */
export async function takePhoto(site: string, owner: Owner, blob: Blob, takenAt?: Point): Promise<void> {
  await put(`photo/${crypto.getRandomValues(new Uint32Array(4)).join("-")}`, {
    site,
    owner,
    blob,
    ...(takenAt ? { takenAt } : {}),
  } satisfies Pending);
  await sendPending(site);
}

/** Sends what waits; one at a time, and once more after a while if the server is away. */
export function sendPending(site: string): Promise<void> {
  sending ??= sendAll(site).finally(() => {
    sending = null;
  });
  return sending;
}

async function sendAll(site: string): Promise<void> {
  const all = await mine(site);
  count(all.map(([, pending]) => pending));
  for (const [key, pending] of all) {
    try {
      const { name } = await ask<PictureHead>("POST", "/api/pictures", pending.blob);
      if (useSite.getState().open?.id !== site) return;
      attach(pending, name);
    } catch (error) {
      if (error instanceof Away) return;
      usePhotoStore.setState({ refused: error instanceof Refused ? error.message : "the photo was not taken" });
    }
    await del(key);
  }
  count((await mine(site)).map(([, pending]) => pending));
}

async function mine(site: string): Promise<[IDBValidKey, Pending][]> {
  return (await entries<IDBValidKey, Pending>()).filter(
    ([key, pending]) => typeof key === "string" && key.startsWith("photo/") && pending.site === site,
  );
}

function count(all: Pending[]): void {
  const waiting: Record<string, number> = {};
  for (const { owner } of all) waiting[ownerKey(owner)] = (waiting[ownerKey(owner)] ?? 0) + 1;
  usePhotoStore.setState({ waiting });
}

function attach({ owner, takenAt }: Pending, picture: string): void {
  useSite.getState().edit("Add a photo", (site) => {
    const item = ownerOf(site, owner);
    if (!item) return;
    const photo: Photo = { picture, ...(takenAt ? { taken_at: takenAt } : {}) };
    item.photos = [...(item.photos ?? []), photo];
  });
}

export const ownerOf = (site: SiteFile, owner: Owner): { photos?: Photo[] } | undefined =>
  owner.kind === "spot" ? site.spots?.find((spot) => spot.id === owner.id) : targetOf(site, owner.id);

/** Sees that what waits goes out while a survey is open. */
export function usePendingPhotos(site: string): void {
  useEffect(() => {
    void sendPending(site);
    const timer = window.setInterval(() => {
      if (Object.keys(usePhotoStore.getState().waiting).length > 0) void sendPending(site);
    }, RETRY);
    return () => window.clearInterval(timer);
  }, [site]);
}
