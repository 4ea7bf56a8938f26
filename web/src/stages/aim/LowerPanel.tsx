/** Under the plan: the section along the sight line, what the relief tells about the ground, or the designs. */
import { Segmented } from "antd";
import { useState } from "react";
import type { GroundShown } from "../../core/useGround";
import type { Shown } from "../../core/useSights";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { DesignsPanel } from "./designs/DesignsPanel";
import { GroundPanel } from "./ground/GroundPanel";
import { useGroundView } from "./ground/groundView";
import { SectionView, sectionTitle } from "./section/SectionView";

type Tab = "section" | "ground" | "designs";

const LABELS: Record<Tab, string> = {
  section: "Section along the sight line",
  ground: "Ground",
  designs: "Designs",
};

export function LowerPanel({ shown, ground }: { shown: Shown; ground: GroundShown | null }) {
  const { looking, set } = useGroundView();
  const { placing, place } = useInHand();
  const units = useSettings((settings) => settings.units);
  const [designs, setDesigns] = useState(false);
  const tab: Tab = looking ? "ground" : designs ? "designs" : "section";
  const turn = (to: Tab): void => {
    set({ looking: to === "ground" });
    setDesigns(to === "designs");
    if (to !== "ground" && (placing === "why" || placing === "goal")) place(null);
  };
  return (
    <section className="section" aria-label={LABELS[tab]}>
      <div className="panel-head">
        <Segmented
          size="small"
          aria-label="Under the plan"
          value={tab}
          options={[
            { value: "section", label: "Section" },
            { value: "ground", label: "Ground" },
            { value: "designs", label: "Designs" },
          ]}
          onChange={turn}
        />
        <h2>
          {tab === "ground"
            ? "What the relief tells"
            : tab === "designs"
              ? "On the same promises"
              : sectionTitle(shown)}
        </h2>
      </div>
      {tab === "ground" && <GroundPanel site={shown.site} ground={ground} units={units} />}
      {tab === "designs" && <DesignsPanel site={shown.site} />}
      {tab === "section" && <SectionView shown={shown} />}
    </section>
  );
}
