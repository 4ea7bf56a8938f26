/** What is looked at on Prove. */
import { create } from "zustand";
import { perSite } from "../../model/perSite";

interface ProveView {
  /** By night, or by day. */
  night: boolean;
  /** The day that upkeep is told for, as in `2027-05-30`; today where nobody chose another. */
  on: string | null;
  set(next: Partial<Pick<ProveView, "night" | "on">>): void;
}

export const useProveView = perSite(create<ProveView>((set) => ({ night: false, on: null, set: (next) => set(next) })));

/** Today, by the clock on this device's wall. */
export function today(): string {
  const now = new Date();
  const two = (figure: number): string => String(figure).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
