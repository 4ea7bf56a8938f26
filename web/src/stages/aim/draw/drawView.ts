/** What is being drawn: its kind, its points so far, where the hand is. */
import { create } from "zustand";
import type { Obstacle, Point } from "../../../core/types";
import type { Snapped } from "../../../model/snap";
import { BEGINS } from "../../../model/shapes";

interface DrawView {
  kind: Obstacle["kind"];
  closed: boolean;
  top: number;
  points: Point[];
  hand: Snapped | null;
  /** The first corner of the box that selects. */
  corner: Point | null;
  /** The obstacles that were selected together. */
  chosen: string[];
  set(change: Partial<DrawView>): void;
  setKind(kind: Obstacle["kind"]): void;
}

export const useDraw = create<DrawView>((set) => ({
  kind: "building",
  closed: true,
  top: BEGINS.building.top,
  points: [],
  hand: null,
  corner: null,
  chosen: [],
  set,
  setKind: (kind) => set({ kind, closed: BEGINS[kind].closed, top: BEGINS[kind].top }),
}));

/** Whether somebody brings in a drawing. */
export const useBringIn = create<{ open: boolean; show(open: boolean): void }>((set) => ({
  open: false,
  show: (open) => set({ open }),
}));
