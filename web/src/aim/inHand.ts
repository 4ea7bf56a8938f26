/** What is in hand on the Aim screen: a promise, a head, something to be placed. */
import { create } from "zustand";

export interface HeadInHand {
  camera: string;
  head: string;
}

interface InHand {
  target: string | null;
  head: HeadInHand | null;
  placing: "target" | "camera" | null;
  /** Takes a promise; its best head follows unless one is named. */
  takeTarget(target: string | null, head?: HeadInHand | null): void;
  takeHead(head: HeadInHand | null): void;
  place(what: InHand["placing"]): void;
  drop(): void;
}

export const useInHand = create<InHand>((set) => ({
  target: null,
  head: null,
  placing: null,
  takeTarget: (target, head = null) => set({ target, head, placing: null }),
  takeHead: (head) => set({ head, placing: null }),
  place: (placing) => set({ placing }),
  drop: () => set({ target: null, head: null, placing: null }),
}));
