/** Edits of a site file, each a plain function on the draft that is being changed. */
import type { Camera, CameraHead, Line, Model, Point, SiteFile, Target } from "../engine/types";

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

/** The middle of a target's points. */
export function middle(target: Target): Point {
  const sum = target.shape.points.reduce<Point>((a, p) => [a[0] + (p[0] ?? 0), a[1] + (p[1] ?? 0)], [0, 0]);
  const n = target.shape.points.length || 1;
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

/** Adds a camera of a model, aimed at a target if there is one. */
export function addCamera(site: SiteFile, at: Point, model: Model, aimedAt: Target | undefined): string {
  const id = freshId("c", site.cameras);
  const position = roundPoint(at);
  const heads = Array.from({ length: model.head_count ?? 1 }, (_, place) => ({
    id: `h${place + 1}`, pan_deg: (place * 360) / (model.head_count ?? 1), tilt_deg: 15, roll_deg: 0,
    focal_mm: model.lens.focal_min_mm,
  }));
  const camera: Camera = { id, name: id.toUpperCase(), position, height_m: 3, model, heads };
  if (aimedAt && heads[0]) aim(camera, heads[0], aimedAt);
  site.cameras.push(camera);
  return id;
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
  copy.shape.points = copy.shape.points.map(([x = 0, y = 0]) => [x + 1, y - 1]);
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
  target.shape.points = target.shape.points.map(([x = 0, y = 0]) => [rounded(x + east, decimals), rounded(y + north, decimals)]);
}

/** Gives a target another shape about the same place. */
export function setShape(target: Target, kind: Target["shape"]["kind"]): void {
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
