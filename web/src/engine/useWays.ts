/** The ways to keep the sight line in hand, asked once the site has come to rest. */
import { useEffect, useState } from "react";
import type { Engine } from "./engine";
import { Away } from "./http";
import type { Line, SiteFile, Units, Ways } from "./types";

/** How long the site must rest before ways are asked for, ms. */
const REST = 180;

export type WaysState = { kind: "none" } | { kind: "asking" } | { kind: "away" } | { kind: "found"; ways: Ways };

export function useWays(engine: Engine, site: SiteFile, line: Line | null, wanted: boolean, units: Units): WaysState {
  const { camera, head, target } = line ?? {};
  const key = wanted && camera && head && target ? `${camera}/${head}/${target}/${units}` : "";
  const [answer, setAnswer] = useState<{ site: SiteFile; key: string; state: WaysState } | null>(null);
  useEffect(() => {
    if (!key || !camera || !head || !target) return;
    const control = new AbortController();
    const timer = window.setTimeout(() => {
      engine
        .ways(site, { camera, head, target }, units, control.signal)
        .then((ways) => setAnswer({ site, key, state: { kind: "found", ways } }))
        .catch((error: unknown) => {
          if (!control.signal.aborted && error instanceof Away) setAnswer({ site, key, state: { kind: "away" } });
        });
    }, REST);
    return () => {
      window.clearTimeout(timer);
      control.abort();
    };
  }, [engine, site, camera, head, target, units, key]);
  if (!key) return { kind: "none" };
  return answer && answer.site === site && answer.key === key ? answer.state : { kind: "asking" };
}
