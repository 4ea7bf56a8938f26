/** Prove: what was promised against what hangs there. Walk tests, the cameras' pictures over the years, and what is due. */
import type { SiteFile } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { useSite } from "../../keep/store";
import { ToolTabs } from "../../ui/ToolTabs";
import { type ProveStep, goTo, proveAddress } from "../../ui/address";
import { PicturesPanel } from "./PicturesPanel";
import { UpkeepPanel } from "./UpkeepPanel";
import { TrainerPanel } from "./TrainerPanel";
import { WalkPanel } from "./WalkPanel";
import "../../ui/panels.css";
import "../../pictures/pictures.css";
import "./prove.css";

const STEPS: { tool: ProveStep; word: string }[] = [
  { tool: "walk", word: "Walk test" },
  { tool: "pictures", word: "Pictures" },
  { tool: "upkeep", word: "Upkeep" },
  { tool: "trainer", word: "Trainer" },
];

export function ProveScreen({ step, item }: { step: string | null; item: string | null }) {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const id = useSite((state) => state.open?.id) ?? "";
  const away = useSite((state) => state.open?.saving.kind === "away");
  const chosen = STEPS.find((one) => one.tool === step)?.tool ?? "walk";
  const proved = useAnswer(site, { ask: "proved" }, { by: "surveyor", keeps: true });
  return (
    <div className="prove" data-settled={proved.settled}>
      <div className="no-print prove-tabs">
        <ToolTabs tools={STEPS} chosen={chosen} onChoose={(next) => goTo(proveAddress(id, next))} />
      </div>
      {away && (
        <div className="notice" role="status">
          The server does not answer. Go on: tests and pictures stay on this device and are sent when it is back.
        </div>
      )}
      {proved.refused && (
        <div className="notice notice-bad" role="alert">
          This makes no sense together: {proved.refused}. Undo takes it back.
        </div>
      )}
      {chosen === "walk" && <WalkPanel site={site} proved={proved.value} settled={proved.settled} item={item} />}
      {chosen === "pictures" && (
        <PicturesPanel site={site} proved={proved.value} settled={proved.settled} item={item} />
      )}
      {chosen === "upkeep" && <UpkeepPanel site={site} item={item} />}
      {chosen === "trainer" && <TrainerPanel site={site} />}
    </div>
  );
}
