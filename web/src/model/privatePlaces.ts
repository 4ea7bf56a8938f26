/** Edits of private places. */
import type { Point, SiteFile } from "../core/types";
import { freshId, rounded } from "./points";

/** How a private place begins: filled, all that happens over a piece of ground; else upright, a window. Our own, usual heights. */
export const PRIVATE_BEGINS = {
  filled: { base: 0, top: 2 },
  upright: { base: 0.9, top: 2.2 },
};

/** Adds what was drawn. */
export function addPrivate(site: SiteFile, points: Point[], closed: boolean, top: number): string {
  site.private ??= [];
  const id = freshId("n", site.private);
  const { base } = closed ? PRIVATE_BEGINS.filled : PRIVATE_BEGINS.upright;
  site.private.push({
    id,
    name: `${closed ? "Private ground" : "Private window"} ${site.private.length + 1}`,
    outline: points.map(([x, y]) => [rounded(x, 3), rounded(y, 3)]),
    closed,
    base_m: Math.min(base, top - 0.05),
    top_m: top,
  });
  return id;
}

export function removePrivate(site: SiteFile, id: string): void {
  const left = (site.private ?? []).filter((place) => place.id !== id);
  if (left.length > 0) site.private = left;
  else delete site.private;
}
