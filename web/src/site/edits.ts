/** Edits of a site file, each a plain function on the draft that is being changed. */
import type { Camera, CameraHead, Line, Model, Obstacle, Point, SiteFile, Spot, Target } from "../engine/types";

/** An id that the list does not have yet: the letter and the next free number. */
export function freshId(letter: string, taken: { id: string }[]): string {
  const ids = new Set(taken.map((item) => item.id));
  for (let n = taken.length + 1; ; n++) if (!ids.has(`${letter}${n}`)) return `${letter}${n}`;
}

export const targetOf = (site: SiteFile, id: string): Target | undefined => site.targets.find((t) => t.id === id);
export const cameraOf = (site: SiteFile, id: string): Camera | undefined => site.cameras.find((c) => c.id === id);

export function headOf(site: SiteFile, camera: string, head: string): CameraHead | undefined {
  return cameraOf(site, camera)?.heads.find((h) => h.id === head);
}

export const obstacleOf = (site: SiteFile, id: string): Obstacle | undefined => site.obstacles?.find((o) => o.id === id);

/** The middle of a target's points. */
export const middle = (target: Target): Point => mean(target.shape.points);

/** The mean of some points. */
export function mean(points: number[][]): Point {
  const sum = points.reduce<Point>((a, p) => [a[0] + (p[0] ?? 0), a[1] + (p[1] ?? 0)], [0, 0]);
  const n = points.length || 1;
  return [sum[0] / n, sum[1] / n];
}

/** A bearing in degrees from 0 up to 360. */
export const bearing = (from: Point, to: Point): number =>
  ((Math.atan2(to[0] - from[0], to[1] - from[1]) * 180) / Math.PI + 360) % 360;

/** Rounds to a number of decimals, for values that a hand has set. */
export const rounded = (value: number, decimals: number): number => Number(value.toFixed(decimals));

export function addTarget(site: SiteFile, at: Point): string {
  const id = freshId("t", site.targets);
  site.targets.push({
    id, name: `Target ${site.targets.length + 1}`, subject: "face", task: "identify",
    shape: { kind: "point", points: [roundPoint(at)] }, height_m: 1.6, facing_deg: null, speed_mps: 0,
    heads_wanted: 1, distance: { how: "plan" },
  });
  return id;
}

/** Adds a camera of a model, on the spot nearest to the place if one is within `reach` m, aimed at a target if there is one. */
export function addCamera(site: SiteFile, at: Point, reach: number, model: Model, aimedAt: Target | undefined): string {
  const id = freshId("c", site.cameras);
  const spot = nearestSpot(site, at, reach);
  const position = spot?.position ?? roundPoint(at);
  const heads = Array.from({ length: model.head_count ?? 1 }, (_, place) => ({
    id: `h${place + 1}`, pan_deg: (place * 360) / (model.head_count ?? 1), tilt_deg: 15, roll_deg: 0,
    focal_mm: model.lens.focal_min_mm,
  }));
  const camera: Camera = { id, name: id.toUpperCase(), position, ...(spot ? { spot: spot.id } : {}), height_m: Math.max(spot?.height_m ?? 3, 0.05), model, heads };
  if (aimedAt && heads[0]) aim(camera, heads[0], aimedAt);
  site.cameras.push(camera);
  return id;
}

function nearestSpot(site: SiteFile, at: Point, reach: number): Spot | undefined {
  const far = (spot: Spot): number => Math.hypot((spot.position[0] ?? 0) - at[0], (spot.position[1] ?? 0) - at[1]);
  const [nearest] = [...(site.spots ?? [])].sort((a, b) => far(a) - far(b));
  return nearest && far(nearest) <= reach ? nearest : undefined;
}

/** Points a head at the middle of a target. */
export function aim(camera: Camera, head: CameraHead, target: Target): void {
  const to = middle(target);
  const from = camera.position as Point;
  const ground = Math.hypot(to[0] - from[0], to[1] - from[1]);
  head.pan_deg = rounded(bearing(from, to), 1);
  head.tilt_deg = rounded((Math.atan2(camera.height_m - target.height_m, ground) * 180) / Math.PI, 1);
}

/** A copy beside the original, with an id and a name of its own. */
export function duplicateTarget(site: SiteFile, id: string): string | null {
  const target = targetOf(site, id);
  if (!target) return null;
  const copy = structuredClone(plain(target));
  copy.id = freshId("t", site.targets);
  copy.name = `${target.name} (copy)`.slice(0, 200);
  moveTarget(copy, 1, -1);
  site.targets.push(copy);
  return copy.id;
}

export function duplicateCamera(site: SiteFile, id: string): string | null {
  const camera = cameraOf(site, id);
  if (!camera) return null;
  const copy = structuredClone(plain(camera));
  copy.id = freshId("c", site.cameras);
  copy.name = copy.id.toUpperCase();
  const [x = 0, y = 0] = copy.position;
  copy.position = [x + 1, y - 1];
  site.cameras.push(copy);
  return copy.id;
}

