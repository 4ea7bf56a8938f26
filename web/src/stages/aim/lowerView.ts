/** What lies under the plan. */
import { create } from "zustand";

export type Tab = "section" | "beside" | "lane" | "night" | "sun" | "ground" | "designs";

export const useLower = create<{ tab: Tab; turn(to: Tab): void }>((set) => ({
  tab: "section",
  turn: (tab) => set({ tab }),
}));
