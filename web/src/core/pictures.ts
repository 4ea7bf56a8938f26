/** Pictures of heads: what each will see. */
import { type Slot, viewers } from "./hands";
import { told } from "./port";
import type { HeadRef, PictureTold, PictureWish, SiteFile } from "./types";

/** A picture: its pixels, and what it shows. */
export interface PictureShown {
  told: PictureTold;
  /** Red, green, blue and opacity, from the top left. */
  rgba: Uint8Array;
}

/** The picture of a head; null if something newer was wished before it was done. Pictures in different slots do not wait for each other. */
export async function picture(
  site: SiteFile,
  head: HeadRef,
  wish: PictureWish,
  slot: Slot,
): Promise<PictureShown | null> {
  const { drawing } = site;
  const overhead = drawing?.metres_per_px ? drawing.picture : null;
  const reply = await viewers[slot].run(site, { picture: { head, wish, overhead } });
  return reply.rgba && reply.told ? { told: told(reply.told), rgba: reply.rgba } : null;
}

/** Large pictures are made one after the other: two at once would take the workers from each other. */
let large: Promise<unknown> = Promise.resolve();
/** How many rows of a large picture a worker takes at a time. */
const BAND = 48;

/** A large picture, band by band over two workers; `onShare` hears how much of it is done. */
export function largePicture(...of: Parameters<typeof makeLarge>): Promise<ImageData> {
  const made = large.then(() => makeLarge(...of));
  large = made.catch(() => undefined);
  return made;
}

async function makeLarge(
  site: SiteFile,
  head: HeadRef,
  wish: Omit<PictureWish, "window">,
  { width, height }: { width: number; height: number },
  onShare: (share: number) => void,
): Promise<ImageData> {
  const whole = new ImageData(width, height);
  let next = 0;
  let done = 0;
  const work = async (slot: Slot): Promise<void> => {
    while (next < height) {
      const from = next;
      next = Math.min(next + BAND, height);
      const band: PictureWish = { ...wish, window: { band: { width, from, to: next } } };
      const got = await picture(site, head, band, slot);
      if (!got) throw new Error("another picture was begun");
      whole.data.set(got.rgba, from * width * 4);
      done += got.told.frame.height;
      onShare(done / height);
    }
  };
  await Promise.all([work("keep"), work("keepMore")]);
  return whole;
}
