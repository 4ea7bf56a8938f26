/** Takes what a drawing brings into the site: the layers that were chosen, as what they are said to be, moved to where they belong. */
import type { Import, Obstacle, Point, SiteFile } from "../core/types";
import { setKind } from "./obstacles";
import { freshId, plain, roundPoint, shifted } from "./points";
import { addSpot } from "./spots";
import { addTarget } from "./targets";

export interface LayerChoice {
  name: string;
  taken: boolean;
  kind: Obstacle["kind"];
  /** Height of its tops, m; null for what the drawing says. */
  top: number | null;
}

/** What a measured point of a drawing becomes. */
export type PointIs = "spot" | "target";

export interface PointChoices {
  /** What each point becomes, in the drawing's order; null for one that is left out. */
  as: (PointIs | null)[];
  /** The height over the ground that the drawing counts heights from, m: where the rangefinder stood. */
  zero: number;
}

/** How the points of a drawing begin: left out until somebody says what they are. */
export const pointsOf = (brought: Import): PointChoices => ({ as: brought.points.map(() => null), zero: 0 });

/** How the layers of a drawing begin: all taken, as what their names say. */
export const choicesOf = (brought: Import): LayerChoice[] =>
  brought.layers.map(({ name, kind }) => ({ name, taken: true, kind, top: null }));

/** How many obstacles the chosen layers bring. */
export function countOf(brought: Import, choices: LayerChoice[]): number {
  const taken = new Set(choices.filter((choice) => choice.taken).map((choice) => choice.name));
  return brought.layers.reduce((sum, layer) => sum + (taken.has(layer.name) ? layer.obstacles.length : 0), 0);
}

/** Adds the chosen layers, moved by metres east and north; answers their new ids. */
export function bringIn(site: SiteFile, brought: Import, choices: LayerChoice[], [east, north]: Point): string[] {
  site.obstacles ??= [];
  const held = site.obstacles;
  const ids: string[] = [];
  for (const choice of choices.filter((one) => one.taken)) {
    for (const obstacle of brought.layers.find((layer) => layer.name === choice.name)?.obstacles ?? []) {
      const made = structuredClone(plain(obstacle));
      made.id = freshId("o", held);
      made.outline = shifted(made.outline, east, north, 3);
      if (choice.top !== null) made.top_m = Math.max(choice.top, (made.base_m ?? 0) + 0.01);
      setKind(made, choice.kind);
      held.push(made);
      ids.push(made.id);
    }
  }
  return ids;
}

/** Adds the chosen points as spots and targets, at their heights, moved by metres east and north. */
export function bringInPoints(site: SiteFile, brought: Import, { as, zero }: PointChoices, [east, north]: Point): void {
  brought.points.forEach((point, place) => {
    const is = as[place];
    if (!is) return;
    const [x = 0, y = 0] = point.at;
    const at = roundPoint([x + east, y + north]);
    const height = Math.round((point.height_m + zero) * 1000) / 1000;
    const id = is === "spot" ? addSpot(site, at) : addTarget(site, at);
    const made = is === "spot" ? site.spots?.find((spot) => spot.id === id) : site.targets.find((t) => t.id === id);
    if (!made) return;
    // What lies lower than that stands on ground that does.
    made.height_m = Math.max(height, 0);
    if (height < 0) made.ground_m = height;
    if (point.name) made.name = point.name;
  });
}
