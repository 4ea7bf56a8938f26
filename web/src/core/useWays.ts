/** The ways to keep the sight line in hand, asked once the site has come to rest. */
import { useEffect, useState } from "react";
import { askAgain } from "./again";
import { onceAtRest } from "./hand";
import { core } from "./port";
import type { Line, SiteFile, Units, Ways } from "./types";

/** How long the site must rest before ways are asked for, ms. */
const REST = 180;

export type WaysState = { kind: "none" } | { kind: "asking" } | { kind: "found"; ways: Ways };

const NONE: WaysState = { kind: "none" };
const ASKING: WaysState = { kind: "asking" };

export function useWays(site: SiteFile, line: Line | null, wanted: boolean, units: Units): WaysState {
  const { camera, head, view, target } = line ?? {};
  const key = wanted && camera && head && target ? `${camera}/${head}/${view ?? ""}/${target}/${units}` : "";
  const [answer, setAnswer] = useState<{ site: SiteFile; key: string; state: WaysState } | null>(null);
  useEffect(() => {
    if (!key || !camera || !head || !target) return;
    let current = true;
    const callOff = onceAtRest(REST, () => {
      askAgain(
        () => core.ways(site, { camera, head, view: view ?? null, target }, units),
        () => current,
      )
        .then((ways) => current && ways && setAnswer({ site, key, state: { kind: "found", ways } }))
        // A site that makes no sense has no ways: the screen says so elsewhere.
        .catch(() => undefined);
    });
    return () => {
      current = false;
      callOff();
      core.dropWays();
    };
  }, [site, camera, head, view, target, units, key]);
  if (!key) return NONE;
  return answer && answer.site === site && answer.key === key ? answer.state : ASKING;
}
