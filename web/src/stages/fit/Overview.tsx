/** All cameras at the desk: how far each is, the plan with the order of the day, and what is bought. */
import type { SiteFile, Steps } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { useSite } from "../../keep/store";
import { Told } from "../../ui/Told";
import { ToolTabs } from "../../ui/ToolTabs";
import { fitAddress } from "../../ui/address";
import { DayPanel } from "./DayPanel";
import { FitPlan } from "./FitPlan";
import { MaterialsPanel } from "./MaterialsPanel";
import { MountPanel } from "./MountPanel";
import { SettingsPanel } from "./SettingsPanel";
import { type FitTool, useFitView } from "./fitView";
import { STATES, STATE_WORDS } from "./words";

const TOOLS: { tool: FitTool; word: string }[] = [
  { tool: "day", word: "The day" },
  { tool: "materials", word: "What to bring" },
  { tool: "settings", word: "Settings" },
  { tool: "mount", word: "Mount" },
];

interface Props {
  site: SiteFile;
  steps: Steps[] | null;
  /** Whether they are of the site as it is. */
  settled: boolean;
  /** Whether the address names a camera that is not there. */
  gone: boolean;
}

export function Overview({ site, steps, settled, gone }: Props) {
  const { tool, set } = useFitView();
  const days = useAnswer(site, { ask: "days" }, { by: "surveyor", keeps: true });
  return (
    <div className="fit" data-settled={settled}>
      <CameraList site={site} steps={steps} settled={settled} gone={gone} />
      <div className="fit-middle">
        <FitPlan site={site} steps={steps} days={days.value} />
        <section className="fit-tools" aria-label={TOOLS.find((one) => one.tool === tool)?.word}>
          <ToolTabs tools={TOOLS} chosen={tool} onChoose={(next) => set({ tool: next })} />
          <div className="tool-body">
            {tool === "day" && <DayPanel days={days.value} settled={days.settled} refused={days.refused} />}
            {tool === "materials" && <MaterialsPanel site={site} />}
            {tool === "settings" && <SettingsPanel site={site} />}
            {tool === "mount" && <MountPanel site={site} />}
          </div>
        </section>
      </div>
    </div>
  );
}

function CameraList({ site, steps, settled, gone }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const { camera: inHand, set } = useFitView();
  const closed = steps?.filter(({ state }) => state === "closed").length ?? 0;
  return (
    <section className="promises fit-list" aria-label="Cameras">
      <div className="panel-head">
        <h2>Cameras</h2>
        <span className="figure">{steps ? `${closed} of ${steps.length} closed` : "working …"}</span>
      </div>
      {gone && <p className="hint">There is no such camera any more.</p>}
      {site.cameras.length === 0 && (
        <p className="hint">Each camera gets its card here. There are no cameras yet: they come on the stage Aim.</p>
      )}
      {STATES.map((state) => {
        const here = steps?.filter((one) => one.state === state) ?? [];
        if (here.length === 0) return null;
        return (
          <div key={state} className="fit-state">
            <h3>
              {STATE_WORDS[state]} <span className="figure">{here.length}</span>
            </h3>
            <ul>
              {here.map((one) => (
                <li key={one.camera} className={one.camera === inHand ? "fit-camera fit-camera-in-hand" : "fit-camera"}>
                  <button
                    type="button"
                    className="fit-take"
                    aria-pressed={one.camera === inHand}
                    onClick={() => set({ camera: one.camera })}
                  >
                    <strong>{one.name}</strong>
                    <Told settled={settled} testId={`left-${one.camera}`}>
                      <span className="fine">
                        {one.left === 0 ? "all done" : `${one.left} ${one.left === 1 ? "step" : "steps"} left`}
                        {one.later.length > 0 ? `, ${one.later.length} for later` : ""}
                      </span>
                    </Told>
                  </button>
                  <a href={fitAddress(id, one.camera)} aria-label={`Card of ${one.name}`}>
                    Card
                  </a>
                </li>
              ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}
