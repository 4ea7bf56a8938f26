/** Edits of obstacles. */
import type { Obstacle, Point, SiteFile } from "../core/types";
import { obstacleOf } from "./lookups";
import { freshId, plain, roundPoint, shifted } from "./points";

/** Adds a solid block, to be shaped by its corners. */
export function addObstacle(site: SiteFile, [x, y]: Point): string {
  site.obstacles ??= [];
  const id = freshId("o", site.obstacles);
  const outline = [
    [-3, -2],
    [3, -2],
    [3, 2],
    [-3, 2],
  ].map(([east = 0, north = 0]) => roundPoint([x + east, y + north]));
  site.obstacles.push({
    id,
    name: `Obstacle ${site.obstacles.length + 1}`,
    kind: "building",
    outline,
    closed: true,
    base_m: 0,
    top_m: 3,
    see_through: 0,
  });
  return id;
}

export function duplicateObstacle(site: SiteFile, id: string): string | null {
  const obstacle = obstacleOf(site, id);
  if (!obstacle || !site.obstacles) return null;
  const copy = structuredClone(plain(obstacle));
  copy.id = freshId("o", site.obstacles);
  copy.name = `${obstacle.name} (copy)`.slice(0, 200);
  copy.outline = shifted(copy.outline, 1, -1, 2);
  site.obstacles.push(copy);
  return copy.id;
}

/** Takes an obstacle away; what was mounted on it is mounted on nothing known. */
export function removeObstacle(site: SiteFile, id: string): void {
  site.obstacles = (site.obstacles ?? []).filter((o) => o.id !== id);
  for (const camera of site.cameras) if (camera.mounted_on === id) delete camera.mounted_on;
}

/** How few corners an outline may have. */
const leastCorners = (obstacle: Obstacle): number => (obstacle.closed === false ? 2 : 3);

/** Takes a corner out, if enough are left. */
export function removeCorner(obstacle: Obstacle, place: number): void {
  if (obstacle.outline.length > leastCorners(obstacle)) obstacle.outline.splice(place, 1);
}

/** Makes a filled outline of a thin wall, or the other way round. */
export function setFilled(obstacle: Obstacle, filled: boolean): void {
  obstacle.closed = filled;
  const [[x0 = 0, y0 = 0] = [], [x1 = 0, y1 = 0] = []] = obstacle.outline;
  // Two corners enclose nothing: a third one is put beside them.
  if (filled && obstacle.outline.length < 3)
    obstacle.outline.push(roundPoint([x1 - (y1 - y0) / 3, y1 + (x1 - x0) / 3]));
}
