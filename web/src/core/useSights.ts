/**
 * What the Aim screen shows of the site in hand. Geometry is drawn from the site as it is now; figures come from the pair of
 * an answer and the state that it is of. While those two differ the figures stand, marked as being worked out; never is an
 * answer told as that of another state.
 */
import { useEffect, useMemo, useState } from "react";
import { Fallen, Refused } from "./errors";
import { Latest } from "./latest";
import { core } from "./port";
import type { Fault, HeadRef, Line, Sights, SiteFile } from "./types";

interface Wish {
  site: SiteFile;
  target: string | null;
  camera: string | null;
  head: string | null;
  view: string | null;
}

interface Answer {
  sights: Sights | null;
  faults: Fault[] | null;
}

/** The core as this hook asks it. */
export type AskSights = (site: SiteFile, target: string | null, head: HeadRef | null) => Promise<Sights>;

export interface Shown {
  /** The site as it is now. */
  site: SiteFile;
  /** The sight line in hand. */
  line: Line | null;
  /** The newest figures; of `of`, which may be a state before this one. */
  sights: Sights | null;
  /** The state that the figures are of. */
  of: SiteFile | null;
  /** Whether the figures are of exactly this site, and of the line in hand. */
  settled: boolean;
  /** Why there are no figures of this site. */
  faults: Fault[] | null;
}

export async function sightsOf(ask: AskSights, { site, target, camera, head, view }: Wish): Promise<Answer> {
  try {
    return { sights: await ask(site, target, camera && head ? { camera, head, view } : null), faults: null };
  } catch (error) {
    if (error instanceof Fallen) throw error;
    const faults = error instanceof Refused ? error.faults : [{ path: "", message: String(error) }];
    return { sights: null, faults };
  }
}

export function useSights(
  site: SiteFile,
  target: string | null,
  inHand: HeadRef | null,
  ask: AskSights = core.sights,
): Shown {
  const { camera = null, head = null, view = null } = inHand ?? {};
  const [told, setTold] = useState<{ wish: Wish; answer: Answer; sights: Sights | null; of: SiteFile | null } | null>(
    null,
  );
  const runner = useMemo(
    () =>
      new Latest<Wish, Answer>(
        (wish) => sightsOf(ask, wish),
        // A refused state gives no figures: those before it stay, marked as not of it.
        (wish, answer) =>
          setTold((before) => ({
            wish,
            answer,
            sights: answer.sights ?? before?.sights ?? null,
            of: answer.sights ? wish.site : (before?.of ?? null),
          })),
      ),
    [ask],
  );
  useEffect(() => () => runner.stop(), [runner]);
  useEffect(() => runner.want({ site, target, camera, head, view }), [runner, site, target, camera, head, view]);
  const line = useMemo(
    () => (target && camera && head ? { camera, head, view, target } : null),
    [target, camera, head, view],
  );
  const same =
    told?.wish.site === site &&
    told.wish.target === target &&
    told.wish.camera === camera &&
    told.wish.head === head &&
    told.wish.view === view;
  return useMemo(
    () => ({
      site,
      line,
      sights: told?.sights ?? null,
      of: told?.of ?? null,
      settled: same && told.answer.sights !== null,
      faults: same ? told.answer.faults : null,
    }),
    [site, line, told, same],
  );
}
