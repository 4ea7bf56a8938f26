/** The whole picture of a head, at its sensor's own size, as a PNG file. */
import { largePicture } from "../../../core/pictures";
import type { HeadRef, SiteFile } from "../../../core/types";
import { saveFile } from "../../../keep/files";
import { nameOf } from "../../../model/views";
import { lightOf, sensorOf } from "./pictureView";

/** Samples to a side of each pixel. */
const SAMPLES = 2;

interface Look {
  night: boolean;
  stops: number;
  exposed: "automatic" | null;
  grid: boolean;
}

/** `onShare` hears how much of it is done. */
export async function saveView(
  site: SiteFile,
  head: HeadRef,
  look: Look,
  onShare: (share: number) => void,
): Promise<void> {
  const sensor = sensorOf(site, head);
  if (!sensor) return;
  const [width, height] = sensor;
  const wish = { light: lightOf(look), grid: look.grid, samples: SAMPLES, shutter_s: 0 };
  const pixels = await largePicture(site, head, wish, { width, height }, onShare);
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext("2d")?.putImageData(pixels, 0, 0);
  saveFile(await canvas.convertToBlob({ type: "image/png" }), `${site.name} ${nameOf(site, head)} view`, "png");
}
