/** What is looked at on the Wire stage: the tool under the plan, and what the next taps put down. */
import { create } from "zustand";
import type { NodeKind, Point } from "../../core/types";
import { perSite } from "../../model/perSite";

export type WireTool = "riser" | "route" | "store" | "sheet";

/** What taps on the plan do: put a box down, join two ends with a cable, draw a way corner by corner. */
export type WirePlacing = { what: "node"; kind: NodeKind } | { what: "cable"; from: string | null } | { what: "path" };

interface WireView {
  tool: WireTool;
  placing: WirePlacing | null;
  /** The corners of the way that is being drawn. */
  drawn: Point[];
  /** Cameras that would be lost with the link or box that is looked at. */
  set(change: Partial<Pick<WireView, "tool" | "placing" | "drawn">>): void;
}

export const useWireView = perSite(
  create<WireView>((set) => ({
    tool: "riser",
    placing: null,
    drawn: [],
    set,
  })),
);
