/** Real pictures of heads, with what was clicked in them: on this device alone, until somebody takes another one. */
import { read, take, write } from "./shelf";

export interface Clicked {
  /** The landmark's id. */
  id: string;
  /** Where, px of the picture as it came in. */
  u: number;
  v: number;
}

export interface HeldPicture {
  blob: Blob;
  width: number;
  height: number;
  /** Where it came from, in words. */
  from: string;
  /** The corners of a monitor in it, px: top left, top right, bottom right, bottom left. */
  corners: [number, number][] | null;
  points: Clicked[];
  /** To how many degrees the points were found without clicks; nothing where a hand put them down. */
  foundTo?: number;
  /** When it was taken. */
  at?: string;
  /** As evidence: the SHA-256 of its bytes, which nobody changed; and by how many seconds the camera's clock was fast. */
  name?: string;
  clockOffS?: number | null;
  /** Why it is not to the last byte as it came. */
  changed?: string;
}

/** What pictures are held for: aiming by them, pointing a head through fixed views, or as evidence of a walk test or an upkeep. */
export type HeldFor = "fit" | "link" | "prove";

export interface HeldKey {
  held: HeldFor;
  site: string;
  camera: string;
  /** The head, and what else parts one picture of it from another. */
  head: string;
}

const keyOf = ({ held, site, camera, head }: HeldKey): string => `${held}/${site}/${camera}/${head}`;

export const heldPicture = (key: HeldKey): Promise<HeldPicture | null> => read<HeldPicture>(keyOf(key));

/** Answers whether this device has room for it. */
export const holdPicture = (key: HeldKey, held: HeldPicture): Promise<boolean> => write(keyOf(key), held);

export const dropPicture = (key: HeldKey): Promise<void> => take(keyOf(key));
