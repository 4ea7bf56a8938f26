/** Whether the list of keys and words is open. */
import { create } from "zustand";

export const useHelp = create<{ open: boolean; show(open: boolean): void }>((set) => ({
  open: false,
  show: (open) => set({ open }),
}));
