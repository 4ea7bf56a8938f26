/**
 * A question about the site in hand, as every panel asks it: when it may be asked, who answers, what stands on screen meanwhile. What
 * is told is told with the state that it is of.
 */
import { useEffect, useMemo, useRef, useState } from "react";
import { Asker, type Heard, type Wish } from "./asker";
import type { Hand } from "./hands";
import { useStock } from "./stock";
import { ask, callOff } from "./port";
import type { AnswerTo, Ask, Fault, SiteFile } from "./types";

/** How long the site must rest before it is asked, ms. */
const REST = 200;

export interface When {
  /** How long the site must rest, ms; or it is asked at once, under a moving hand too: one at a time, the newest next. */
  rest?: number | "live";
  /** While live: answers are told at most so often, ms, and the worker rests as long as it worked. */
  every?: number;
  /** The answer to the question before stands, marked as behind, until there is one to this. */
  keeps?: boolean;
}

export interface Asked<T> {
  /** The newest answer to this very question; of `of`, which may be a state before the one in hand. Null while there is none. */
  value: T | null;
  of: SiteFile | null;
  /** Whether the answer is of exactly this site and question. */
  settled: boolean;
  /** Why this site has no answer, with the places; */
  faults: Fault[] | null;
  /** the first of them in words. */
  refused: string | null;
}

/** Asks one question of the core. Null asks nothing. What falls over is asked again by itself. */
export function useAnswer<Question extends Ask>(
  site: SiteFile,
  question: Question | null,
  { by = "hand", ...when }: When & { by?: Hand } = {},
): Asked<AnswerTo<Question>> {
  const asked = useAsked(
    site,
    question && JSON.stringify(question),
    // Null is never asked.
    (of) => ask(of, question as Question, by),
    when,
  );
  const wanted = question !== null;
  useEffect(() => {
    if (wanted) return () => callOff(by);
  }, [site, wanted, by]);
  return asked;
}

/**
 * Asks what takes several questions, or pixels. `question` names what is asked beside the site (the head, the year, the units, …): an
 * answer to another one is never shown as this one's. `ask` may tell what it has so far, and hears whether anybody still waits: else
 * it ends.
 */
export function useAsked<T>(
  site: SiteFile,
  asked: string | null,
  ask: Wish<T>["ask"],
  { rest = REST, every = 0, keeps = false }: When = {},
): Asked<T> {
  const stock = useStock();
  const question = asked && `${asked}/${stock}`;
  const [heard, setHeard] = useState<Heard<T> | null>(null);
  const [fault, setFault] = useState<{ wish: Wish<T>; faults: Fault[] } | null>(null);
  const latest = useRef(ask);
  useEffect(() => {
    latest.current = ask;
  });
  const asker = useMemo(() => new Asker<T>(every, setHeard, setFault), [every]);
  useEffect(() => () => asker.stop(), [asker]);
  useEffect(() => {
    if (question === null) return;
    const wish: Wish<T> = { site, question, ask: latest.current };
    return rest === "live" ? asker.askNow(wish) : asker.askAtRest(wish, rest);
  }, [asker, site, question, rest]);
  const mine = heard && (keeps ? question !== null : heard.wish.question === question) ? heard : null;
  const same = (wish: Wish<T>): boolean => wish.site === site && wish.question === question;
  const faults = fault && same(fault.wish) ? fault.faults : null;
  return {
    value: mine?.value ?? null,
    of: mine?.wish.site ?? null,
    settled: mine !== null && mine.whole && same(mine.wish),
    faults,
    refused: faults && (faults[0]?.message ?? "It makes no sense."),
  };
}
