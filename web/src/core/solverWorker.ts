/** The worker that asks the solver: a core of its own, which comes when it is asked for. */
import init, { compare, offer, route } from "./made/route";
import type { Compared } from "./types";

export type SolverTask =
  | { kind: "route"; wish: string }
  | { kind: "offer"; ask: string; own: string }
  | { kind: "compare"; reference: Blob; later: Blob; hfovDeg: number; limits: string };
export interface SolverAsked {
  module: WebAssembly.Module;
  site: string;
  tasks: SolverTask[];
}
/** The answer to a task by its place, how much of one is done, what was refused, or what fell over. */
export type SolverTold =
  { place: number; answer: string } | { place: number; share: number } | { refused: string } | { failed: string };

/** Pictures are compared no wider, px. */
const WIDEST = 1920;

async function compared({ reference, later, hfovDeg, limits }: SolverTask & { kind: "compare" }): Promise<string> {
  const [before, after] = [await pixels(reference, "reference"), await pixels(later, "later")];
  const found = JSON.parse(compare(before.data, before.width, after.data, after.width, hfovDeg, limits)) as Compared;
  // Regions are in pixels of the picture as it is kept.
  for (const region of found.regions) region.box_px = region.box_px.map((side) => side / after.scale);
  return JSON.stringify(found);
}

/** What is no picture is refused as the core refuses. */
class NoPicture extends Error {
  constructor(readonly which: string) {
    super("is no picture that this browser can read");
  }
}

/** The pixels of a picture, no more than are looked at. */
async function pixels(blob: Blob, which: string): Promise<{ data: Uint8Array; width: number; scale: number }> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(blob, { imageOrientation: "from-image" });
  } catch {
    throw new NoPicture(which);
  }
  const scale = Math.min(1, WIDEST / bitmap.width);
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const context = new OffscreenCanvas(width, height).getContext("2d");
  context?.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const { data } = context?.getImageData(0, 0, width, height) ?? { data: new Uint8ClampedArray() };
  return { data: new Uint8Array(data.buffer), width, scale };
}

let working = 0;
/** The core calls it while it works. */
Object.assign(self, {
  tellProgress: (share: number): void => self.postMessage({ place: working, share } satisfies SolverTold),
});

self.onmessage = ({ data }: MessageEvent<SolverAsked>): void => {
  void (async () => {
    try {
      await init({ module_or_path: data.module });
      for (const [place, task] of data.tasks.entries()) {
        working = place;
        const answer =
          task.kind === "route"
            ? route(data.site, task.wish)
            : task.kind === "offer"
              ? offer(data.site, task.own, task.ask)
              : await compared(task);
        self.postMessage({ place, answer } satisfies SolverTold);
      }
    } catch (thrown) {
      // What the core refuses it says as JSON; anything else is a fault of its own.
      const refused =
        thrown instanceof NoPicture
          ? JSON.stringify([{ path: thrown.which, message: thrown.message }])
          : typeof thrown === "string"
            ? thrown
            : null;
      const told: SolverTold = refused === null ? { failed: String(thrown) } : { refused };
      self.postMessage(told);
    }
  })();
};
