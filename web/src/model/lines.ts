/** Where a line of the survey stands: which targets a camera is aimed at, and where a new spot for one goes. */
import type { Point, SiteFile, Spot, SpotPlace, Target } from "../core/types";
import { middle } from "./lookups";
import { bearing } from "./points";
import { addSpot } from "./spots";

/** A camera that points so near to a target's bearing is aimed at it, degrees. */
const AIMED_WITHIN_DEG = 3;

const apart = (a: number, b: number): number => Math.abs(((a - b + 540) % 360) - 180);

/** Whether a camera is aimed at a target. */
export const isAimedAt = (site: SiteFile, target: Target): boolean =>
  site.cameras.some((camera) =>
    camera.heads.some(
      (head) =>
        apart(head.pan_deg, bearing(camera.position as Point, middle(target))) <= AIMED_WITHIN_DEG &&
        measuredTo(site, camera.spot ?? null, target),
    ),
  );

/** Whether a spot was measured to a target, or to none: what was measured to others is meant for those. */
function measuredTo(site: SiteFile, spot: string | null, target: Target): boolean {
  const readings = (site.readings ?? []).filter((reading) => reading.from === spot || reading.to === spot);
  return readings.length === 0 || readings.some((reading) => reading.from === target.id || reading.to === target.id);
}

/** The targets in the order of importance; those that say nothing after those that do. */
export const byImportance = (targets: Target[]): Target[] =>
  [...targets].sort((a, b) => (a.importance ?? 100) - (b.importance ?? 100));

/** Adds a spot for a target where the core says that it goes; answers its id. */
export function addSpotFor(site: SiteFile, target: Target, place: SpotPlace): string {
  const id = addSpot(site, place.position as Point);
  const spot = site.spots?.find((held) => held.id === id);
  if (spot) {
    Object.assign(spot, {
      name: `For ${target.name}`.slice(0, 200),
      height_m: place.height_m,
      outdoor: true,
    });
  }
  return id;
}

/** The reading between a target and a spot. */
export const readingOf = (site: SiteFile, target: Target, spot: Spot) =>
  (site.readings ?? []).find(
    (r) => (r.from === target.id && r.to === spot.id) || (r.from === spot.id && r.to === target.id),
  );
