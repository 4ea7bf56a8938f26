/** Photos as they leave the device: scaled down, upright, without the place where they were taken. */

/** The longer side of a photo that is kept, px. */
const LONGEST = 1600;
/** The longer side of a drawing that is kept, px: it is zoomed into. */
const LONGEST_DRAWING = 4000;
const QUALITY = 0.85;

export interface Scaled {
  blob: Blob;
  width: number;
  height: number;
}

/** Draws a picture anew, upright and small enough. What stood in the file beside the picture is lost with that. */
export async function scaleDown(file: Blob, drawing = false): Promise<Scaled> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new Error("is no picture that this browser can read");
  }
  const scale = Math.min(1, (drawing ? LONGEST_DRAWING : LONGEST) / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const canvas = document.createElement("canvas");
  canvas.width = width;
  canvas.height = height;
  canvas.getContext("2d")?.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  // A drawing stays sharp; a photo stays small.
  const type = drawing && file.type === "image/png" ? "image/png" : "image/jpeg";
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, type, QUALITY));
  if (!blob) throw new Error("cannot be scaled down");
  return { blob, width, height };
}
