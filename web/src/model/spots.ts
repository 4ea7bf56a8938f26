/** Edits of spots and of the readings to them. */
import type { Point, SiteFile } from "../core/types";
import { freshId, roundPoint } from "./points";

/** Adds a spot; its id is no target's either, so that readings can tell them apart. */
export function addSpot(site: SiteFile, at: Point): string {
  site.spots ??= [];
  const id = freshId("s", [...site.spots, ...site.targets]);
  site.spots.push({ id, name: `Spot ${site.spots.length + 1}`, position: roundPoint(at), height_m: 3 });
  return id;
}

/** Moves a spot with the cameras that sit on it. */
export function moveSpot(site: SiteFile, id: string, to: Point): void {
  const moved = site.spots?.find((spot) => spot.id === id);
  if (!moved) return;
  moved.position = roundPoint(to);
  forgetSpot(site, id);
  for (const camera of site.cameras) if (camera.spot === id) camera.position = moved.position;
}

/** Forgets what an adjustment found about distances from a spot that moves or goes. */
export function forgetSpot(site: SiteFile, spot: string): void {
  for (const { distance } of site.targets)
    if (distance?.from) distance.from = distance.from.filter((from) => from.spot !== spot);
}

/** Takes a spot out, with the readings to and from it; cameras stay where they are. */
export function removeSpot(site: SiteFile, id: string): void {
  site.spots = (site.spots ?? []).filter((spot) => spot.id !== id);
  forgetReadings(site, id);
  forgetSpot(site, id);
  for (const camera of site.cameras) if (camera.spot === id) delete camera.spot;
}

/** Takes the readings to and from a point out. */
export function forgetReadings(site: SiteFile, id: string): void {
  if (site.readings) site.readings = site.readings.filter((reading) => reading.from !== id && reading.to !== id);
}
