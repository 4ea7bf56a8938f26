/** Questions about the offer, each with the type of its answer: they are answered by the core that has the solver in it. */
import { solve } from "./solver";
import { stockNow } from "./stock";
import type { OfferAnswer, OfferAsk, SiteFile } from "./types";

type Answers = {
  [Name in OfferAsk["ask"]]: OfferAnswer extends infer One
    ? One extends Record<Name, infer Given>
      ? Given
      : never
    : never;
};
/** The type of the answer to a question about the offer. */
export type OfferTo<Question extends OfferAsk> = Answers[Question["ask"]];

/** Answers a question. Rejects with `Refused`; with null when nobody waits any more. */
export async function askOffer<Question extends OfferAsk>(
  site: SiteFile,
  question: Question,
  signal: AbortSignal,
  onShare?: (share: number) => void,
): Promise<OfferTo<Question> | null> {
  let found: OfferTo<Question> | null = null;
  await solve(
    site,
    [{ kind: "offer", ask: JSON.stringify(question), own: stockNow().models }],
    (_, answer) => {
      found = JSON.parse(answer) as OfferTo<Question>;
    },
    signal,
    (_, share) => onShare?.(share),
  );
  return found;
}
