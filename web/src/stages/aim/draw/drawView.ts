/** What is being drawn: its kind, its points so far, where the hand is. */
import { create } from "zustand";
import { perSite } from "../../../model/perSite";
import type { Obstacle, Point } from "../../../core/types";
import type { Snapped } from "../../../model/snap";
import { privateBegins } from "../../../model/privatePlaces";
import { obstacleBegins } from "../../../model/shapes";

/** What is drawn: an obstacle of a kind, or a private place. */
export type DrawKind = Obstacle["kind"] | "private";

/** How it begins. */
export function beginsAs(kind: DrawKind, closed: boolean | null = null): { closed: boolean; top: number } {
  if (kind === "private") return { closed: closed ?? true, top: privateBegins(closed ?? true).top_m };
  const begins = obstacleBegins(kind);
  return { closed: begins.closed, top: begins.top_m };
}

interface DrawView {
  kind: DrawKind;
  closed: boolean;
  top: number;
  points: Point[];
  hand: Snapped | null;
  /** The first corner of the box that selects. */
  corner: Point | null;
  /** The obstacles that were selected together. */
  chosen: string[];
  set(change: Partial<DrawView>): void;
  setKind(kind: DrawKind): void;
}

export const useDraw = perSite(
  create<DrawView>((set) => ({
    kind: "building",
    ...beginsAs("building"),
    points: [],
    hand: null,
    corner: null,
    chosen: [],
    set,
    setKind: (kind) => set({ kind, ...beginsAs(kind) }),
  })),
);

/** Whether somebody brings in a drawing. */
export const useBringIn = perSite(
  create<{ open: boolean; show(open: boolean): void }>((set) => ({
    open: false,
    show: (open) => set({ open }),
  })),
);
