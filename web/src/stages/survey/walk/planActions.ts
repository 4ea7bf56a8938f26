/** What a hand does on the plan of the walk, as edits of the site. */
import type { Point, Spot, Target } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { moveSpot } from "../../../model/spots";
import { moveTargetCorner, moveTargetTo } from "../../../model/targets";
import type { TargetActions } from "../../../plan/layers/TargetMark";

const { edit } = useSite.getState();

export const moveSpotOnPlan = (spot: Spot, to: Point, gesture: string): void =>
  edit(`Move ${spot.name}`, (site) => moveSpot(site, spot.id, to), gesture);

export const targetActions = (onTake: (target: Target) => void): TargetActions => ({
  onTake,
  onMove: (target, to, gesture) => edit(`Move ${target.name}`, (site) => moveTargetTo(site, target.id, to), gesture),
  onShape: (target, corner, to, gesture) =>
    edit(`Shape ${target.name}`, (site) => moveTargetCorner(site, target.id, corner, to), gesture),
});
