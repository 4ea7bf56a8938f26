/** What the relief tells about the ground of the site in hand, as somebody looks at it; nothing while nobody does. */
import { useEffect, useMemo, useState } from "react";
import { Latest } from "./latest";
import { type GroundTold, core } from "./port";
import type { GroundWish, SiteFile } from "./types";

/** While something moves it is told at most so often, ms. */
const AT_MOST = 150;

export interface GroundShown extends GroundTold {
  /** The state of the site that it is of. */
  of: SiteFile;
  wish: GroundWish;
}

interface Wish {
  site: SiteFile;
  wish: GroundWish;
}

export function useGround(site: SiteFile, wish: GroundWish | null): GroundShown | null {
  const [shown, setShown] = useState<GroundShown | null>(null);
  const runner = useMemo(
    () =>
      new Latest<Wish, GroundTold | null>(
        ({ site: of, wish: asked }) => core.ground(of, asked),
        ({ site: of, wish: asked }, told) => told && setShown({ ...told, of, wish: asked }),
        // Nobody reads figures faster, and the hand comes first.
        (took) => Math.max(AT_MOST - took, took),
      ),
    [],
  );
  useEffect(() => () => runner.stop(), [runner]);
  useEffect(() => {
    if (wish) runner.want({ site, wish });
  }, [runner, site, wish]);
  return wish ? shown : null;
}
