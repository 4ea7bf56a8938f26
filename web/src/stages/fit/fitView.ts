/** What is looked at on Fit. */
import { create } from "zustand";

export type FitTool = "day" | "materials" | "settings" | "mount";

interface FitView {
  tool: FitTool;
  /** The camera in hand. */
  camera: string | null;
  set(next: Partial<Pick<FitView, "tool" | "camera">>): void;
}

export const useFitView = create<FitView>((set) => ({ tool: "day", camera: null, set: (next) => set(next) }));
