/** Takes what a drawing brings into the site: the layers that were chosen, as what they are said to be, moved to where they belong. */
import type { Import, Obstacle, Point, SiteFile } from "../core/types";
import { setKind } from "./obstacles";
import { freshId, plain, shifted } from "./points";

export interface LayerChoice {
  name: string;
  taken: boolean;
  kind: Obstacle["kind"];
  /** Height of its tops, m; null for what the drawing says. */
  top: number | null;
}

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
