/** Edits of targets, each a plain function on the draft that is being changed. */
import type { PlainTask, Point, SiteFile, Target } from "../core/types";
import { middle, targetOf } from "./lookups";
import { freshId, plain, roundPoint, shifted } from "./points";
import { forgetReadings } from "./spots";

export function addTarget(site: SiteFile, at: Point): string {
  const id = freshId("t", site.targets);
  site.targets.push({
    id,
    name: `Target ${site.targets.length + 1}`,
    subject: "face",
    task: "identify",
    shape: { kind: "point", points: [roundPoint(at)] },
    height_m: 1.6,
    facing_deg: null,
    speed_mps: 0,
    heads_wanted: 1,
    distance: { how: "plan" },
  });
  return id;
}

/** Says what cameras shall do to people at a target, or takes it back. */
export function setShall(target: Target, shall: string): void {
  if (shall === "nothing") delete target.cameras_shall;
  else target.cameras_shall = shall as NonNullable<Target["cameras_shall"]>;
}

/** Points that nobody has placed stand so far apart, m. */
const APART_M = 6;

/** Adds what is usually to be seen, beside what is there, in its order of importance; where it is nobody has said yet. */
export function addUsual(site: SiteFile, usual: { name: string; task: PlainTask }[]): void {
  const taken = site.targets.flatMap(({ shape }) => shape.points.map(([x = 0]) => x));
  const first = taken.length === 0 ? 0 : Math.max(...taken) + APART_M;
  const least = Math.max(0, ...site.targets.map((target) => target.importance ?? 0));
  usual.forEach(({ name, task }, place) => {
    const id = addTarget(site, [first + place * APART_M, 0]);
    const target = targetOf(site, id);
    if (!target) return;
    Object.assign(target, { name, subject: task.subject, task: task.task, height_m: task.height_m });
    target.importance = Math.min(least + place + 1, 99);
  });
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

export function moveTarget(target: Target, east: number, north: number, decimals = 2): void {
  target.shape.points = shifted(target.shape.points, east, north, decimals);
  placedByHand(target);
}

/**
 * A place that a hand gave is scaled from the plan: what a laser or an adjustment found was found for another place. One that was
 * guessed by eye becomes no better by it.
 */
function placedByHand(target: Target): void {
  target.distance = { how: target.distance?.how === "guess" ? "guess" : "plan" };
  delete target.position_sigma_m;
}

/** Moves a target so that its middle lies at a place. */
export function moveTargetTo(site: SiteFile, id: string, to: Point): void {
  const moved = targetOf(site, id);
  if (!moved) return;
  const from = middle(moved);
  moveTarget(moved, to[0] - from[0], to[1] - from[1]);
}

/** Puts one corner of a target at a place; the others stay. */
export function moveTargetCorner(site: SiteFile, id: string, corner: number, to: Point): void {
  const target = targetOf(site, id);
  if (!target || !(corner in target.shape.points)) return;
  target.shape.points[corner] = to;
  placedByHand(target);
}

/** Puts a target's points where the core says that they are at a measured distance. */
export function setMeasured(site: SiteFile, id: string, points: Point[]): void {
  const target = targetOf(site, id);
  if (!target) return;
  target.shape.points = points;
  target.distance = { how: "laser" };
}

/** Takes a target out, with the readings to and from it. */
export function removeTarget(site: SiteFile, id: string): void {
  site.targets = site.targets.filter((target) => target.id !== id);
  forgetReadings(site, id);
}

/** Gives a target another shape about the same place. Readings go to points: a line or an area has none. */
export function setShape(site: SiteFile, target: Target, kind: Target["shape"]["kind"]): void {
  if (kind !== "point") forgetReadings(site, target.id);
  placedByHand(target);
  const [x, y] = middle(target);
  const points: Record<typeof kind, Point[]> = {
    point: [[x, y]],
    line: [
      [x - 2, y],
      [x + 2, y],
    ],
    area: [
      [x - 2, y - 2],
      [x + 2, y - 2],
      [x + 2, y + 2],
      [x - 2, y + 2],
    ],
  };
  target.shape = { kind, points: points[kind].map(roundPoint) };
}
