/** The picture of a head: coarse while something moves, fine once it rests. */
import { useEffect, useMemo, useState } from "react";
import { onceAtRest, useHand } from "./hand";
import { Fallen } from "./errors";
import { Latest } from "./latest";
import type { Slot } from "./hands";
import { type PictureShown, picture } from "./pictures";
import type { HeadRef, PictureWish, SiteFile } from "./types";

/** How long everything must rest before the fine picture is worked out, ms. */
const REST = 160;
/** Samples to a side of a pixel in the fine one. */
const FINE = 2;

interface Wish {
  site: SiteFile;
  head: HeadRef;
  wish: PictureWish;
  /** What was asked for, as JSON. */
  asked: string;
  pace: Pace;
}

export interface PictureState extends PictureShown {
  /** The state of the site, the head and the wish that it is of. */
  of: Wish;
}

/** Whom a picture follows: the hand that drags it, somebody who reads it while a hand drags something else, or only what rests. */
export type Pace = "hand" | "reader" | "rest";
/** How long it pauses then, as a share of how long one takes. */
const PAUSES: Record<Pace, number> = { hand: 0.25, reader: 1.5, rest: 1.5 };

type Asked = Omit<PictureWish, "samples">;

/** Pixels of the sensor shown one by one are few: mixed finer, for what moves. */
const FINEST = 4;
const samplesOf = (wish: Asked): number => ("loupe" in wish.window ? FINEST : FINE);

/**
 * `asked` is JSON of what is wished for, so that equal wishes are the same; `slot` keeps two pictures that are shown at once apart.
 */
export function usePicture(
  site: SiteFile,
  head: HeadRef | null,
  asked: string | null,
  slot: Slot,
  pace: Pace,
): { shown: PictureState | null; settled: boolean } {
  const [shown, setShown] = useState<PictureState | null>(null);
  const runner = useMemo(
    () =>
      new Latest<Wish, PictureShown | null>(
        ({ site: of, head: by, wish }) => picture(of, by, wish, slot),
        (of, had) => setShown(had && { ...had, of }),
        (took, { pace: by }) => took * PAUSES[by],
        // A head that has no picture shows none.
        (_, error) => error instanceof Fallen || setShown(null),
      ),
    [slot],
  );
  useEffect(() => () => runner.stop(), [runner]);
  useEffect(() => {
    if (!head || !asked) return;
    const wish = JSON.parse(asked) as Asked;
    if (pace !== "rest" || !useHand.getState().holds)
      runner.want({ site, head, pace, asked, wish: { ...coarse(wish), samples: 1 } });
    return onceAtRest(REST, () =>
      runner.want({ site, head, pace, asked, wish: { ...wish, samples: samplesOf(wish) } }),
    );
  }, [runner, site, head, asked, pace]);
  const of = shown?.of;
  const mine = of !== undefined && head !== null && asked !== null && of.head === head;
  return { shown: mine ? shown : null, settled: mine && of.site === site && of.asked === asked && of.wish.samples > 1 };
}

/** Half as wide: four times as fast. */
function coarse(wish: Asked): Asked {
  return "whole" in wish.window
    ? { ...wish, window: { whole: { width: Math.ceil(wish.window.whole.width / 2) } } }
    : wish;
}
