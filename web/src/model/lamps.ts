/** Edits of lamps. */
import { GUIDE } from "../core/guide";
import type { Lamp, Point, SiteFile } from "../core/types";
import { freshId, rounded } from "./points";

export const lampOf = (site: SiteFile, id: string): Lamp | undefined => site.lamps?.find((lamp) => lamp.id === id);

export function addLamp(site: SiteFile, [x, y]: Point): string {
  site.lamps ??= [];
  const id = freshId("l", site.lamps);
  site.lamps.push({
    id,
    name: `Lamp ${site.lamps.length + 1}`,
    position: [rounded(x, 2), rounded(y, 2)],
    ...GUIDE.begins.lamp,
  });
  return id;
}

export function moveLamp(site: SiteFile, id: string, [x, y]: Point): void {
  const lamp = lampOf(site, id);
  if (lamp) lamp.position = [rounded(x, 2), rounded(y, 2)];
}

export function removeLamp(site: SiteFile, id: string): void {
  const left = (site.lamps ?? []).filter((lamp) => lamp.id !== id);
  if (left.length > 0) site.lamps = left;
  else delete site.lamps;
}
