/**
 * The study of the site in hand, kept up while the site changes under a drag.
 *
 * One request is under way at a time and the newest state goes next, so nothing piles up and most stale
 * states are never computed; a stale one that takes too long is cancelled. What is shown is always a site
 * together with *its* study: for the few milliseconds that an answer takes the pair before it stays; past
 * that the site is shown without figures. An old answer never stands beside a new position.
 */
import { useEffect, useMemo, useState } from "react";
import { type Engine } from "./engine";
import { Away, Refused } from "./http";
import type { Fault, Line, SiteFile, Study } from "./types";

/** How long the pair before may stand in for an answer under way, ms. */
const PATIENCE = 300;
/** How long to wait before a server that was away is asked again, ms. */
const RETRY = 1500;

export interface Shown {
  site: SiteFile;
  /** The sight line in hand. */
  line: Line | null;
  /** The study of exactly this site; null while there is none. Its section may be missing for a moment. */
  study: Study | null;
  /** The server does not answer. */
  away: boolean;
  /** The server refused the site. */
  faults: Fault[] | null;
}

interface Wanted {
  site: SiteFile;
  line: Line | null;
}

/** Works through wanted states, newest first, one at a time. */
export class StudyRunner {
  private wanted: Wanted | null = null;
  private busy: { control: AbortController; wanted: Wanted } | null = null;
  private timer = 0;
  private lost: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly engine: Engine,
    private readonly show: (shown: Shown) => void,
  ) {}

  want(wanted: Wanted): void {
    this.wanted = wanted;
    if (!this.busy) void this.next();
    // Without an answer in time, show where things are and no figures.
    window.clearTimeout(this.timer);
    this.timer = window.setTimeout(() => this.runOut(wanted), PATIENCE);
  }

  private runOut(wanted: Wanted): void {
    if (this.wanted !== wanted) return;
    this.show({ ...wanted, study: null, away: false, faults: null });
    if (this.busy && this.busy.wanted !== wanted) {
      this.busy.control.abort();
      void this.next();
    }
  }

  stop(): void {
    this.wanted = null;
    this.busy?.control.abort();
    window.clearTimeout(this.timer);
    clearTimeout(this.lost);
  }

  private async next(): Promise<void> {
    const wanted = this.wanted;
    if (!wanted) return;
    clearTimeout(this.lost);
    const control = new AbortController();
    this.busy = { control, wanted };
    const outcome = await this.run(wanted, control.signal);
    if (control.signal.aborted) return;
    this.busy = null;
    const newest = this.wanted === wanted;
    if (outcome.study || newest) this.show(outcome);
    if (newest) window.clearTimeout(this.timer);
    if (!newest) void this.next();
    else if (outcome.away) this.lost = setTimeout(() => void this.next(), RETRY);
  }

  private async run(wanted: Wanted, signal: AbortSignal): Promise<Shown> {
    try {
      const study = await this.engine.study(wanted.site, wanted.line, signal);
      return { ...wanted, study, away: false, faults: null };
    } catch (error) {
      if (error instanceof Refused) return { ...wanted, study: null, away: false, faults: error.faults };
      if (error instanceof Away || signal.aborted) return { ...wanted, study: null, away: true, faults: null };
      throw error;
    }
  }
}

export function useStudy(engine: Engine, site: SiteFile, line: Line | null): Shown {
  const [shown, setShown] = useState<Shown>({ site, line, study: null, away: false, faults: null });
  const runner = useMemo(() => new StudyRunner(engine, setShown), [engine]);
  const { camera, head, target } = line ?? {};
  useEffect(() => () => runner.stop(), [runner]);
  useEffect(() => {
    const inHand = camera && head && target ? { camera, head, target } : null;
    runner.want({ site, line: inHand });
  }, [runner, site, camera, head, target]);
  const section = shown.study?.section;
  const ofLine = section?.camera === camera && section?.head === head && section?.target === target;
  return { ...shown, line, study: shown.study && { ...shown.study, section: ofLine ? (section ?? null) : null } };
}
