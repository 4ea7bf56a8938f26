/** What is in hand: a promise, a head, an obstacle, something to be placed. */
import { create } from "zustand";
import { perSite } from "./perSite";
import type { HeadRef } from "../core/types";

interface InHand {
  target: string | null;
  head: HeadRef | null;
  obstacle: string | null;
  /** A private place. */
  privatePlace: string | null;
  lamp: string | null;
  /** What the next tap on the plan does: puts something down, or points at a place. */
  placing: "target" | "camera" | "obstacle" | "lamp" | "why" | "goal" | "draw" | "box" | null;
  /** Takes a promise; its best head follows unless one is named. */
  takeTarget(target: string | null, head?: HeadRef | null): void;
  takeHead(head: HeadRef | null): void;
  /** Takes an obstacle, beside the sight line in hand. */
  takeObstacle(obstacle: string | null): void;
  /** Takes a private place, beside the sight line in hand. */
  takePrivate(place: string | null): void;
  /** Takes a lamp, beside the sight line in hand. */
  takeLamp(lamp: string | null): void;
  place(what: InHand["placing"]): void;
}

const free = { placing: null, obstacle: null, privatePlace: null, lamp: null };

export const useInHand = perSite(
  create<InHand>((set) => ({
    target: null,
    head: null,
    ...free,
    takeLamp: (lamp) => set({ ...free, lamp }),
    takeTarget: (target, head = null) => set({ ...free, target, head }),
    takeHead: (head) => set({ ...free, head }),
    takeObstacle: (obstacle) => set({ ...free, obstacle }),
    takePrivate: (privatePlace) => set({ ...free, privatePlace }),
    place: (placing) => set({ ...free, placing }),
  })),
);
