/** Wire: runs, plan, riser and what is in hand, all of one network. */
import { useEffect } from "react";
import { useCalm } from "../../core/hand";
import type { SiteFile } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { ToolTabs } from "../../ui/ToolTabs";
import { HeldPanel } from "./HeldPanel";
import { RoutePanel } from "./RoutePanel";
import { Riser } from "./Riser";
import { RunsList } from "./RunsList";
import { SheetPanel } from "./SheetPanel";
import { StorePanel } from "./StorePanel";
import { WirePlan } from "./WirePlan";
import { WiredContext, useWired } from "./wired";
import { type WireTool, useWireView } from "./wireView";
import { finishPath } from "./wireActions";
import "../../ui/panels.css";
import "./wire.css";

const TOOLS: { tool: WireTool; word: string }[] = [
  { tool: "riser", word: "Riser" },
  { tool: "route", word: "Route it for me" },
  { tool: "store", word: "Store" },
  { tool: "sheet", word: "Network sheet" },
];

export function WireScreen() {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const shown = useWired(site);
  // The drawing follows the hand; panels as fast as they are read.
  const calm = useCalm(shown);
  const calmSite = useCalm(site);
  const { tool, set } = useWireView();
  const tall = useSettings((settings) => settings.toolsTall) ?? 300;
  useEffect(() => {
    const leave = (event: KeyboardEvent): void => {
      const { placing } = useWireView.getState();
      if (!placing || event.defaultPrevented) return;
      if (event.key === "Escape") set({ placing: null, drawn: [] });
      if (event.key === "Enter" && placing.what === "path" && event.target === document.body) finishPath();
    };
    window.addEventListener("keydown", leave);
    return () => window.removeEventListener("keydown", leave);
  }, [set]);
  return (
    <div className="wire" data-settled={shown.settled && calm === shown}>
      <div className="wire-columns">
        <WiredContext.Provider value={calm}>
          <RunsList site={calmSite} />
        </WiredContext.Provider>
        <div
          className="wire-middle"
          style={{ gridTemplate: `minmax(0, 1fr) min(${tall}px, 100% - 140px) / minmax(0, 1fr)` }}
        >
          <WiredContext.Provider value={shown}>
            <WirePlan site={site} />
          </WiredContext.Provider>
          <WiredContext.Provider value={calm}>
            <section className="wire-tools" aria-label={TOOLS.find((one) => one.tool === tool)?.word}>
              <ToolTabs tools={TOOLS} chosen={tool} onChoose={(next) => set({ tool: next })} />
              <div className="tool-body">
                {tool === "riser" && <Riser site={calmSite} />}
                {tool === "route" && <RoutePanel site={calmSite} />}
                {tool === "store" && <StorePanel site={calmSite} />}
                {tool === "sheet" && <SheetPanel site={calmSite} />}
              </div>
            </section>
          </WiredContext.Provider>
        </div>
        <WiredContext.Provider value={calm}>
          <HeldPanel site={calmSite} />
        </WiredContext.Provider>
      </div>
    </div>
  );
}
