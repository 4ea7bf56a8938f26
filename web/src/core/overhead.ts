/** The site's overhead picture, decoded for the ground of pictures; in a worker. */

export interface Overhead {
  width: number;
  height: number;
  /** Red, green, blue and opacity, from the top left. */
  rgba: Uint8Array;
}

/** Finer than that nothing on the ground is told apart, and it would fill the memory, px. */
const LONGEST = 1024;

const decoded = new Map<string, Promise<Overhead | null>>();

/** The picture of that name in the store; null where it cannot be had. */
export function overheadOf(name: string): Promise<Overhead | null> {
  let picture = decoded.get(name);
  if (!picture) {
    picture = decode(name).catch(() => null);
    decoded.set(name, picture);
    // Without a connection it is tried again by whoever asks next.
    void picture.then((had) => had ?? decoded.delete(name));
  }
  return picture;
}

async function decode(name: string): Promise<Overhead | null> {
  const answer = await fetch(`/api/pictures/${name}`);
  if (!answer.ok) return null;
  const whole = await createImageBitmap(await answer.blob());
  const share = Math.min(1, LONGEST / Math.max(whole.width, whole.height));
  const [width, height] = [whole.width, whole.height].map((px) => Math.max(Math.round(px * share), 1)) as [
    number,
    number,
  ];
  const context = new OffscreenCanvas(width, height).getContext("2d");
  if (!context) return null;
  context.imageSmoothingQuality = "high";
  context.drawImage(whole, 0, 0, width, height);
  const { data } = context.getImageData(0, 0, width, height);
  return { width, height, rgba: new Uint8Array(data.buffer) };
}
