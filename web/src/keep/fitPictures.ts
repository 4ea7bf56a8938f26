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
}

const keyOf = (site: string, camera: string, head: string): string => `fit/${site}/${camera}/${head}`;

export const heldPicture = (site: string, camera: string, head: string): Promise<HeldPicture | null> =>
  read<HeldPicture>(keyOf(site, camera, head));

/** Answers whether this device has room for it. */
export const holdPicture = (site: string, camera: string, head: string, held: HeldPicture): Promise<boolean> =>
  write(keyOf(site, camera, head), held);

export const dropPicture = (site: string, camera: string, head: string): Promise<void> =>
  take(keyOf(site, camera, head));
