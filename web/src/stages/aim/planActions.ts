/** What a hand does on the Aim plan, as edits of the site. */
import type { Obstacle } from "../../core/types";
import { useSite } from "../../keep/store";
import { moveCamera, pointHead } from "../../model/cameras";
import { useInHand } from "../../model/inHand";
import { obstacleOf } from "../../model/lookups";
import { removeCorner, removeObstacle as takeObstacleOut } from "../../model/obstacles";
import { mean, shifted } from "../../model/points";
import { refOf } from "../../model/views";
import { snappedCorner } from "./draw/drawing";
import { moveTargetCorner, moveTargetTo } from "../../model/targets";
import type { CameraActions } from "../../plan/layers/CameraMark";
import type { ShapeActions, SolidActions } from "../../plan/layers/Solids";
import type { TargetActions } from "../../plan/layers/TargetMark";

const { edit } = useSite.getState();
const { takeTarget, takeHead, takeObstacle } = useInHand.getState();

const cameras: CameraActions = {
  onTake: (camera, head) => takeHead(refOf(camera, head)),
  onMove: (camera, to, gesture) => edit(`Move ${camera.name}`, (site) => moveCamera(site, camera.id, to), gesture),
  onAim: (camera, head, at, gesture) => edit(`Aim ${camera.name}`, (site) => pointHead(site, head, at), gesture),
};

const targets: TargetActions = {
  onTake: (target) => takeTarget(target.id),
  onMove: (target, to, gesture) => edit(`Move ${target.name}`, (site) => moveTargetTo(site, target.id, to), gesture),
  onShape: (target, corner, to, gesture) =>
    edit(`Shape ${target.name}`, (site) => moveTargetCorner(site, target.id, corner, to), gesture),
};

export function removeObstacle(obstacle: Obstacle): void {
  edit(`Delete ${obstacle.name}`, (site) => {
    takeObstacleOut(site, obstacle.id);
  });
  takeObstacle(null);
}

const solids: SolidActions = {
  onTake: (obstacle) => takeObstacle(obstacle.id),
  onMove: (obstacle, taken, [east, north], gesture) =>
    edit(
      `Move ${obstacle.name}`,
      (site) => {
        const held = obstacleOf(site, obstacle.id);
        if (!held) return;
        held.outline = shifted(taken.outline, east, north, 2);
        if (taken.open_outline) held.open_outline = shifted(taken.open_outline, east, north, 2);
      },
      gesture,
    ),
  onRemove: removeObstacle,
};

const shape = (obstacle: Obstacle, change: (held: Obstacle) => void, gesture = ""): void =>
  edit(
    `Shape ${obstacle.name}`,
    (site) => {
      const held = obstacleOf(site, obstacle.id);
      if (held) change(held);
    },
    gesture,
  );

const corners: ShapeActions = {
  snap: (obstacle, place, to) => {
    const { open } = useSite.getState();
    return open ? snappedCorner(open.site, obstacle, place, to) : to;
  },
  onCorner: (obstacle, place, to, gesture) =>
    shape(
      obstacle,
      (held) => {
        held.outline[place] = to;
      },
      gesture,
    ),
  onNewCorner: (obstacle, side) =>
    shape(obstacle, (held) => {
      held.outline.splice(
        side + 1,
        0,
        mean([held.outline[side] ?? [], held.outline[(side + 1) % held.outline.length] ?? []]),
      );
    }),
  onRemoveCorner: (obstacle, place) => shape(obstacle, (held) => removeCorner(held, place)),
};

export const planActions = { cameras, targets, solids, corners };
