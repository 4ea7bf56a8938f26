/** What a hand does on the Aim plan, as edits of the site. */
import type { Lamp, Obstacle, Outlined, PrivatePlace, SiteFile } from "../../core/types";
import { useSite } from "../../keep/store";
import { moveCamera, pointHead } from "../../model/cameras";
import { useInHand } from "../../model/inHand";
import { obstacleOf, privateOf } from "../../model/lookups";
import { removeCorner, removeObstacle as takeObstacleOut } from "../../model/obstacles";
import { removePrivate as takePrivateOut } from "../../model/privatePlaces";
import { moveLamp, removeLamp as takeLampOut } from "../../model/lamps";
import { mean, shifted } from "../../model/points";
import { refOf } from "../../model/views";
import { snappedCorner } from "./draw/drawing";
import { moveTargetCorner, moveTargetTo } from "../../model/targets";
import type { CameraActions } from "../../plan/layers/CameraMark";
import type { LampActions } from "../../plan/layers/Lamps";
import type { PrivateActions } from "../../plan/layers/PrivatePlaces";
import type { ShapeActions, SolidActions } from "../../plan/layers/Solids";
import type { TargetActions } from "../../plan/layers/TargetMark";

const { edit } = useSite.getState();
const { takeTarget, takeHead, takeObstacle, takePrivate, takeLamp } = useInHand.getState();

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

/** How the corners of what has an outline are moved; `find` finds it in a site. */
function cornersOf(find: (site: SiteFile, id: string) => Outlined | undefined): ShapeActions {
  const shape = (obstacle: Outlined, change: (held: Outlined) => void, gesture = ""): void =>
    edit(
      `Shape ${obstacle.name}`,
      (site) => {
        const held = find(site, obstacle.id);
        if (held) change(held);
      },
      gesture,
    );

  return {
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
}

const corners = cornersOf(obstacleOf);

export function removePrivate(place: PrivatePlace): void {
  edit(`Delete ${place.name}`, (site) => {
    takePrivateOut(site, place.id);
  });
  takePrivate(null);
}

const privatePlaces: PrivateActions = {
  onTake: (place) => takePrivate(place.id),
  onMove: (place, taken, [east, north], gesture) =>
    edit(
      `Move ${place.name}`,
      (site) => {
        const held = privateOf(site, place.id);
        if (held) held.outline = shifted(taken.outline, east, north, 2);
      },
      gesture,
    ),
  onRemove: removePrivate,
};
const privateCorners = cornersOf(privateOf);

export function removeLamp(lamp: Lamp): void {
  edit(`Delete ${lamp.name}`, (site) => {
    takeLampOut(site, lamp.id);
  });
  takeLamp(null);
}

const lamps: LampActions = {
  onTake: (lamp) => takeLamp(lamp.id),
  onMove: (lamp, to, gesture) => edit(`Move ${lamp.name}`, (site) => moveLamp(site, lamp.id, to), gesture),
  onRemove: removeLamp,
};

export const planActions = { lamps, cameras, targets, solids, corners, privatePlaces, privateCorners };
