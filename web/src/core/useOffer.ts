/** An answer about the offer that follows the site: asked when the hand rests, kept and marked until the next is there. */
import { useEffect, useState } from "react";
import { Fallen, Refused } from "./errors";
import { type OfferTo, askOffer } from "./offer";
import { useStock } from "./stock";
import type { OfferAsk, SiteFile } from "./types";

/** How long the hand has to rest, ms. */
const REST = 250;
/** So often what fell over is asked again. */
const TRIES = 3;

export interface Offered<Answer> {
  value: Answer | null;
  /** Whether it is of the site as it is. */
  settled: boolean;
  refused: string | null;
}

export function useOffer<Question extends OfferAsk>(site: SiteFile, question: Question): Offered<OfferTo<Question>> {
  const asked = JSON.stringify(question);
  const stock = useStock();
  const [told, setTold] = useState<{
    of: SiteFile;
    asked: string;
    stock: number;
    value: OfferTo<Question> | null;
    refused: string | null;
  } | null>(null);
  useEffect(() => {
    const stop = new AbortController();
    const gone = (): boolean => stop.signal.aborted;
    const begin = async (): Promise<void> => {
      for (let tries = 1; !gone(); tries++) {
        try {
          const value = await askOffer(site, JSON.parse(asked) as Question, stop.signal);
          if (value !== null && !gone()) setTold({ of: site, asked, stock, value, refused: null });
          return;
        } catch (error) {
          if (gone()) return;
          if (error instanceof Fallen && tries < TRIES) continue;
          const refused = error instanceof Refused ? (error.faults[0]?.message ?? "refused") : (error as Error).message;
          setTold((held) => ({ of: site, asked, stock, value: held?.value ?? null, refused }));
          return;
        }
      }
    };
    const wait = setTimeout(() => void begin(), REST);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [site, asked, stock]);
  const same = told?.asked === asked;
  return {
    value: same ? told.value : null,
    settled: same && told.of === site && told.stock === stock,
    refused: same && told.of === site ? told.refused : null,
  };
}
