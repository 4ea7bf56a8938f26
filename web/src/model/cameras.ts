/** Edits of cameras. What takes arithmetic of the job (aiming, another model) the core works out. */
import { GUIDE } from "../core/guide";
import type { Aim, Camera, CameraHead, HeadRef, Point, SiteFile } from "../core/types";
import { cameraOf } from "./lookups";
import { aimedOf } from "./views";
import { uncable } from "./network";
import { bearing, freshId, plain, roundPoint, rounded } from "./points";

/** Puts a camera that the core made into the site. */
export function putCamera(site: SiteFile, camera: Camera): void {
  const place = site.cameras.findIndex((held) => held.id === camera.id);
  if (place < 0) site.cameras.push(camera);
  else site.cameras[place] = camera;
}

/** Gives a camera the model that the core fitted, with its heads; where it sits stays as it is. */
export function setModel(site: SiteFile, fitted: Camera): void {
  const held = cameraOf(site, fitted.id);
  if (held) Object.assign(held, { model: fitted.model, heads: fitted.heads });
}

/** Moves a camera; it no longer sits where distances were measured from. */
export function moveCamera(site: SiteFile, id: string, to: Point): void {
  const moved = cameraOf(site, id);
  if (!moved) return;
  moved.position = roundPoint(to);
  delete moved.spot;
}

/** Turns a head towards a place of the plan that a hand points at. */
export function pointHead(site: SiteFile, ref: HeadRef, to: Point): void {
  const aimed = aimedOf(site, ref);
  const camera = cameraOf(site, ref.camera);
  if (!aimed || !camera) return;
  const wish = rounded(bearing([camera.position[0] ?? 0, camera.position[1] ?? 0], to), 1);
  aimed.pan_deg = ref.view ? wish : onRing(camera, ref.head, wish);
}

/** The turn from one bearing to another, −180 to 180. */
const turn = (from: number, to: number): number => ((((to - from + 180) % 360) + 360) % 360) - 180;

/**
 * The bearing nearest to a wish that a head can be turned to on its ring, degrees: heads do not pass each other. Where its
 * neighbours leave no room it stays where it is.
 */
export function onRing(camera: Camera, head: string, wish: number): number {
  const now = camera.heads.find((held) => held.id === head)?.pan_deg ?? wish;
  const others = camera.heads.filter((held) => held.id !== head).map((held) => held.pan_deg);
  if (camera.model.form !== "multi_head" || others.length === 0) return wish;
  const stop = camera.model.apart_deg ?? GUIDE.defaults.apart_deg;
  // How far it can go to either side: to the next head, less the stop.
  const room = (side: 1 | -1): number => Math.min(...others.map((other) => (side * (other - now) + 720) % 360)) - stop;
  const [right, left] = [room(1), room(-1)];
  if (right < 0 || left < 0) return now;
  const by = Math.min(Math.max(turn(now, wish), -left), right);
  return rounded((now + by + 360) % 360, 1);
}

/** Gives a head the aim that the core found. */
export function setAim(site: SiteFile, ref: HeadRef, aim: Aim): void {
  const aimed = aimedOf(site, ref);
  if (aimed) Object.assign(aimed, aim);
}

/** A copy beside the original, with an id and a name of its own. */
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

export function removeCamera(site: SiteFile, id: string): void {
  site.cameras = site.cameras.filter((camera) => camera.id !== id);
  for (const camera of site.cameras) {
    if (camera.housed_with === id) delete camera.housed_with;
    for (const head of camera.heads) unlink(head, id);
  }
  uncable(site, id);
}

/** Views of a camera that is gone point nothing. */
function unlink(head: CameraHead, camera: string): void {
  const links = [...(head.pointed_by ? [head.pointed_by] : []), ...(head.also_pointed_by ?? [])];
  const [first, ...also] = links.filter((link) => link.camera !== camera);
  if (first) head.pointed_by = first;
  else delete head.pointed_by;
  if (also.length > 0) head.also_pointed_by = also;
  else delete head.also_pointed_by;
}
