/** Spots: places that a camera could sit, in the order of the walk. */
import { Button, InputNumber } from "antd";
import { useState } from "react";
import type { Point, SiteFile, Spot } from "../../engine/types";
import { TargetMark } from "../../plan/TargetMark";
import { goTo, stepAddress } from "../../shell/route";
import { useSettings } from "../../shell/settings";
import { freshId, removeSpot, roundPoint } from "../../site/edits";
import { useSite } from "../../site/store";
import { Measure, length } from "../../units/Measure";
import { formatLength } from "../../units/length";
import { ChoiceField, Field, TextField, YesNoField } from "../Field";
import { Photos } from "../photos/Photos";
import { SurveyPlan } from "../SurveyPlan";
import { SpotMark } from "./SpotMark";
import { WalkList, moved } from "./WalkList";

const KINDS = [
  ["inside_corner", "Inside corner"], ["soffit", "Soffit"], ["wall", "Wall"], ["pole", "Pole"], ["parapet", "Parapet"], ["ceiling", "Ceiling"], ["tree", "Tree"],
] as const;

export function SpotsStep({ site, item }: { site: SiteFile; item: string | null }) {
  const [adding, setAdding] = useState(false);
  const id = useSite((state) => state.open?.id) ?? "";
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const spots = site.spots ?? [];
  const choose = (spot: string | null): void => goTo(stepAddress(id, "spots", spot));
  const add = (at: Point): void => {
    let made = "";
    edit("Add a spot", (draft) => {
      draft.spots ??= [];
      made = freshId("s", [...draft.spots, ...draft.targets]);
      draft.spots.push({ id: made, name: `Spot ${draft.spots.length + 1}`, position: roundPoint(at), height_m: 3 });
    });
    setAdding(false);
    choose(made);
  };
  return (
    <section className="walk" aria-label="Spots">
      <SurveyPlan site={site} tapping={adding ? "Tap where a camera could sit." : null} onTap={add}>
        {(view) => (
          <>
            {site.targets.map((target) => <TargetMark key={target.id} view={view} target={target} verdict={null} inHand={false} />)}
            {spots.map((spot, place) => <SpotMark key={spot.id} view={view} spot={spot} place={place} inHand={spot.id === item} onChoose={() => choose(spot.id)} />)}
          </>
        )}
      </SurveyPlan>
      <div className="form-page">
        <h1>Spots</h1>
        <p className="fine">Where a camera could sit. Inside corners see two walls; the best spot usually faces the target. Look for concealed pipes and cables before anybody drills.</p>
        <WalkList
          items={spots} inHand={item} what="Spot" onChoose={choose} detail={(spot) => `${KINDS.find(([kind]) => kind === spot.kind)?.[1] ?? "kind not said"} · ${formatLength(spot.height_m, units)} up`}
          onMove={(place, by) => edit("Change the order of the walk", (draft) => { draft.spots = moved(draft.spots ?? [], place, by); })} form={(spot) => <SpotForm spot={spot} />}
        />
        <Button size="large" type={spots.length === 0 ? "primary" : "default"} onClick={() => setAdding(true)} disabled={adding}>Add a spot</Button>
      </div>
    </section>
  );
}

function SpotForm({ spot }: { spot: Spot }) {
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const set = (change: (spot: Spot) => void, field: string): void =>
    edit(`${spot.name}: ${field}`.slice(0, 200), (site) => { const held = site.spots?.find((s) => s.id === spot.id); if (held) change(held); }, `spot-${spot.id}-${field}`);
  const remove = (): void => edit(`Delete ${spot.name}`, (site) => removeSpot(site, spot.id));
  return (
    <>
      <TextField name="name" label="Name" value={spot.name} onChange={(v) => v && set((s) => { s.name = v; }, "name")} />
      <ChoiceField name="kind" label="Kind" needed value={spot.kind} options={KINDS} onChange={(kind) => set((s) => { s.kind = kind; }, "kind")} />
      <TextField name="surface" label="Surface" needed value={spot.surface} onChange={(v) => set((s) => { s.surface = v ?? null; }, "surface")} hint="Brick, render, steel cladding, timber … A mount holds five times the weight of camera and bracket." />
      <div className="dials dials-big">
        <Measure label="Height available" value={spot.height_m} quantity={length(units)} min={0} max={500} onChange={(v) => set((s) => { s.height_m = v; }, "height")} />
      </div>
      <YesNoField name="back_box" label="Back box needed" needed value={spot.back_box} onChange={(v) => set((s) => { s.back_box = v; }, "back box")} />
      <YesNoField name="outdoor" label="Outdoors" needed value={spot.outdoor} onChange={(v) => set((s) => { s.outdoor = v; }, "outdoors")} />
      <YesNoField name="in_reach" label="A hand can reach it" needed value={spot.in_reach} onChange={(v) => set((s) => { s.in_reach = v; }, "reach")} hint="Then a vandal-resistant housing, or higher up: at least 2.4 m." />
      <Field name="cable_m" label={`Cable way to the recorder, ${units === "feet" ? "ft" : "m"}`} needed hint="An estimate will do.">
        <InputNumber
          aria-label="Cable way to the recorder" size="large" min={0} max={100000} changeOnWheel={false} value={spot.cable_m == null ? null : Number((spot.cable_m / (units === "feet" ? 0.3048 : 1)).toFixed(1))}
          onChange={(v) => set((s) => { if (v === null) delete s.cable_m; else s.cable_m = Number((v * (units === "feet" ? 0.3048 : 1)).toFixed(4)); }, "cable way")}
        />
      </Field>
      <TextField name="note" label="Note" lines={2} value={spot.note} onChange={(v) => set((s) => { s.note = v ?? null; }, "note")} />
      <Photos owner={{ kind: "spot", id: spot.id }} photos={spot.photos ?? []} name={spot.name} />
      <Button danger onClick={remove}>Delete this spot</Button>
    </>
  );
}
