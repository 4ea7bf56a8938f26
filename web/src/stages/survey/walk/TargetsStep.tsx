/** Targets: what must be seen, in the order of the walk, in plain words. */
import { speed, inTheFile, onTheRoad } from "../../../ui/speed";
import { Button, Select } from "antd";
import { useMemo, useState } from "react";
import type { Point, SiteFile, Target } from "../../../core/types";
import { GUIDE } from "../../../core/guide";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { changeOf, moveSpot, removeThing, targetMoves } from "../../../keep/things";
import { addTarget, setShall, setShape } from "../../../model/targets";
import { SHALL } from "../../../ui/words";
import { SpotMark } from "../../../plan/layers/SpotMark";
import { TargetMark } from "../../../plan/layers/TargetMark";
import { ChoiceField, Field, TextField } from "../../../ui/Field";
import { Dial } from "../../../ui/Dial";
import { length, plain } from "../../../ui/Measure";
import { goTo, stepAddress } from "../../../ui/address";
import { SurveyPlan } from "../SurveyPlan";
import { Photos } from "../../../ui/photos/Photos";
import { WalkList, moved } from "./WalkList";
import { plainTask } from "./plainTasks";

const SHAPES = [
  ["point", "One point"],
  ["line", "A line"],
  ["area", "An area"],
] as const;

export function TargetsStep({ site, item }: { site: SiteFile; item: string | null }) {
  const [adding, setAdding] = useState(false);
  const id = useSite((state) => state.open?.id) ?? "";
  const edit = useSite((state) => state.edit);
  const choose = (target: string | null): void => goTo(stepAddress(id, "targets", target));
  const actions = useMemo(
    () => ({ ...targetMoves, onTake: (target: Target) => goTo(stepAddress(id, "targets", target.id)) }),
    [id],
  );
  const add = (at: Point): void => {
    let made = "";
    edit("Add a target", (draft) => {
      made = addTarget(draft, at);
    });
    setAdding(false);
    choose(made);
  };
  return (
    <section className="walk" aria-label="Targets">
      <SurveyPlan site={site} tapping={adding ? "Tap what must be seen." : null} onTap={add}>
        {(view) => (
          <>
            {(site.spots ?? []).map((spot, place) => (
              <SpotMark
                key={spot.id}
                view={view}
                spot={spot}
                place={place}
                inHand={false}
                onChoose={() => goTo(stepAddress(id, "spots", spot.id))}
                onMove={moveSpot}
              />
            ))}
            {site.targets.map((target) => (
              <TargetMark
                key={target.id}
                view={view}
                target={target}
                verdict={null}
                inHand={target.id === item}
                actions={actions}
              />
            ))}
          </>
        )}
      </SurveyPlan>
      <div className="form-page">
        <h1>Targets</h1>
        <WalkList
          items={site.targets}
          inHand={item}
          what="Target"
          onChoose={choose}
          detail={(target) => plainTask(target)}
          onMove={(place, by) =>
            edit("Change the order of the walk", (draft) => {
              draft.targets = moved(draft.targets, place, by);
            })
          }
          form={(target) => <TargetForm target={target} />}
        />
        <Button
          size="large"
          type={site.targets.length === 0 ? "primary" : "default"}
          onClick={() => setAdding(true)}
          disabled={adding}
        >
          Add a target
        </Button>
      </div>
    </section>
  );
}

function TargetForm({ target }: { target: Target }) {
  const units = useSettings((settings) => settings.units);
  const change = changeOf("target", target);
  // What is typed into one field is one step.
  const typing = (field: string): string => `target-${target.id}-${field}`;
  return (
    <>
      <TextField
        name="name"
        label="Name"
        value={target.name}
        onChange={(v) => v && change("Name", (t) => void (t.name = v), typing("name"))}
      />
      <Field name="task" label="What the picture must do">
        <Select
          aria-label="What the picture must do"
          size="large"
          value={plainTask(target)}
          options={GUIDE.tasks.map((task) => ({ value: task.says, label: task.says }))}
          onChange={(says) =>
            change(
              "Task",
              (t) => {
                const task = GUIDE.tasks.find((p) => p.says === says);
                if (task) {
                  if (t.subject !== task.subject) {
                    delete t.size_m;
                    delete t.plate;
                    delete t.height_to_m;
                  }
                  t.subject = task.subject;
                  t.task = task.task;
                  t.height_m = task.height_m;
                }
              },
              typing("task"),
            )
          }
        />
      </Field>
      <TextField
        name="used_for"
        label="How it will be used"
        value={target.used_for}
        onChange={(v) => change("Use", (t) => void (t.used_for = v ?? null), typing("use"))}
      />
      <TextField
        name="night_light"
        label="Light there at night"
        needed
        value={target.night_light}
        onChange={(v) => change("Light at night", (t) => void (t.night_light = v ?? null), typing("light at night"))}
      />
      <ChoiceField
        name="cameras_shall"
        label="Cameras shall"
        value={target.cameras_shall ?? "nothing"}
        options={SHALL}
        onChange={(shall) => change("Cameras shall", (t) => setShall(t, shall), typing("cameras shall"))}
      />
      <ChoiceField
        name="shape"
        label="Where it is"
        value={target.shape.kind}
        options={SHAPES}
        onChange={(kind) => change("Shape", (t, site) => setShape(site, t, kind), typing("shape"))}
      />
      <div className="dials dials-big">
        <Dial
          change={change}
          of={target.id}
          label="Height"
          value={target.height_m}
          quantity={length(units)}
          min={0}
          max={500}
          set={(t, value) => (t.height_m = value)}
        />
        <Dial
          change={change}
          of={target.id}
          label="Speed"
          value={onTheRoad(target.speed_mps, units)}
          quantity={speed(units)}
          min={0}
          max={onTheRoad(150, units)}
          set={(t, value) => (t.speed_mps = inTheFile(value, units))}
        />
        <span data-field="facing_deg">
          <Dial
            change={change}
            of={target.id}
            label="Faces"
            value={target.facing_deg ?? null}
            empty={{
              word: "any",
              set: (t) => {
                t.facing_deg = null;
              },
            }}
            min={-360}
            max={360}
            hint="The bearing that a face or plate points to"
            quantity={plain("°", 1, 5)}
            set={(t, value) => (t.facing_deg = value)}
          />
        </span>
      </div>
      <Photos owner={{ kind: "target", id: target.id }} photos={target.photos ?? []} name={target.name} />
      <Button danger onClick={() => removeThing("target", target)}>
        Delete this target
      </Button>
    </>
  );
}
