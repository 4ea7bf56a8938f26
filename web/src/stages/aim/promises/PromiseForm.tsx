/** A promise's own figures. */
import { speed, inTheFile, onTheRoad } from "../../../ui/speed";
import { memo } from "react";
import type { Point, Target, Task } from "../../../core/types";
import { GUIDE } from "../../../core/guide";
import { useSettings } from "../../../keep/settings";
import { changeOf } from "../../../keep/things";
import { middle } from "../../../model/lookups";
import { moveTarget, setShall, setShape } from "../../../model/targets";
import { NameInput } from "../../../ui/NameInput";
import { Dial } from "../../../ui/Dial";
import { Measure, length, plain, whole } from "../../../ui/Measure";
import { SHALL } from "../../../ui/words";
import { SubjectSize } from "./SubjectSize";
import { Select } from "../../../ui/controls";

const SUBJECTS = [
  ["person", "person"],
  ["face", "face"],
  ["vehicle", "vehicle"],
  ["plate", "number plate"],
  ["scene", "scene"],
] as const;
const TASK_LABELS: Partial<Record<Task, string>> = { read: "read a plate", read_by_eye: "read a plate by eye" };
const TASKS = ["monitor", "detect", "observe", "recognise", "identify", "inspect", "read", "read_by_eye"] as const;
const HOW = [
  ["plan", "scaled from the plan"],
  ["laser", "by laser"],
  ["guess", "by eye"],
] as const;
const SHAPES = [
  ["point", "a point"],
  ["line", "a line"],
  ["area", "an area"],
] as const;

const options = (pairs: readonly (readonly [string, string])[]): { value: string; label: string }[] =>
  pairs.map(([value, label]) => ({ value, label }));

export const PromiseForm = memo(function PromiseForm({ target }: { target: Target }) {
  const units = useSettings((settings) => settings.units);
  const change = changeOf("target", target);
  const at = middle(target);
  const move = (to: Point, gesture: boolean): void =>
    change("Move", (t) => moveTarget(t, to[0] - at[0], to[1] - at[1], 4), gesture);
  return (
    <details className="promise-more">
      <summary>Figures of this promise</summary>
      <div className="promise-form">
        <NameField
          of={target.id}
          name={target.name}
          onName={(name) =>
            change("Rename", (t) => {
              t.name = name;
            })
          }
        />
        <div className="pair">
          <label className="stacked">
            Task
            <Select
              size="small"
              aria-label="Task"
              value={target.task}
              options={TASKS.map((t) => ({ value: t, label: TASK_LABELS[t] ?? t }))}
              onChange={(task) =>
                change("Change the task", (t) => {
                  t.task = task;
                })
              }
            />
          </label>
          <label className="stacked">
            What is seen
            <Select
              size="small"
              aria-label="What is seen"
              value={target.subject}
              options={options(SUBJECTS)}
              onChange={(subject) =>
                change("Change the subject", (t) => {
                  t.subject = subject;
                  delete t.size_m;
                  delete t.plate;
                  delete t.height_to_m;
                })
              }
            />
          </label>
          <label className="stacked">
            Where it is
            <Select
              size="small"
              aria-label="Where it is"
              value={target.shape.kind}
              options={options(SHAPES)}
              onChange={(kind) => change("Change the shape", (t, site) => setShape(site, t, kind))}
            />
          </label>
          <label className="stacked">
            Distance is
            <Select
              size="small"
              aria-label="Distance is"
              value={target.distance?.how ?? "plan"}
              options={options(HOW)}
              onChange={(how) =>
                change("Change how the distance was got", (t) => {
                  t.distance = { how: how as "plan" };
                })
              }
            />
          </label>
          <label className="stacked">
            Cameras shall
            <Select
              size="small"
              aria-label="Cameras shall"
              value={target.cameras_shall ?? "nothing"}
              options={options(SHALL)}
              onChange={(shall) => change("Change what cameras shall do", (t) => setShall(t, shall))}
            />
          </label>
        </div>
        {target.subject === "plate" && <PlateChoice target={target} onChange={change} />}
        <div className="dials">
          <Dial
            change={change}
            says="Change the need"
            of={target.id}
            label="Own need"
            value={target.needs_px_per_m ?? null}
            empty={{
              word: "by task",
              set: (t) => {
                delete t.needs_px_per_m;
              },
            }}
            quantity={plain("px/m", 1, 5)}
            min={0.1}
            max={100000}
            hint="What this promise needs, where it is not what its task needs"
            set={(t, v) => (t.needs_px_per_m = v)}
          />
          <Dial
            change={change}
            says="Change how much it matters"
            of={target.id}
            label="Importance"
            value={target.importance ?? null}
            empty={{
              word: "not said",
              set: (t) => {
                delete t.importance;
              },
            }}
            quantity={whole("")}
            min={1}
            max={99}
            hint="1 comes first in lists; what matters less is given up sooner"
            set={(t, v) => (t.importance = v)}
          />
          <Dial
            change={change}
            says="Change how many must see it"
            of={target.id}
            label="Cameras that must see it"
            value={target.heads_wanted ?? 1}
            quantity={whole("")}
            min={1}
            max={8}
            set={(t, v) => (t.heads_wanted = v)}
          />
          <Dial
            change={change}
            says="Change the height"
            of={target.id}
            label="Height"
            value={target.height_m}
            quantity={length(units)}
            min={0}
            max={500}
            set={(t, v) => (t.height_m = v)}
          />
          <Facing
            target={target}
            onFacing={(facing, g) =>
              change(
                "Turn",
                (t) => {
                  t.facing_deg = facing;
                },
                g,
              )
            }
          />
          {target.subject === "plate" && (
            <Dial
              change={change}
              says="Change the speed"
              of={target.id}
              label="Speed"
              value={onTheRoad(target.speed_mps, units)}
              quantity={speed(units)}
              min={0}
              max={onTheRoad(150, units)}
              hint="How fast the plate goes along its path; one that stands is not judged in time"
              set={(t, v) => (t.speed_mps = inTheFile(v, units))}
            />
          )}
          <UnseenWish
            target={target}
            onWish={(wish, g) =>
              change(
                "Change how long it may go unseen",
                (t) => {
                  if (wish === null) delete t.unseen_at_most_s;
                  else t.unseen_at_most_s = wish;
                },
                g,
              )
            }
          />
          {target.subject === "plate" && (
            <Dial
              change={change}
              says="Change the heights of plates"
              of={target.id}
              label="Plates up to"
              value={target.height_to_m ?? null}
              empty={{
                word: "one height",
                set: (t) => {
                  delete t.height_to_m;
                },
              }}
              quantity={length(units)}
              min={0}
              max={500}
              hint="Where the lane takes lorries: their plates sit up to 1.5 m up; judged at both heights"
              set={(t, v) => (t.height_to_m = v)}
            />
          )}
          <Dial
            change={change}
            says="Change the ground"
            of={target.id}
            label="Ground"
            value={target.ground_m ?? 0}
            quantity={length(units)}
            min={-100}
            max={500}
            hint="Height of the ground there over the plan's zero: a step, a ramp, a dock"
            set={(t, v) => {
              if (v === 0) delete t.ground_m;
              else t.ground_m = v;
            }}
          />
          <SubjectSize
            target={target}
            onSize={(size, g) =>
              change(
                "Change the size",
                (t) => {
                  if (size) t.size_m = size;
                  else delete t.size_m;
                },
                g,
              )
            }
          />
          <Measure
            of={target.id}
            label="East"
            value={at[0]}
            quantity={length(units)}
            min={-100000}
            max={100000}
            onChange={(v, g) => move([v, at[1]], g)}
          />
          <Measure
            of={target.id}
            label="North"
            value={at[1]}
            quantity={length(units)}
            min={-100000}
            max={100000}
            onChange={(v, g) => move([at[0], v], g)}
          />
        </div>
      </div>
    </details>
  );
});

