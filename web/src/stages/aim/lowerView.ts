/** Which tool lies under the plan. */
import { create } from "zustand";
import { perSite } from "../../model/perSite";
import type { ToolId } from "./tools";

interface Lower {
  tool: ToolId;
  /** The one before it, to go back to. */
  before: ToolId;
}

export const useLower = perSite(create<Lower>(() => ({ tool: "section", before: "section" })));
