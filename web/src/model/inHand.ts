/** What is in hand: a promise and the head that looks at it, a thing beside them, something to be placed. */
import { create } from "zustand";
import { perSite } from "./perSite";
import type { HeadRef } from "../core/types";
import type { ThingRef } from "./kinds";

/** What the next tap on the plan does: puts a thing of a kind down, draws or selects, or points at a place. */
export type Placing = "target" | "camera" | "obstacle" | "lamp" | "why" | "goal" | "draw" | "box";

export interface InHand {
  target: string | null;
  head: HeadRef | null;
  /** What is in hand beside the sight line: an obstacle, a lamp, a private place. */
  thing: ThingRef | null;
  placing: Placing | null;
  /** Takes a promise; its best head follows unless one is named. */
  takeTarget(target: string | null, head?: HeadRef | null): void;
  takeHead(head: HeadRef | null): void;
  take(thing: ThingRef | null): void;
  place(what: Placing | null): void;
}

const free = { placing: null, thing: null };

export const useInHand = perSite(
  create<InHand>((set) => ({
    target: null,
    head: null,
    ...free,
    takeTarget: (target, head = null) => set({ ...free, target, head }),
    takeHead: (head) => set({ ...free, head }),
    take: (thing) => set({ ...free, thing }),
    place: (placing) => set({ ...free, placing }),
  })),
);
