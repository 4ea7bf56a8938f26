/** Edits of cameras. What takes arithmetic of the job (aiming, another model) the core works out. */
import type { Aim, Camera, Point, SiteFile } from "../core/types";
import { cameraOf, headOf } from "./lookups";
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
export function pointHead(site: SiteFile, camera: string, head: string, to: Point): void {
  const aimed = headOf(site, camera, head);
  const place = cameraOf(site, camera)?.position;
  if (aimed && place) aimed.pan_deg = rounded(bearing([place[0] ?? 0, place[1] ?? 0], to), 1);
}

/** Gives a head the aim that the core found. */
export function setAim(site: SiteFile, camera: string, head: string, aim: Aim): void {
  const aimed = headOf(site, camera, head);
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
