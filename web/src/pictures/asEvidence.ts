/** Pictures as evidence: not a byte is changed, and each is called by the SHA-256 of its bytes. */
import type { HeldPicture } from "../keep/heldPictures";
import { scaleDown } from "../ui/photos/scaleDown";

/** What the server keeps, bytes. */
const KEPT = 6 * 1024 * 1024;
/** What it unpacks, px. */
const MOST_PX = 40_000_000;

export type Evident = Pick<HeldPicture, "blob" | "width" | "height" | "name" | "changed">;

/** Looks at a picture. What is too large to be kept as it is comes smaller, and says so. Rejects with what is wrong with it, in words. */
export async function asEvidence(file: Blob): Promise<Evident> {
  if (!["image/png", "image/jpeg"].includes(file.type)) throw new Error("is no PNG or JPEG");
  // What its head says is asked first: unpacking a hundred million pixels ends a phone.
  const says = await sizeOf(file);
  if (says && says[0] * says[1] > MOST_PX)
    throw new Error(`has ${says[0]} × ${says[1]} pixels, more than 40 million: take a snapshot, or a smaller copy`);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file, { imageOrientation: "from-image" });
  } catch {
    throw new Error("is no picture that this browser can read");
  }
  const { width, height } = bitmap;
  bitmap.close();
  if (file.size <= KEPT) return { blob: file, width, height, name: await digest(file) };
  const small = await scaleDown(file, true);
  const changed = "larger than 6 MB, so made smaller on this device";
  return { blob: small.blob, width: small.width, height: small.height, name: await digest(small.blob), changed };
}

async function sizeOf(file: Blob): Promise<[number, number] | null> {
  const { default: reader } = await import("exifreader");
  try {
    const { file: jpeg, png } = reader.load(await file.arrayBuffer(), { expanded: true });
    const said = [jpeg?.["Image Width"] ?? png?.["Image Width"], jpeg?.["Image Height"] ?? png?.["Image Height"]];
    const [width, height] = said.map((tag) => Number(tag?.value));
    return width && height ? [width, height] : null;
  } catch {
    return null;
  }
}

async function digest(blob: Blob): Promise<string> {
  const bytes = new Uint8Array(await crypto.subtle.digest("SHA-256", await blob.arrayBuffer()));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
