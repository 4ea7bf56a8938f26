/** Walls that are paced out and not drawn yet, by site: they outlast a look elsewhere and a reload, until the window is closed. */
import { create } from "zustand";
import { createJSONStorage, persist } from "zustand/middleware";
import type { Leg } from "./corners";

interface Paced {
  legs: Leg[];
  closed: boolean;
}

export const NOTHING_PACED: Paced = { legs: [], closed: true };

interface Store {
  paced: Record<string, Paced>;
  pace(site: string, paced: Paced): void;
}

export const usePaced = create<Store>()(
  persist(
    (set, get) => ({
      paced: {},
      pace: (site, paced) => set({ paced: { ...get().paced, [site]: paced } }),
    }),
    { name: "bright-angle/paced", storage: createJSONStorage(() => sessionStorage) },
  ),
);
