/** The cards of heads and their pictures, one after the other. */
import { useEffect, useState } from "react";
import { type PictureShown, core } from "../../../core/port";
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
export function useCards(site: SiteFile, heads: string, light: Light): ReadonlyMap<string, CardShown> {
  const [shown, setShown] = useState<ReadonlyMap<string, CardShown>>(new Map());
  const lit = JSON.stringify(light);
  useEffect(() => {
    let current = true;
    const put = (key: string, card: CardShown): void => {
      if (current) setShown((held) => new Map(held).set(key, card));
    };
    const work = async (): Promise<void> => {
      for (const head of JSON.parse(heads) as HeadRef[]) {
        if (!current) return;
        const [card, picture] = await Promise.all([core.card(site, head), pictureOf(site, head, lit)]);
        put(keyOf(head), { card, picture });
      }
    };
    void work().catch(() => undefined);
    return () => {
      current = false;
    };
  }, [site, heads, lit]);
  return shown;
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
  return core.picture(site, head, wish, "sheet");
}
