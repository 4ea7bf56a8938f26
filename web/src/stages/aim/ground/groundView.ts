/** How the ground is looked at: the need that counts as seen, what is asked about it, where the least-seen route leads. */
import { useMemo } from "react";
import { create } from "zustand";
import { perSite } from "../../../model/perSite";
import type { GroundWish, Point, SiteFile } from "../../../core/types";
import { useLower } from "../lowerView";
import { middle, targetOf } from "../../../model/lookups";

interface GroundView {
  need: number;
  height: number;
  /** Where the least-seen route leads: a target by its id, or a place. */
  goal: string | Point | null;
  /** The place that is asked about. */
  asked: Point | null;
  /** Whether the plan shows how many see each place, in place of nothing. */
  counting: boolean;
  set(change: Partial<GroundView>): void;
}

export const useGroundView = perSite(
  create<GroundView>((set) => ({
    need: 25,
    height: 1.6,
    goal: null,
    asked: null,
    counting: false,
    set,
  })),
);

/** What is asked about the ground of a site; nothing while nobody looks at it. */
export function useGroundWish(site: SiteFile): GroundWish | null {
  const { need, height, goal } = useGroundView();
  const looking = useLower((state) => state.tool === "ground");
  const target = typeof goal === "string" ? targetOf(site, goal) : undefined;
  const at = target ? middle(target) : Array.isArray(goal) ? goal : null;
  const [x, y] = at ?? [];
  return useMemo(
    () =>
      looking
        ? { need_px_per_m: need, height_m: height, goal: x === undefined || y === undefined ? null : [x, y] }
        : null,
    [looking, need, height, x, y],
  );
}
