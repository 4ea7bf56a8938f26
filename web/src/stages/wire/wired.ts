/** The figures of the wiring as the screen looks them up. */
import { createContext, useContext, useMemo } from "react";
import type { CableTold, LinkTold, NodeTold, RunTold, SiteFile, Wired } from "../../core/types";
import { useAnswer } from "../../core/useAsked";

export interface WiredShown {
  wired: Wired | null;
  /** Whether it is of the site in hand. */
  settled: boolean;
  cables: ReadonlyMap<string, CableTold>;
  nodes: ReadonlyMap<string, NodeTold>;
  runs: ReadonlyMap<string, RunTold>;
  links: ReadonlyMap<string, LinkTold>;
}

const byId = <One>(list: One[] | undefined, id: (one: One) => string): Map<string, One> =>
  new Map(list?.map((one) => [id(one), one]));

/** Asked under a moving hand. */
export function useWired(site: SiteFile): WiredShown {
  const { value, settled } = useAnswer(site, { ask: "wire" }, { rest: "live", keeps: true });
  return useMemo(
    () => ({
      wired: value,
      settled,
      cables: byId(value?.cables, ({ id }) => id),
      nodes: byId(value?.nodes, ({ id }) => id),
      runs: byId(value?.runs, ({ camera }) => camera),
      links: byId(value?.links, ({ cable }) => cable),
    }),
    [value, settled],
  );
}

export const WiredContext = createContext<WiredShown | null>(null);

export function useShown(): WiredShown {
  const shown = useContext(WiredContext);
  if (!shown) throw new Error("outside the Wire stage");
  return shown;
}
