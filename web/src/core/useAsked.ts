/** A question about the site in hand: asked once the hand rests, and told with the state that its answer is of. */
import { useEffect, useRef, useState } from "react";
import { askAgain } from "./again";
import { Refused } from "./errors";
import { onceAtRest } from "./hand";
import type { SiteFile } from "./types";

/** How long the site must rest before it is asked, ms; with 0 it is asked at once, under a hand too. */
const REST = 200;

export interface Asked<T> {
  /** The newest answer to this very question; of `of`, which may be a state before the one in hand. Null while there is none. */
  value: T | null;
  of: SiteFile | null;
  /** Whether the answer is of exactly this site. */
  settled: boolean;
  /** Why this site has no answer. */
  refused: string | null;
}

/**
 * `question` names what is asked beside the site (the head, the year, the units, …): an answer to another one is never shown. Null
 * asks nothing. `ask` may tell what it has so far, and hears whether anybody still waits: else it ends. What falls over is asked again
 * by itself.
 */
export function useAsked<T>(
  site: SiteFile,
  question: string | null,
  ask: (site: SiteFile, soFar: (value: T) => boolean) => Promise<T>,
  rest = REST,
): Asked<T> {
  const [told, setTold] = useState<{ of: SiteFile; question: string; value: T; whole: boolean } | null>(null);
  const [fault, setFault] = useState<{ of: SiteFile; question: string; says: string } | null>(null);
  const latest = useRef(ask);
  useEffect(() => {
    latest.current = ask;
  });
  useEffect(() => {
    if (question === null) return;
    let current = true;
    const tell = (value: T, whole: boolean): boolean => {
      if (current) setTold({ of: site, question, value, whole });
      return current;
    };
    const run = (): void => {
      askAgain(
        () => latest.current(site, (value) => tell(value, false)),
        () => current,
      ).then(
        (value) => void tell(value, true),
        (error: unknown) => {
          const says = error instanceof Refused ? (error.faults[0]?.message ?? error.message) : String(error);
          if (current) setFault({ of: site, question, says });
        },
      );
    };
    const callOff = rest > 0 ? onceAtRest(rest, run) : run();
    return () => {
      current = false;
      callOff?.();
    };
  }, [site, question, rest]);
  const mine = told && told.question === question ? told : null;
  return {
    value: mine?.value ?? null,
    of: mine?.of ?? null,
    settled: mine !== null && mine.of === site && mine.whole,
    refused: fault && fault.of === site && fault.question === question ? fault.says : null,
  };
}
