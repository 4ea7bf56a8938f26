/** Spots: places that a camera could sit, in the order of the walk. */
import { Button } from "antd";
import { useMemo, useState } from "react";
import type { Point, SiteFile, Spot, Target } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { changeOf, moveSpot, removeThing, targetMoves } from "../../../keep/things";
import { addSpot } from "../../../model/spots";
import { SpotMark } from "../../../plan/layers/SpotMark";
import { TargetMark } from "../../../plan/layers/TargetMark";
import { ChoiceField, Field, TextField, YesNoField } from "../../../ui/Field";
import { Dial } from "../../../ui/Dial";
import { length } from "../../../ui/Measure";
import { goTo, stepAddress } from "../../../ui/address";
import { formatLength } from "../../../ui/length";
import { SurveyPlan } from "../SurveyPlan";
import { Photos } from "../../../ui/photos/Photos";
import { WalkList, moved } from "./WalkList";
import { isNeeded } from "./plainTasks";

const KINDS = [
  ["inside_corner", "Inside corner"],
  ["soffit", "Soffit"],
  ["wall", "Wall"],
  ["pole", "Pole"],
  ["parapet", "Parapet"],
  ["ceiling", "Ceiling"],
  ["tree", "Tree"],
] as const;

export function SpotsStep({ site, item }: { site: SiteFile; item: string | null }) {
  const [adding, setAdding] = useState(false);
  const id = useSite((state) => state.open?.id) ?? "";
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const spots = site.spots ?? [];
  const choose = (spot: string | null): void => goTo(stepAddress(id, "spots", spot));
  const actions = useMemo(
    () => ({ ...targetMoves, onTake: (target: Target) => goTo(stepAddress(id, "targets", target.id)) }),
    [id],
  );
  const add = (at: Point): void => {
    let made = "";
    edit("Add a spot", (draft) => {
      made = addSpot(draft, at);
    });
    setAdding(false);
    choose(made);
  };
  return (
    <section className="walk" aria-label="Spots">
      <SurveyPlan site={site} tapping={adding ? "Tap where a camera could sit." : null} onTap={add}>
        {(view) => (
          <>
            {site.targets.map((target) => (
              <TargetMark key={target.id} view={view} target={target} verdict={null} inHand={false} actions={actions} />
            ))}
            {spots.map((spot, place) => (
              <SpotMark
                key={spot.id}
                view={view}
                spot={spot}
                place={place}
                inHand={spot.id === item}
                onChoose={() => choose(spot.id)}
                onMove={moveSpot}
              />
            ))}
          </>
        )}
      </SurveyPlan>
      <div className="form-page">
        <h1>Spots</h1>
        <p className="fine">
          Where a camera could sit. Inside corners see two walls; the best spot usually faces the target. Look for
          concealed pipes and cables before anybody drills.
        </p>
        <WalkList
          items={spots}
          inHand={item}
          what="Spot"
          onChoose={choose}
          detail={(spot) =>
            `${KINDS.find(([kind]) => kind === spot.kind)?.[1] ?? "kind not stated"} · ${formatLength(spot.height_m, units)} up`
          }
          onMove={(place, by) =>
            edit("Change the order of the walk", (draft) => {
              draft.spots = moved(draft.spots ?? [], place, by);
            })
          }
          form={(spot) => <SpotForm spot={spot} />}
        />
        <Button
          size="large"
          type={spots.length === 0 ? "primary" : "default"}
          onClick={() => setAdding(true)}
          disabled={adding}
        >
          Add a spot
        </Button>
      </div>
    </section>
  );
}

/** What was there before, and what becomes of it. */
const WAS = [
  ["new", "New"],
  ["stays", "There, stays"],
  ["reused", "There, used again"],
  ["goes", "There, goes"],
] as const;

function SpotForm({ spot }: { spot: Spot }) {
  const needed = (field: string): { name: string; needed: boolean } => ({
    name: field,
    needed: isNeeded("spot", field),
  });
  const units = useSettings((settings) => settings.units);
  const change = changeOf("spot", spot);
  // What is typed into one field is one step.
  const typing = (field: string): string => `spot-${spot.id}-${field}`;
  return (
    <>
      <TextField
        name="name"
        label="Name"
        value={spot.name}
        onChange={(v) => v && change("Name", (s) => void (s.name = v), typing("name"))}
      />
      <ChoiceField
        {...needed("kind")}
        label="Kind"
        value={spot.kind}
        options={KINDS}
        onChange={(kind) => change("Kind", (s) => void (s.kind = kind), typing("kind"))}
      />
      <TextField
        {...needed("surface")}
        label="Surface"
        value={spot.surface}
        onChange={(v) => change("Surface", (s) => void (s.surface = v ?? null), typing("surface"))}
        hint="Brick, render, steel cladding, timber … A mount holds five times the weight of camera and bracket."
      />
      <div className="dials dials-big">
        <Dial
          change={change}
          of={spot.id}
          label="Height available"
          value={spot.height_m}
          quantity={length(units)}
          min={0}
          max={500}
          set={(s, value) => (s.height_m = value)}
        />
        <Dial
          change={change}
          of={spot.id}
          label="Ground at its foot"
          value={spot.ground_m ?? 0}
          quantity={length(units)}
          min={-100}
          max={500}
          hint="Over the plan's zero: a step, a ramp, a dock. The height above is over it"
          set={(s, value) => {
            if (value === 0) delete s.ground_m;
            else s.ground_m = value;
          }}
        />
      </div>
      <YesNoField
        {...needed("back_box")}
        label="Back box needed"
        value={spot.back_box}
        onChange={(v) => change("Back box", (s) => void (s.back_box = v), typing("back box"))}
      />
      <ChoiceField
        name="existing"
        label="Hole and box"
        value={spot.existing ?? "new"}
        options={WAS}
        onChange={(v) =>
          change(
            "What becomes of the spot",
            (s) => {
              if (v === "new") delete s.existing;
              else s.existing = v;
            },
            typing("existing"),
          )
        }
      />
      <YesNoField
        {...needed("outdoor")}
        label="Outdoors"
        value={spot.outdoor}
        onChange={(v) => change("Outdoors", (s) => void (s.outdoor = v), typing("outdoors"))}
      />
      <YesNoField
        {...needed("in_reach")}
        label="A hand can reach it"
        value={spot.in_reach}
        onChange={(v) => change("Reach", (s) => void (s.in_reach = v), typing("reach"))}
        hint="Then a vandal-resistant housing, or higher up: at least 2.4 m."
      />
      <Field {...needed("cable_m")} label="Cable way to the recorder" hint="An estimate will do.">
        <div className="dials dials-big">
          <Dial
            change={change}
            of={spot.id}
            label="Length of the way"
            value={spot.cable_m ?? null}
            empty={{
              word: "not stated",
              set: (s) => {
                delete s.cable_m;
              },
            }}
            quantity={length(units)}
            min={0}
            max={100000}
            set={(s, value) => (s.cable_m = value)}
          />
        </div>
      </Field>
      <TextField
        name="note"
        label="Note"
        lines={2}
        value={spot.note}
        onChange={(v) => change("Note", (s) => void (s.note = v ?? null), typing("note"))}
      />
      <Photos owner={{ kind: "spot", id: spot.id }} photos={spot.photos ?? []} name={spot.name} />
      <Button danger onClick={() => removeThing("spot", spot)}>
        Delete this spot
      </Button>
    </>
  );
}
