/** Spots: places that a camera could sit, in the order of the walk. */
import { Button } from "antd";
import { useMemo, useState } from "react";
import type { Point, SiteFile, Spot } from "../../../core/types";
import { useGuide } from "../../../core/useStock";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { addSpot, removeSpot } from "../../../model/spots";
import { SpotMark } from "../../../plan/layers/SpotMark";
import { TargetMark } from "../../../plan/layers/TargetMark";
import { ChoiceField, Field, TextField, YesNoField } from "../../../ui/Field";
import { Measure, length } from "../../../ui/Measure";
import { goTo, stepAddress } from "../../../ui/address";
import { formatLength } from "../../../ui/length";
import { SurveyPlan } from "../SurveyPlan";
import { Photos } from "../photos/Photos";
import { WalkList, moved } from "./WalkList";
import { isNeeded } from "./plainTasks";
import { moveSpotOnPlan, targetActions } from "./planActions";

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
  const actions = useMemo(() => targetActions((target) => goTo(stepAddress(id, "targets", target.id))), [id]);
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
                onMove={moveSpotOnPlan}
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
            `${KINDS.find(([kind]) => kind === spot.kind)?.[1] ?? "kind not said"} · ${formatLength(spot.height_m, units)} up`
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

function SpotForm({ spot }: { spot: Spot }) {
  const guide = useGuide();
  const needed = (field: string): { name: string; needed: boolean } => ({
    name: field,
    needed: isNeeded(guide, "spot", field),
  });
  const edit = useSite((state) => state.edit);
  const units = useSettings((settings) => settings.units);
  const set = (change: (spot: Spot) => void, field: string): void =>
    edit(
      `${spot.name}: ${field}`.slice(0, 200),
      (site) => {
        const held = site.spots?.find((s) => s.id === spot.id);
        if (held) change(held);
      },
      `spot-${spot.id}-${field}`,
    );
  const remove = (): void => edit(`Delete ${spot.name}`, (site) => removeSpot(site, spot.id));
  return (
    <>
      <TextField
        name="name"
        label="Name"
        value={spot.name}
        onChange={(v) =>
          v &&
          set((s) => {
            s.name = v;
          }, "name")
        }
      />
      <ChoiceField
        {...needed("kind")}
        label="Kind"
        value={spot.kind}
        options={KINDS}
        onChange={(kind) =>
          set((s) => {
            s.kind = kind;
          }, "kind")
        }
      />
      <TextField
        {...needed("surface")}
        label="Surface"
        value={spot.surface}
        onChange={(v) =>
          set((s) => {
            s.surface = v ?? null;
          }, "surface")
        }
        hint="Brick, render, steel cladding, timber … A mount holds five times the weight of camera and bracket."
      />
      <div className="dials dials-big">
        <Measure
          of={spot.id}
          label="Height available"
          value={spot.height_m}
          quantity={length(units)}
          min={0}
          max={500}
          onChange={(v) =>
            set((s) => {
              s.height_m = v;
            }, "height")
          }
        />
        <Measure
          of={spot.id}
          label="Ground at its foot"
          value={spot.ground_m ?? 0}
          quantity={length(units)}
          min={-100}
          max={500}
          hint="Over the plan's zero: a step, a ramp, a dock. The height above is over it"
          onChange={(v) =>
            set((s) => {
              if (v === 0) delete s.ground_m;
              else s.ground_m = v;
            }, "ground")
          }
        />
      </div>
      <YesNoField
        {...needed("back_box")}
        label="Back box needed"
        value={spot.back_box}
        onChange={(v) =>
          set((s) => {
            s.back_box = v;
          }, "back box")
        }
      />
      <YesNoField
        {...needed("outdoor")}
        label="Outdoors"
        value={spot.outdoor}
        onChange={(v) =>
          set((s) => {
            s.outdoor = v;
          }, "outdoors")
        }
      />
      <YesNoField
        {...needed("in_reach")}
        label="A hand can reach it"
        value={spot.in_reach}
        onChange={(v) =>
          set((s) => {
            s.in_reach = v;
          }, "reach")
        }
        hint="Then a vandal-resistant housing, or higher up: at least 2.4 m."
      />
      <Field {...needed("cable_m")} label="Cable way to the recorder" hint="An estimate will do.">
        <div className="dials dials-big">
          <Measure
            of={spot.id}
            label="Length of the way"
            value={spot.cable_m ?? null}
            empty={{
              word: "not said",
              onEmpty: () =>
                set((s) => {
                  delete s.cable_m;
                }, "cable way"),
            }}
            quantity={length(units)}
            min={0}
            max={100000}
            onChange={(v) =>
              set((s) => {
                s.cable_m = v;
              }, "cable way")
            }
          />
        </div>
      </Field>
      <TextField
        name="note"
        label="Note"
        lines={2}
        value={spot.note}
        onChange={(v) =>
          set((s) => {
            s.note = v ?? null;
          }, "note")
        }
      />
      <Photos owner={{ kind: "spot", id: spot.id }} photos={spot.photos ?? []} name={spot.name} />
      <Button danger onClick={remove}>
        Delete this spot
      </Button>
    </>
  );
}
