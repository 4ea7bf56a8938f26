/** A view out of a photo: each pixel where the core says that it lies in the photo, between its neighbours. */
import type { PhotoLaid } from "../../core/types";

/** What the photo does not show. */
const PAPER = [255, 253, 247, 255] as const;

/** Where a place of the view, in shares, lies in the photo, in shares; null where the photo does not show it. */
export function placeIn(laid: PhotoLaid, x: number, y: number): [number, number] | null {
  const along = (share: number, of: number): [number, number] => {
    const at = Math.min(1, Math.max(0, share)) * (of - 1);
    const before = Math.min(Math.floor(at), of - 2);
    return [before, at - before];
  };
  const [column, across] = along(x, laid.columns);
  const [row, down] = along(y, laid.rows);
  const first = row * laid.columns + column;
  const corners = [first, first + 1, first + laid.columns, first + laid.columns + 1].map((place) => laid.at[place]);
  const [a, b, c, d] = corners;
  if (!a || !b || !c || !d) return null;
  const between = (axis: 0 | 1): number =>
    ((a[axis] ?? 0) * (1 - across) + (b[axis] ?? 0) * across) * (1 - down) +
    ((c[axis] ?? 0) * (1 - across) + (d[axis] ?? 0) * across) * down;
  return [between(0), between(1)];
}

/** The view, RGBA. */
export function warped(laid: PhotoLaid, photo: ImageData, width: number, height: number): Uint8Array {
  const view = new Uint8Array(width * height * 4);
  const last = [photo.width - 1, photo.height - 1] as const;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const to = (y * width + x) * 4;
      const at = placeIn(laid, (x + 0.5) / width, (y + 0.5) / height);
      if (!at) {
        view.set(PAPER, to);
        continue;
      }
      const u = Math.min(last[0], Math.max(0, at[0] * photo.width - 0.5));
      const v = Math.min(last[1], Math.max(0, at[1] * photo.height - 0.5));
      const [left, top] = [Math.floor(u), Math.floor(v)];
      const [right, under] = [Math.min(left + 1, last[0]), Math.min(top + 1, last[1])];
      const [across, down] = [u - left, v - top];
      for (let channel = 0; channel < 4; channel++) {
        const of = (px: number, py: number): number => photo.data[(py * photo.width + px) * 4 + channel] ?? 0;
        const upper = of(left, top) * (1 - across) + of(right, top) * across;
        const lower = of(left, under) * (1 - across) + of(right, under) * across;
        view[to + channel] = Math.round(upper * (1 - down) + lower * down);
      }
    }
  return view;
}

/** A photo's pixels, at most so wide: what a view is drawn from. */
export async function pixelsOf(address: string, widest: number): Promise<ImageData> {
  const image = new Image();
  image.src = address;
  await image.decode();
  const width = Math.min(widest, image.naturalWidth);
  const height = Math.round((width * image.naturalHeight) / image.naturalWidth);
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  const ink = canvas.getContext("2d", { willReadFrequently: true });
  if (!ink) throw new Error("this browser draws no pictures");
  ink.drawImage(image, 0, 0, width, height);
  return ink.getImageData(0, 0, width, height);
}
