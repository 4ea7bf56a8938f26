/** Edits of private places. */
import { GUIDE } from "../core/guide";
import type { Point, SiteFile, Upright } from "../core/types";
import { freshId, rounded } from "./points";

/** How a private place begins: filled, all that happens over a piece of ground; else upright, a window. */
export const privateBegins = (closed: boolean): Upright =>
  closed ? GUIDE.begins.private_ground : GUIDE.begins.private_window;

/** Adds what was drawn. */
export function addPrivate(site: SiteFile, points: Point[], closed: boolean, top: number): string {
  site.private ??= [];
  const id = freshId("n", site.private);
  site.private.push({
    id,
    name: `${closed ? "Private ground" : "Private window"} ${site.private.length + 1}`,
    outline: points.map(([x, y]) => [rounded(x, 3), rounded(y, 3)]),
    closed,
    base_m: Math.min(privateBegins(closed).base_m, top - 0.05),
    top_m: top,
  });
  return id;
}

export function removePrivate(site: SiteFile, id: string): void {
  const left = (site.private ?? []).filter((place) => place.id !== id);
  if (left.length > 0) site.private = left;
  else delete site.private;
}
