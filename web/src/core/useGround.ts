/** What the relief tells about the ground of the site in hand, as somebody looks at it; nothing while nobody does. */
import { useMemo } from "react";
import { type GroundTold, groundWithCounts } from "./reliefs";
import type { GroundWish, SiteFile } from "./types";
import { useAsked } from "./useAsked";

/** While something moves it is told at most so often, ms: nobody reads figures faster, and the hand comes first. */
const AT_MOST = 150;

export interface GroundShown extends GroundTold {
  /** The state of the site that it is of. */
  of: SiteFile;
  wish: GroundWish;
}

interface Of extends GroundTold {
  wish: GroundWish;
}

export function useGround(site: SiteFile, wish: GroundWish | null): GroundShown | null {
  const { value, of } = useAsked<Of | null>(
    site,
    wish && JSON.stringify(wish),
    async (now) => wish && { ...(await groundWithCounts(now, wish)), wish },
    { rest: "live", every: AT_MOST, keeps: true },
  );
  return useMemo(() => (value && of ? { ...value, of } : null), [value, of]);
}
