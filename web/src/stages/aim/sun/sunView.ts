/** What was last told about the sun, for the plan beside the calendar. */
import { create } from "zustand";
import { perSite } from "../../../model/perSite";
import type { HeadRef, SunCalendar } from "../../../core/types";

interface SunView {
  told: { head: HeadRef; calendar: SunCalendar } | null;
  tell(told: SunView["told"]): void;
}

export const useSunView = perSite(create<SunView>((set) => ({ told: null, tell: (told) => set({ told }) })));
