/** Under the plan: the section along the sight line, two pictures of the promise, what the relief tells about the ground, or the designs. */
import { Segmented } from "antd";
import { Suspense, lazy, memo, useCallback } from "react";
import { useCalm } from "../../core/hand";
import type { GroundShown } from "../../core/useGround";
import type { Shown } from "../../core/useSights";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { targetOf } from "../../model/lookups";
import { DesignsPanel } from "./designs/DesignsPanel";
import { GroundPanel } from "./ground/GroundPanel";
import { useGroundView } from "./ground/groundView";
import { LanePanel } from "./lane/LanePanel";
import { type Tab, useLower } from "./lowerView";
import { NightPanel } from "./night/NightPanel";
import { usePictureLook } from "./picture/pictureView";
import { BesideView } from "./picture/BesideView";
import { SectionView, sectionTitle } from "./section/SectionView";

const LABELS: Record<Tab, string> = {
  section: "Section along the sight line",
  beside: "Two pictures side by side",
  lane: "The plate on its way",
  night: "Night",
  sun: "Sun",
  ground: "Ground",
  designs: "Designs",
};

const TITLES = {
  beside: "The same promise in two pictures",
  lane: "Where the plate reads on its way",
  night: "What lamps and infrared light do",
  sun: "When the sun stands in the picture",
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
  const { tab: other, turn: setOther } = useLower();
  const { target } = useCalm(useInHand());
  const isPlate = target !== null && targetOf(calm.site, target)?.subject === "plate";
  const held: Tab = other === "lane" && !isPlate ? "section" : other;
  const tab: Tab = looking ? "ground" : held;
  const turn = useCallback(
    (to: Tab): void => {
      set({ looking: to === "ground" });
      // The picture is by night while the night is looked at, and as the site is judged after that.
      if (to === "night") usePictureLook.getState().set({ night: true });
      else if (tab === "night") usePictureLook.getState().set({ night: calm.site.conditions?.night ?? false });
      if (to !== "ground") setOther(to);
      const { placing, place } = useInHand.getState();
      if (to !== "ground" && (placing === "why" || placing === "goal")) place(null);
    },
    [set, setOther, tab, calm.site.conditions?.night],
  );
  return (
    <section className="section" aria-label={LABELS[tab]}>
      <div className="panel-head">
        <Tabs tab={tab} plate={isPlate} turn={turn} />
        <h2>{tab === "section" ? sectionTitle(shown) : TITLES[tab]}</h2>
      </div>
      {tab === "ground" && <GroundPanel site={calm.site} ground={ground} units={units} />}
      {tab === "designs" && <DesignsPanel site={calm.site} />}
      {tab === "beside" && <BesideView shown={calm} />}
      {tab === "lane" && <LanePanel shown={shown} calm={calm} />}
      {tab === "night" && <NightPanel site={calm.site} />}
      {tab === "sun" && (
        <Suspense fallback={<p className="hint">Working …</p>}>
          <SunPanel site={calm.site} />
        </Suspense>
      )}
      {tab === "section" && <SectionView shown={shown} />}
    </section>
  );
}

const SunPanel = lazy(() => import("./sun/SunPanel").then((module) => ({ default: module.SunPanel })));

const Tabs = memo(function Tabs({ tab, plate, turn }: { tab: Tab; plate: boolean; turn(to: Tab): void }) {
  return (
    <Segmented
      size="small"
      aria-label="Under the plan"
      value={tab}
      options={[
        { value: "section", label: "Section" },
        { value: "beside", label: "Beside" },
        ...(plate ? [{ value: "lane" as const, label: "Lane" }] : []),
        { value: "night", label: "Night" },
        { value: "sun", label: "Sun" },
        { value: "ground", label: "Ground" },
        { value: "designs", label: "Designs" },
      ]}
      onChange={turn}
    />
  );
});
