/** From a drawing's pixels to the site and back. */
import type { Point, SiteDrawing } from "../core/types";

/** The scale that a drawing is shown at until its own is set, m per px. */
const PROVISIONAL = 0.1;

export const scaleOf = (drawing: SiteDrawing): number => drawing.metres_per_px ?? PROVISIONAL;

/** The site's place of a pixel: turned so that the drawing's top points to its bearing. */
export function toGround(drawing: SiteDrawing, [u = 0, v = 0]: readonly number[]): Point {
  const turn = ((drawing.turn_deg ?? 0) * Math.PI) / 180;
  const [right, up] = [(u - drawing.width_px / 2) * scaleOf(drawing), (drawing.height_px / 2 - v) * scaleOf(drawing)];
  const [x = 0, y = 0] = drawing.centre ?? [0, 0];
  return [x + right * Math.cos(turn) + up * Math.sin(turn), y - right * Math.sin(turn) + up * Math.cos(turn)];
}

/** The pixel of a place on the site. */
export function toPixel(drawing: SiteDrawing, [x = 0, y = 0]: readonly number[]): Point {
  const turn = ((drawing.turn_deg ?? 0) * Math.PI) / 180;
  const [cx = 0, cy = 0] = drawing.centre ?? [0, 0];
  const [east, north] = [x - cx, y - cy];
  const right = east * Math.cos(turn) - north * Math.sin(turn);
  const up = east * Math.sin(turn) + north * Math.cos(turn);
  return [drawing.width_px / 2 + right / scaleOf(drawing), drawing.height_px / 2 - up / scaleOf(drawing)];
}

/** The site's places of a drawing's four corners. */
export const corners = (drawing: SiteDrawing): Point[] =>
  [
    [0, 0],
    [drawing.width_px, 0],
    [drawing.width_px, drawing.height_px],
    [0, drawing.height_px],
  ].map((corner) => toGround(drawing, corner));
