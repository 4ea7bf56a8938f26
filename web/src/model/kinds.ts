/**
 * The kinds of things that a site holds, each in a list of its own: how one is called, comes, is moved, copied and goes. Whoever adds a
 * list to the site file adds a kind here: one that is forgotten does not compile. How a kind looks on a stage is the stage's.
 */
import { type ListName, type Lists, listOf } from "../core/lists";
import type { Point, SiteFile } from "../core/types";
import { duplicateCamera, moveCamera, removeCamera } from "./cameras";
import { removeDesign } from "./designs";
import { addLamp, moveLamp, removeLamp } from "./lamps";
import { moveNode, removeCable, removeNode, removePath } from "./network";
import { addObstacle, duplicateObstacle, removeObstacle } from "./obstacles";
import { removePrivate } from "./privatePlaces";
import { removeReading } from "./readings";
import { addSpot, moveSpot, removeSpot } from "./spots";
import { addTarget, duplicateTarget, moveTargetTo, removeTarget } from "./targets";

interface Kind<List extends ListName> {
  list: List;
  /** What one is called. */
  word: string;
  /** Adds a usual one at a place; answers its id. */
  add?: (site: SiteFile, at: Point) => string;
  /** Puts it at a place. What has an outline is moved with it by the stage. */
  moveTo?: (site: SiteFile, id: string, to: Point) => void;
  /** Adds a copy beside it; answers the copy's id. */
  copy?: (site: SiteFile, id: string) => string | null;
  /** Takes it out, with what is nothing without it. */
  remove: (site: SiteFile, id: string) => void;
}
const kind = <List extends ListName>(of: Kind<List>): Kind<List> => of;

export const KINDS = {
  target: kind({
    list: "targets",
    word: "target",
    add: addTarget,
    moveTo: moveTargetTo,
    copy: duplicateTarget,
    remove: removeTarget,
  }),
  camera: kind({ list: "cameras", word: "camera", moveTo: moveCamera, copy: duplicateCamera, remove: removeCamera }),
  obstacle: kind({
    list: "obstacles",
    word: "obstacle",
    add: addObstacle,
    copy: duplicateObstacle,
    remove: removeObstacle,
  }),
  private: kind({ list: "private", word: "private place", remove: removePrivate }),
  lamp: kind({ list: "lamps", word: "lamp", add: addLamp, moveTo: moveLamp, remove: removeLamp }),
  spot: kind({ list: "spots", word: "spot", add: addSpot, moveTo: moveSpot, remove: removeSpot }),
  reading: kind({ list: "readings", word: "reading", remove: removeReading }),
  node: kind({ list: "nodes", word: "box", moveTo: moveNode, remove: removeNode }),
  cable: kind({ list: "cables", word: "cable", remove: removeCable }),
  path: kind({ list: "ways", word: "cable way", remove: removePath }),
  design: kind({ list: "variants", word: "design", remove: removeDesign }),
};

export type KindName = keyof typeof KINDS;
/** A thing of a kind, as the site file has it. */
export type ThingOf<Name extends KindName> = Lists[(typeof KINDS)[Name]["list"]];
/** A thing by its kind and id. */
export interface ThingRef<Name extends KindName = KindName> {
  kind: Name;
  id: string;
}

/** Compiles only while there is none: a list that no kind has is an error here. What was agreed, tried out and kept is in nobody's hand. */
type None<Left extends never> = Left;
export type Forgotten = None<
  Exclude<ListName, (typeof KINDS)[KindName]["list"] | "agreements" | "proofs" | "snapshots" | "visits">
>;

/** A thing by its kind and id, if the site has it. */
export function thingOf<Name extends KindName>(site: SiteFile, name: Name, id: string): ThingOf<Name> | undefined {
  const { list }: { list: (typeof KINDS)[Name]["list"] } = KINDS[name];
  return listOf(site, list).find((thing: { id: string }) => thing.id === id);
}