/** Adds a solid block, to be shaped by its corners. */
export function addObstacle(site: SiteFile, [x, y]: Point): string {
  site.obstacles ??= [];
  const id = freshId("o", site.obstacles);
  const outline = [[-3, -2], [3, -2], [3, 2], [-3, 2]].map(([east = 0, north = 0]) => roundPoint([x + east, y + north]));
  site.obstacles.push({ id, name: `Obstacle ${site.obstacles.length + 1}`, kind: "building", outline, closed: true, base_m: 0, top_m: 3, see_through: 0 });
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
  if (filled && obstacle.outline.length < 3) obstacle.outline.push(roundPoint([x1 - (y1 - y0) / 3, y1 + (x1 - x0) / 3]));
}

/** Sets another model; focal lengths that its lens does not have go to the nearest that it has. */
export function setModel(camera: Camera, model: Model): void {
  camera.model = model;
  for (const head of camera.heads) {
    head.focal_mm = Math.min(Math.max(head.focal_mm, model.lens.focal_min_mm), model.lens.focal_max_mm);
  }
  const wanted = model.head_count ?? 1;
  const first = camera.heads[0];
  camera.heads.length = Math.min(camera.heads.length, wanted);
  while (first && camera.heads.length < wanted) {
    const place = camera.heads.length;
    camera.heads.push({ ...plain(first), id: freshId("h", camera.heads), pan_deg: (first.pan_deg + (place * 360) / wanted) % 360 });
  }
}

/** Puts a target at a slant distance from a camera, along the bearing that it lies on. */
export function setSlant(site: SiteFile, line: Line, slant: number): void {
  const camera = cameraOf(site, line.camera);
  const target = targetOf(site, line.target);
  if (!camera || !target) return;
  const from = camera.position as Point;
  const to = middle(target);
  const drop = camera.height_m - target.height_m;
  const ground = Math.sqrt(Math.max(slant * slant - drop * drop, 0.01));
  const now = Math.hypot(to[0] - from[0], to[1] - from[1]);
  const east = now > 0.01 ? (to[0] - from[0]) / now : 0;
  const north = now > 0.01 ? (to[1] - from[1]) / now : 1;
  moveTarget(target, from[0] + east * ground - to[0], from[1] + north * ground - to[1], 4);
  target.distance = { how: "laser" };
}

export function moveTarget(target: Target, east: number, north: number, decimals = 2): void {
  target.shape.points = shifted(target.shape.points, east, north, decimals);
  // What an adjustment found was found for another place.
  target.distance = { how: target.distance?.how ?? "plan" };
}

/** Forgets what an adjustment found about distances from a spot that moves or goes. */
export function forgetSpot(site: SiteFile, spot: string): void {
  for (const { distance } of site.targets) if (distance?.from) distance.from = distance.from.filter((from) => from.spot !== spot);
}

export const shifted = (points: number[][], east: number, north: number, decimals: number): Point[] =>
  points.map(([x = 0, y = 0]) => [rounded(x + east, decimals), rounded(y + north, decimals)]);

/** Takes a target out, with the readings to and from it. */
export function removeTarget(site: SiteFile, id: string): void {
  site.targets = site.targets.filter((target) => target.id !== id);
  forgetReadings(site, id);
}

/** Takes a spot out, with the readings to and from it; cameras stay where they are. */
export function removeSpot(site: SiteFile, id: string): void {
  site.spots = (site.spots ?? []).filter((spot) => spot.id !== id);
  forgetReadings(site, id);
  forgetSpot(site, id);
  for (const camera of site.cameras) if (camera.spot === id) delete camera.spot;
}

function forgetReadings(site: SiteFile, id: string): void {
  if (site.readings) site.readings = site.readings.filter((reading) => reading.from !== id && reading.to !== id);
}

/** Gives a target another shape about the same place. Readings go to points: a line or an area has none. */
export function setShape(site: SiteFile, target: Target, kind: Target["shape"]["kind"]): void {
  if (kind !== "point") forgetReadings(site, target.id);
  target.distance = { how: target.distance?.how ?? "plan" };
  const [x, y] = middle(target);
  const points: Record<typeof kind, Point[]> = {
    point: [[x, y]],
    line: [[x - 2, y], [x + 2, y]],
    area: [[x - 2, y - 2], [x + 2, y - 2], [x + 2, y + 2], [x - 2, y + 2]],
  };
  target.shape = { kind, points: points[kind].map(roundPoint) };
}

export const roundPoint = ([x, y]: Point): Point => [rounded(x, 2), rounded(y, 2)];

/** A plain copy of what may be a draft under change. */
function plain<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T;
}
