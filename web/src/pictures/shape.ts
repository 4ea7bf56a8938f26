/** What holds of every real picture of a head: how well one clicks in it, and whether it can be the head's own. */
import type { HeldPicture } from "../keep/heldPictures";

/** How well a click is placed, px of the picture as it came in. */
export const CLICKED_PX = 1.5;
/** A picture is of the head's shape if it is so to this share. */
const SAME_SHAPE = 0.01;

export interface Size {
  width_px: number;
  height_px: number;
}

/** Whether a picture is of the head's shape, or is straightened by the corners of the monitor that it shows. */
export const isOfShape = ({ corners, width, height }: HeldPicture, size: Size): boolean =>
  corners !== null || Math.abs((width / height / size.width_px) * size.height_px - 1) < SAME_SHAPE;
