/** Pictures that were kept as evidence: on this device from the moment they are kept, and on the server once it has them. */
import { request } from "./http";
import type { HeldPicture } from "./heldPictures";
import { takePhoto } from "./photoOutbox";
import { read, write } from "./shelf";

const keyOf = (site: string, name: string): string => `evidence/${site}/${name}`;

/** Keeps a picture; false if this device has no room for it. The site names it, whether the server has it yet or not. */
export async function keepEvidence(site: string, { blob, name }: HeldPicture): Promise<boolean> {
  if (name === undefined || !(await write(keyOf(site, name), blob))) return false;
  return takePhoto(site, { kind: "evidence", id: name }, blob);
}

/** A picture of a name; null where neither this device nor the server has it. It stays on this device then. */
export async function evidenceOf(site: string, name: string): Promise<Blob | null> {
  const held = await read<Blob>(keyOf(site, name));
  if (held) return held;
  try {
    const blob = await request<Blob>("GET", `/api/pictures/${name}`);
    void write(keyOf(site, name), blob);
    return blob;
  } catch {
    return null;
  }
}
