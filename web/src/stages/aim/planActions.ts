/** What a hand does on the Aim plan, as edits of the site. */
import type { Outlined, Point, SiteFile } from "../../core/types";
import { useSite } from "../../keep/store";
import { moveThing, removeThing, targetMoves } from "../../keep/things";
import { pointHead } from "../../model/cameras";
import { useInHand } from "../../model/inHand";
import { type KindName, type ThingOf, thingOf } from "../../model/kinds";
import { removeCorner } from "../../model/obstacles";
import { mean, shifted } from "../../model/points";
import { refOf } from "../../model/views";
import type { CameraActions } from "../../plan/layers/CameraMark";
import type { ShapeActions } from "../../plan/layers/Solids";
import type { TargetActions } from "../../plan/layers/TargetMark";
import { snappedCorner } from "./draw/drawing";

const { edit } = useSite.getState();
const { takeTarget, takeHead, take } = useInHand.getState();

interface Named {
  id: string;
  name: string;
}

/** Takes a thing in hand, or out of the site. */
const takenAndRemoved = (kind: KindName) => ({
  onTake: (thing: Named) => take({ kind, id: thing.id }),
  onRemove: (thing: Named) => {
    removeThing(kind, thing);
    take(null);
  },
});

const cameras: CameraActions = {
  onTake: (camera, head) => takeHead(refOf(camera, head)),
  onMove: moveThing("camera"),
  onAim: (camera, head, at, gesture) => edit(`Aim ${camera.name}`, (site) => pointHead(site, head, at), gesture),
};

const targets: TargetActions = { ...targetMoves, onTake: (target) => takeTarget(target.id) };

/** The kinds that have an outline. */
type OutlinedKind = "obstacle" | "private";
type Shape = Outlined & { open_outline?: number[][] | null };

/** How what has an outline is taken, moved as a whole, and taken out. */
function outlineActions<Name extends OutlinedKind>(kind: Name) {
  return {
    ...takenAndRemoved(kind),
    /** Moves it by metres east and north from how it was taken. */
    onMove: (thing: ThingOf<Name>, taken: ThingOf<Name>, [east, north]: Point, gesture: string) =>
      edit(
        `Move ${thing.name}`,
        (site) => {
          const [held, from]: [Shape | undefined, Shape] = [thingOf(site, kind, thing.id), taken];
          if (!held) return;
          held.outline = shifted(from.outline, east, north, 2);
          if (from.open_outline) held.open_outline = shifted(from.open_outline, east, north, 2);
        },
        gesture,
      ),
  };
}

/** How the corners of what has an outline are moved. */
function cornersOf(kind: OutlinedKind): ShapeActions {
  const shape = (thing: Outlined, change: (held: Outlined) => void, gesture = ""): void =>
    edit(
      `Shape ${thing.name}`,
      (site: SiteFile) => {
        const held: Outlined | undefined = thingOf(site, kind, thing.id);
        if (held) change(held);
      },
      gesture,
    );
  return {
    snap: (thing, place, to) => {
      const { open } = useSite.getState();
      return open ? snappedCorner(open.site, thing, place, to) : to;
    },
    onCorner: (thing, place, to, gesture) => shape(thing, (held) => void (held.outline[place] = to), gesture),
    onNewCorner: (thing, side) =>
      shape(thing, ({ outline }) => {
        const ends = [outline[side] ?? [], outline[(side + 1) % outline.length] ?? []];
        outline.splice(side + 1, 0, mean(ends));
      }),
    onRemoveCorner: (thing, place) => shape(thing, (held) => removeCorner(held, place)),
  };
}

export const planActions = {
  cameras,
  targets,
  lamps: { ...takenAndRemoved("lamp"), onMove: moveThing("lamp") },
  solids: outlineActions("obstacle"),
  privatePlaces: outlineActions("private"),
  corners: { obstacle: cornersOf("obstacle"), private: cornersOf("private") },
};
