/** Which two designs lie side by side, if any do. */
import { create } from "zustand";
import { perSite } from "../../../model/perSite";

interface DesignsView {
  /** The ids of the two; null for the design in hand. */
  laid: { left: string | null; right: string | null } | null;
  lay(left: string | null, right: string | null): void;
  close(): void;
}

export const useDesigns = perSite(
  create<DesignsView>((set) => ({
    laid: null,
    lay: (left, right) => set({ laid: { left, right } }),
    close: () => set({ laid: null }),
  })),
);