/** The country's plate: its size, its characters, whether it throws light back. */
function PlateChoice({
  target,
  onChange,
}: {
  target: Target;
  onChange(says: string, recipe: (target: Target) => void): void;
}) {
  const plates = GUIDE.plates;
  const held = target.plate?.name ?? plates[0]?.plate.name ?? "";
  return (
    <label className="stacked">
      Plate
      <Select
        size="small"
        aria-label="Kind of plate"
        value={held}
        options={plates.map(({ plate, basis }) => ({ value: plate.name, label: plate.name, title: basis }))}
        onChange={(name: string) =>
          onChange("Change the plate", (t) => {
            const known = plates.find(({ plate }) => plate.name === name);
            if (!known) return;
            t.plate = known.plate;
            t.size_m = known.size_m;
          })
        }
      />
    </label>
  );
}

/** The bearing that a face or plate points to; empty for any. */
function Facing({ target, onFacing }: { target: Target; onFacing(facing: number | null, gesture: boolean): void }) {
  return (
    <Measure
      of={target.id}
      label="Faces"
      value={target.facing_deg ?? null}
      empty={{ word: "any", onEmpty: () => onFacing(null, false) }}
      min={-360}
      max={360}
      hint="Bearing that the face or plate points to; “any” where it may be any"
      quantity={plain("°", 1, 1)}
      onChange={onFacing}
    />
  );
}

/** How long it may go unseen by a head that tours; empty where nobody said. */
function UnseenWish({ target, onWish }: { target: Target; onWish(wish: number | null, gesture: boolean): void }) {
  const quantity = plain("s", 0, 1);
  return (
    <Measure
      of={target.id}
      label="Unseen, at most"
      value={target.unseen_at_most_s ?? null}
      empty={{ word: "not stated", onEmpty: () => onWish(null, false) }}
      min={0}
      max={86400}
      hint="At most so long: a PTZ on tour keeps the promise only if it is back by then. Empty: not stated"
      quantity={{
        ...quantity,
        format: (v) => `≤ ${quantity.format(v)}`,
        parse: (text) => quantity.parse(text.replace("≤", "")),
      }}
      onChange={onWish}
    />
  );
}

function NameField({ of, name, onName }: { of: string; name: string; onName(name: string): void }) {
  return (
    <label className="stacked">
      Name
      <NameInput of={of} name={name} onName={onName} />
    </label>
  );
}
