/** Which tool lies under the plan, and whether it fills the middle, with the plan beside it. */
import { create } from "zustand";
import { perSite } from "../../model/perSite";
import type { ToolId } from "./tools";

interface Lower {
  tool: ToolId;
  /** The one before it, to go back to. */
  before: ToolId;
  fills: boolean;
}

export const useLower = perSite(create<Lower>(() => ({ tool: "section", before: "section", fills: false })));

/** Lets the tool fill the middle, or puts it back under the plan. */
export const toggleFill = (): void => useLower.setState(({ fills }) => ({ fills: !fills }));
