/** A later picture of a camera held against its reference, by a worker of its own. */
import { solve } from "./solver";
import type { Compared, ProvingRules, SiteFile } from "./types";

export interface ToCompare {
  reference: Blob;
  later: Blob;
  hfovDeg: number;
  limits: Partial<ProvingRules>;
}

/** Rejects with `Refused` for pictures that cannot be compared; with null when nobody waits any more. */
export async function compared(site: SiteFile, asked: ToCompare, signal: AbortSignal): Promise<Compared | null> {
  let found: Compared | null = null;
  const { reference, later, hfovDeg, limits } = asked;
  await solve(
    site,
    [{ kind: "compare", reference, later, hfovDeg, limits: JSON.stringify(limits) }],
    (_, answer) => {
      found = JSON.parse(answer) as Compared;
    },
    signal,
  );
  return found;
}
