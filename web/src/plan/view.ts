/** From the site to the screen and back. */
import type { Point, SiteFile } from "../core/types";
import { corners } from "./drawingPlace";

export interface PlanView {
  /** The site's point in the middle of the plan, m. */
  centre: Point;
  /** Pixels per metre. */
  scale: number;
  /** Size of the plan, px. */
  size: Point;
}

export const LEAST_SCALE = 0.2;
export const MOST_SCALE = 400;

export function toScreen(view: PlanView, [x = 0, y = 0]: readonly number[]): Point {
  return [view.size[0] / 2 + (x - view.centre[0]) * view.scale, view.size[1] / 2 - (y - view.centre[1]) * view.scale];
}

export function toSite(view: PlanView, [u, v]: Point): Point {
  return [view.centre[0] + (u - view.size[0] / 2) / view.scale, view.centre[1] - (v - view.size[1] / 2) / view.scale];
}

/** Zooms by a factor, keeping the site's point under `at` where it is. */
export function zoomed(view: PlanView, factor: number, at: Point): Partial<PlanView> {
  const scale = Math.min(Math.max(view.scale * factor, LEAST_SCALE), MOST_SCALE);
  const fixed = toSite(view, at);
  const moved = toSite({ ...view, scale }, at);
  return { scale, centre: [view.centre[0] + fixed[0] - moved[0], view.centre[1] + fixed[1] - moved[1]] };
}

/** The view that shows all of a site. */
export function fitting(site: SiteFile, size: Point): Partial<PlanView> {
  const points: number[][] = [
    ...(site.obstacles ?? []).flatMap((obstacle) => obstacle.outline),
    ...site.targets.flatMap((target) => target.shape.points),
    ...site.cameras.map((camera) => camera.position),
    ...(site.spots ?? []).map((spot) => spot.position),
    ...(site.drawing ? corners(site.drawing) : []),
  ];
  if (points.length === 0)
    return { centre: [15, 10], scale: Math.max(Math.min(size[0] / 50, size[1] / 36), LEAST_SCALE) };
  const xs = points.map((p) => p[0] ?? 0);
  const ys = points.map((p) => p[1] ?? 0);
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min((size[0] - 90) / Math.max(x1 - x0, 12), (size[1] - 110) / Math.max(y1 - y0, 12));
  return { centre: [(x0 + x1) / 2, (y0 + y1) / 2], scale: Math.min(Math.max(scale, LEAST_SCALE), MOST_SCALE) };
}
