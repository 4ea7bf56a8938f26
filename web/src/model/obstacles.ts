/** Edits of obstacles. */
import type { Obstacle, Outlined, Point, SiteFile } from "../core/types";
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
  if (copy.open_outline) copy.open_outline = shifted(copy.open_outline, 1, -1, 2);
  site.obstacles.push(copy);
  return copy.id;
}

/** Takes an obstacle away; what was mounted on it is mounted on nothing known. */
export function removeObstacle(site: SiteFile, id: string): void {
  site.obstacles = (site.obstacles ?? []).filter((o) => o.id !== id);
  const aside = (site.variants ?? []).flatMap((variant) => variant.cameras);
  for (const camera of [...site.cameras, ...aside]) if (camera.mounted_on === id) delete camera.mounted_on;
}

/** How few corners an outline may have. */
const leastCorners = (obstacle: Outlined): number => (obstacle.closed === false ? 2 : 3);

/** Takes a corner out, if enough are left. */
export function removeCorner(obstacle: Outlined, place: number): void {
  if (obstacle.outline.length > leastCorners(obstacle)) obstacle.outline.splice(place, 1);
}

/** Makes a filled outline of a thin wall, or the other way round. */
export function setFilled(obstacle: Outlined, filled: boolean): void {
  obstacle.closed = filled;
  const [[x0 = 0, y0 = 0] = [], [x1 = 0, y1 = 0] = []] = obstacle.outline;
  // Two corners enclose nothing: a third one is put beside them.
  if (filled && obstacle.outline.length < 3)
    obstacle.outline.push(roundPoint([x1 - (y1 - y0) / 3, y1 + (x1 - x0) / 3]));
}

/** Changes what an obstacle is; what only the old kind has goes, a new fence is seen through, a new eave hangs, a new door can open. */
export function setKind(obstacle: Obstacle, kind: Obstacle["kind"]): void {
  obstacle.kind = kind;
  if (kind !== "tree") {
    delete obstacle.trunk_m;
    delete obstacle.growth_m_per_year;
    delete obstacle.bare_see_through;
  }
  if (kind !== "door") {
    delete obstacle.open_outline;
    delete obstacle.open;
  } else obstacle.open_outline = swung(obstacle.outline, 0);
}

/** Opens or shuts a door. */
export function setOpen(obstacle: Obstacle, open: boolean): void {
  obstacle.open_outline ??= swung(obstacle.outline, 0);
  if (open) obstacle.open = true;
  else delete obstacle.open;
}

/** Hangs a door by its other end. */
export function swingOver(obstacle: Obstacle): void {
  const now = obstacle.open_outline?.[0];
  const hinge = now && now[0] === obstacle.outline[0]?.[0] && now[1] === obstacle.outline[0]?.[1];
  obstacle.open_outline = swung(obstacle.outline, hinge ? 1 : 0);
}

/** An outline turned by a right angle about one of its ends: where the leaf of a door stands when it is open. */
function swung(outline: number[][], end: 0 | 1): Point[] {
  const hinge = (end === 0 ? outline[0] : outline[1]) ?? [0, 0];
  const [hx = 0, hy = 0] = hinge;
  const turned = outline.map(([x = 0, y = 0]) => roundPoint([hx - (y - hy), hy + (x - hx)]));
  // The end that it hangs by comes first, so that it can be told later.
  return end === 0 ? turned : [...turned.slice(1), ...turned.slice(0, 1)];
}
