/** The worker that compares pictures, and finds points of one again in the next. It stays, with the reference that it unpacked last: a series is held against one. */
import init, { carry, compare } from "./made/route";
import type { Compared, Point } from "./types";

export interface CompareAsked {
  module: WebAssembly.Module;
  number: number;
  /** The reference, called by the SHA-256 of its bytes. */
  reference: { name: string; blob: Blob };
  /** What is held against it, and what is asked of both; nothing where it is only to be got ready. */
  later: { blob: Blob; hfovDeg: number; asks: CompareAsks } | null;
}
/** How they differ by such limits, as JSON; or where points of the reference, shares of its width and height, lie in the later one. */
export type CompareAsks = { limits: string } | { points: Point[] };
/** What is found, what is refused, or what fell over. A point that is not found again is null. */
export type CompareTold = { number: number } & (
  { found: Compared | (Point | null)[] | null } | { refused: string } | { failed: string }
);

/** Pictures are compared no wider, px. */
const WIDEST = 1920;

/** What is no picture is refused as the core refuses. */
class NoPicture extends Error {
  constructor(readonly which: string) {
    super("is no picture that this browser can read");
  }
}

interface Pixels {
  data: Uint8Array;
  width: number;
  height: number;
  scale: number;
}

/** The pixels of a picture, no more than are looked at. */
async function pixels(blob: Blob, which: string): Promise<Pixels> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(blob, { imageOrientation: "from-image" });
  } catch {
    throw new NoPicture(which);
  }
  const scale = Math.min(1, WIDEST / bitmap.width);
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const context = new OffscreenCanvas(width, height).getContext("2d", { willReadFrequently: true });
  context?.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const { data } = context?.getImageData(0, 0, width, height) ?? { data: new Uint8ClampedArray() };
  return { data: new Uint8Array(data.buffer), width, height, scale };
}

/** The reference unpacked last. */
let last: { name: string; pixels: Promise<Pixels> } | null = null;
function referenceOf({ name, blob }: CompareAsked["reference"]): Promise<Pixels> {
  if (last?.name !== name) last = { name, pixels: pixels(blob, "reference") };
  return last.pixels;
}

async function answer({ module, reference, later }: CompareAsked): Promise<Compared | (Point | null)[] | null> {
  const [before, after] = await Promise.all([
    referenceOf(reference),
    later && pixels(later.blob, "later"),
    init({ module_or_path: module }),
  ]);
  if (!later || !after) return null;
  if ("points" in later.asks) {
    const points = JSON.stringify(later.asks.points.map(([u, v]) => [u * before.width, v * before.height]));
    const said = carry(before.data, before.width, after.data, after.width, later.hfovDeg, points);
    return (JSON.parse(said) as (Point | null)[]).map((at) => at && [at[0] / after.width, at[1] / after.height]);
  }
  const said = compare(before.data, before.width, after.data, after.width, later.hfovDeg, later.asks.limits);
  const found = JSON.parse(said) as Compared;
  // Regions are in pixels of the picture as it is kept.
  for (const region of found.regions) region.box_px = region.box_px.map((side) => side / after.scale);
  return found;
}

self.onmessage = ({ data }: MessageEvent<CompareAsked>): void => {
  const { number } = data;
  void answer(data).then(
    (found) => self.postMessage({ number, found } satisfies CompareTold),
    (thrown: unknown) => {
      // What the core refuses it says as JSON; anything else is a fault of its own.
      const refused =
        thrown instanceof NoPicture
          ? JSON.stringify([{ path: thrown.which, message: thrown.message }])
          : typeof thrown === "string"
            ? thrown
            : null;
      const told = refused === null ? { number, failed: String(thrown) } : { number, refused };
      self.postMessage(told satisfies CompareTold);
    },
  );
};
