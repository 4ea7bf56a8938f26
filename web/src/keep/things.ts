/** What a hand does to a thing of a site, each as one step that can be undone. */
import type { Point, SiteFile } from "../core/types";
import { KINDS, type KindName, type ThingOf, thingOf } from "../model/kinds";
import { moveTargetCorner } from "../model/targets";
import { useSite } from "./store";

/** How a step may be called at most, characters. */
const LONGEST = 200;

/** Changes a thing; with `turned` the steps of one gesture are one. */
export type Change<Thing> = (
  says: string,
  recipe: (held: Thing, site: SiteFile) => void,
  turned?: boolean | string,
) => void;

interface Named {
  id: string;
  name?: string;
}

/** Changes of one thing, as its card, its form and its dials make them. */
export function changeOf<Name extends KindName>(kind: Name, { id, name = "" }: Named): Change<ThingOf<Name>> {
  return (says, recipe, turned = false) =>
    useSite.getState().edit(
      (name ? `${says}: ${name}` : says).slice(0, LONGEST),
      (site) => {
        const held = thingOf(site, kind, id);
        if (held) recipe(held, site);
      },
      typeof turned === "string" ? turned : turned ? `${kind}-${says}-${id}` : "",
    );
}

export function removeThing(kind: KindName, { id, name = "" }: Named): void {
  useSite
    .getState()
    .edit(`Delete ${name || KINDS[kind].word}`.slice(0, LONGEST), (site) => KINDS[kind].remove(site, id));
}

/** Makes something out of a thing, as a copy; answers the id of what was made. */
export function madeOf(says: string, { name = "" }: Named, make: (site: SiteFile) => string | null): string | null {
  let made = null as string | null;
  useSite.getState().edit(`${says} ${name}`.slice(0, LONGEST), (site) => {
    made = make(site);
  });
  return made;
}

export function duplicateThing(kind: KindName, thing: Named): string | null {
  const { copy } = KINDS[kind];
  return copy ? madeOf("Duplicate", thing, (site) => copy(site, thing.id)) : null;
}

/** Puts a thing of a kind where a hand drags it. */
export const moveThing =
  (kind: KindName) =>
  (thing: Named, to: Point, gesture: string): void =>
    useSite.getState().edit(`Move ${thing.name ?? ""}`, (site) => KINDS[kind].moveTo?.(site, thing.id, to), gesture);

export const moveSpot = moveThing("spot");

/** What a hand does to targets on any plan. */
export const targetMoves = {
  onMove: moveThing("target"),
  onShape: (target: Named, corner: number, to: Point, gesture: string): void =>
    useSite
      .getState()
      .edit(`Shape ${target.name ?? ""}`, (site) => moveTargetCorner(site, target.id, corner, to), gesture),
};
