/** The expected views of a site's cameras as pictures that stand alone: pixels, brackets with the promises' names, masks. */
import { type PictureShown, picture } from "../../core/pictures";
import type { HeadRef, PhotoLaid, SiteFile } from "../../core/types";
import { pixelsOf, warped } from "./inPhoto";
import { nameOfTarget } from "./words";

/** Width of a view on paper, px. */
const WIDE = 960;

/** The heads that have a view: where each parks, or as it is aimed. */
export const headsOf = (site: SiteFile): HeadRef[] =>
  site.cameras
    .filter((camera) => camera.existing !== "goes")
    .flatMap((camera) => camera.heads.map((head) => ({ camera: camera.id, head: head.id })));

/** Photos are read at most so wide, px. */
const PHOTO_WIDE = 2000;

/**
 * A head's expected view as a data address, in a photo from its spot where it was laid into one; null if something newer was wished
 * before it was done.
 */
export async function viewOf(site: SiteFile, head: HeadRef, laid: PhotoLaid | null): Promise<string | null> {
  const sensor = site.cameras.find(({ id }) => id === head.camera)?.model.sensor;
  if (!sensor) return null;
  const [across, down] = [sensor.width_px, sensor.height_px];
  const width = Math.round(across >= down ? WIDE : (WIDE * across) / down);
  const light = site.conditions?.night ? ({ night: { stops: 0, exposed: null } } as const) : "day";
  const shown = await picture(
    site,
    head,
    { window: { whole: { width } }, light, grid: false, samples: 2, shutter_s: 0 },
    "sheet",
  );
  if (!shown) return null;
  if (!laid) return drawn(site, shown);
  try {
    const photo = await pixelsOf(`/api/pictures/${laid.picture}`, PHOTO_WIDE);
    const { width, height } = shown.told.frame;
    return drawn(site, { ...shown, rgba: warped(laid, photo, width, height) });
  } catch {
    // A photo that is not to be had leaves the computed view.
    return drawn(site, shown);
  }
}

function drawn(site: SiteFile, { rgba, told }: PictureShown): string {
  const { width, height, scale } = told.frame;
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  const ink = canvas.getContext("2d");
  if (!ink) return "";
  ink.putImageData(new ImageData(new Uint8ClampedArray(rgba), width, height), 0, 0);
  ink.fillStyle = "#fffdf7";
  ink.strokeStyle = "#18222d";
  for (const { outline } of told.masks) {
    ink.beginPath();
    outline.forEach(([u = 0, v = 0], place) =>
      place === 0 ? ink.moveTo(u / scale, v / scale) : ink.lineTo(u / scale, v / scale),
    );
    ink.closePath();
    ink.fill();
    ink.stroke();
  }
  for (const mark of told.marks) {
    if (!mark.clear || !mark.bracket) continue;
    const [left = 0, top = 0, right = 0, bottom = 0] = mark.bracket.map((side) => side / scale);
    if (right < 0 || left > width || bottom < 0 || top > height) continue;
    bracket(ink, [left - 6, top - 6, right + 6, bottom + 6], nameOfTarget(site, mark.target));
  }
  return canvas.toDataURL("image/jpeg", 0.86);
}

function bracket(ink: CanvasRenderingContext2D, box: [number, number, number, number], name: string): void {
  const [l, t, r, b] = box;
  const arm = Math.min(14, (r - l) / 3, (b - t) / 3);
  for (const [colour, wide] of [
    ["#fffdf7", 5],
    ["#18222d", 2],
  ] as const) {
    ink.strokeStyle = colour;
    ink.lineWidth = wide;
    ink.beginPath();
    for (const [x, y, dx, dy] of [
      [l, t, arm, arm],
      [r, t, -arm, arm],
      [l, b, arm, -arm],
      [r, b, -arm, -arm],
    ] as const) {
      ink.moveTo(x + dx, y);
      ink.lineTo(x, y);
      ink.lineTo(x, y + dy);
    }
    ink.stroke();
  }
  ink.font = '600 17px "Barlow Semi Condensed", Barlow, sans-serif';
  const wide = ink.measureText(name).width;
  const at = Math.max(4, Math.min(l, ink.canvas.width - wide - 8));
  const under = b + 24 < ink.canvas.height ? b + 20 : Math.max(20, t - 8);
  ink.fillStyle = "rgba(255, 253, 247, 0.85)";
  ink.fillRect(at - 4, under - 16, wide + 8, 22);
  ink.fillStyle = "#18222d";
  ink.fillText(name, at, under);
}
