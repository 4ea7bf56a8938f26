/** The cards of heads and their pictures, one after the other. */
import { type PictureShown, picture } from "../../../core/pictures";
import { ask } from "../../../core/port";
import { type Asked, useAsked } from "../../../core/useAsked";
import type { Card, HeadRef, Light, SiteFile } from "../../../core/types";
import { keyOf } from "../../../model/views";
import { sensorOf } from "../picture/pictureView";

export interface CardShown {
  card: Card;
  picture: PictureShown | null;
}

/** Width of a picture on paper, px; a tall one is as tall. */
const WIDE = 720;

/** What is known so far, by the heads' keys; `heads` is JSON, so that equal lists are the same one. */
export function useCards(site: SiteFile, heads: string, light: Light): Asked<ReadonlyMap<string, CardShown>> {
  const lit = JSON.stringify(light);
  return useAsked<ReadonlyMap<string, CardShown>>(
    site,
    `${heads}/${lit}`,
    async (of, soFar) => {
      const shown = new Map<string, CardShown>();
      for (const head of JSON.parse(heads) as HeadRef[]) {
        const [card, seen] = await Promise.all([ask(of, { ask: "card", head }, "surveyor"), pictureOf(of, head, lit)]);
        shown.set(keyOf(head), { card, picture: seen });
        if (!soFar(new Map(shown))) break;
      }
      return shown;
    },
    { rest: "live" },
  );
}

async function pictureOf(site: SiteFile, head: HeadRef, light: string): Promise<PictureShown | null> {
  const [across, down] = sensorOf(site, head) ?? [1, 1];
  const width = Math.round(across >= down ? WIDE : (WIDE * across) / down);
  const wish = {
    window: { whole: { width } },
    light: JSON.parse(light) as Light,
    grid: false,
    samples: 2,
    shutter_s: 0,
  };
  return picture(site, head, wish, "sheet");
}
