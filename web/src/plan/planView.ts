/** The view of the plan, which its stages share. */
import { create } from "zustand";
import type { PlanView } from "./view";

interface PlanStore extends PlanView {
  set(view: Partial<PlanView>): void;
}

export const usePlanView = create<PlanStore>((set) => ({ centre: [0, 0], scale: 8, size: [0, 0], set }));
