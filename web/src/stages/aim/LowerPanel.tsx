/** Under the plan: the section along the sight line, two pictures of the promise, what the relief tells about the ground, or the designs. */
import { Segmented } from "antd";
import { memo, useCallback, useState } from "react";
import type { GroundShown } from "../../core/useGround";
import type { Shown } from "../../core/useSights";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { DesignsPanel } from "./designs/DesignsPanel";
import { GroundPanel } from "./ground/GroundPanel";
import { useGroundView } from "./ground/groundView";
import { BesideView } from "./picture/BesideView";
import { SectionView, sectionTitle } from "./section/SectionView";

type Tab = "section" | "beside" | "ground" | "designs";

const LABELS: Record<Tab, string> = {
  section: "Section along the sight line",
  beside: "Two pictures side by side",
  ground: "Ground",
  designs: "Designs",
};

const TITLES = {
  beside: "The same promise in two pictures",
  ground: "What the relief tells",
  designs: "On the same promises",
};

interface Props {
  /** Under the hand: the section follows it. */
  shown: Shown;
  /** As it is read: for what has words and figures. */
  calm: Shown;
  ground: GroundShown | null;
}

export function LowerPanel({ shown, calm, ground }: Props) {
  const { looking, set } = useGroundView();
  const units = useSettings((settings) => settings.units);
  const [other, setOther] = useState<"section" | "beside" | "designs">("section");
  const tab: Tab = looking ? "ground" : other;
  const turn = useCallback(
    (to: Tab): void => {
      set({ looking: to === "ground" });
      if (to !== "ground") setOther(to);
      const { placing, place } = useInHand.getState();
      if (to !== "ground" && (placing === "why" || placing === "goal")) place(null);
    },
    [set],
  );
  return (
    <section className="section" aria-label={LABELS[tab]}>
      <div className="panel-head">
        <Tabs tab={tab} turn={turn} />
        <h2>{tab === "section" ? sectionTitle(shown) : TITLES[tab]}</h2>
      </div>
      {tab === "ground" && <GroundPanel site={calm.site} ground={ground} units={units} />}
      {tab === "designs" && <DesignsPanel site={calm.site} />}
      {tab === "beside" && <BesideView shown={calm} />}
      {tab === "section" && <SectionView shown={shown} />}
    </section>
  );
}

const Tabs = memo(function Tabs({ tab, turn }: { tab: Tab; turn(to: Tab): void }) {
  return (
    <Segmented
      size="small"
      aria-label="Under the plan"
      value={tab}
      options={[
        { value: "section", label: "Section" },
        { value: "beside", label: "Beside" },
        { value: "ground", label: "Ground" },
        { value: "designs", label: "Designs" },
      ]}
      onChange={turn}
    />
  );
});
