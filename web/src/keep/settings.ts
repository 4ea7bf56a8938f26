/** What the user prefers on this device: units and light. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Units } from "../core/types";

interface Settings {
  units: Units;
  dark: boolean;
  /** Who takes the readings. */
  surveyor: string;
  set(settings: Partial<Pick<Settings, "units" | "dark" | "surveyor">>): void;
}

export const useSettings = create<Settings>()(
  persist((set) => ({ units: "metres", dark: false, surveyor: "", set }), { name: "bright-angle/settings" }),
);
