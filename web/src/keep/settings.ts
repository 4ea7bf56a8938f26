/** What the user prefers on this device. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Units } from "../core/types";

interface Settings {
  units: Units;
  dark: boolean;
  /** Who takes the readings. */
  surveyor: string;
  /** How tall the tools under the plan are, px; null as usual. */
  toolsTall: number | null;
  /** Names of models that were taken, by what they were taken for, the last first. */
  taken: Record<string, string[]>;
  /** Whether the first steps were gone through. */
  led: boolean;
  set(settings: Partial<Pick<Settings, "units" | "dark" | "surveyor" | "toolsTall" | "taken" | "led">>): void;
}

export const useSettings = create<Settings>()(
  persist((set) => ({ units: "metres", dark: false, surveyor: "", toolsTall: null, taken: {}, led: false, set }), {
    name: "bright-angle/settings",
  }),
);
