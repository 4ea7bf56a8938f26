/** Brings in another program's drawing: what is in it, layer by layer, what is left out and why, before any of it is taken. */
import { Checkbox, Modal, Upload } from "antd";
import { useState } from "react";
import { Refused } from "../../../core/errors";
import type { Import, Point, Units } from "../../../core/types";
import { type Unit, lookAt } from "../../../keep/drawings";
import { useSite } from "../../../keep/store";
import {
  type LayerChoice,
  type PointChoices,
  type PointIs,
  bringIn,
  bringInPoints,
  choicesOf,
  countOf,
  pointsOf,
} from "../../../model/bringIn";
import { useInHand } from "../../../model/inHand";
import { OBSTACLE_KINDS } from "../../../model/shapes";
import { usePlanView } from "../../../plan/planView";
import { Measure, length } from "../../../ui/Measure";
import { formatLength } from "../../../ui/length";
import { useBringIn, useDraw } from "./drawView";
import { Button, RadioGroup, Select } from "../../../ui/controls";

/** So many points are shown one by one. */
const MOST_SHOWN = 100;

interface Looked {
  file: File;
  unit: Unit | null;
  brought: Import | null;
  refused: string | null;
}

export function BringIn({ units }: { units: Units }) {
  const { open, show } = useBringIn();
  const [looked, setLooked] = useState<Looked | null>(null);
  const [choices, setChoices] = useState<LayerChoice[]>([]);
  const [points, setPoints] = useState<PointChoices>({ as: [], zero: 0 });
  const [where, setWhere] = useState<"here" | "as drawn">("here");
  const look = async (file: File, unit: Unit | null): Promise<void> => {
    try {
      const brought = await lookAt(file, unit);
      setLooked({ file, unit, brought, refused: null });
      setChoices(choicesOf(brought));
      setPoints(pointsOf(brought));
    } catch (error) {
      const refused = error instanceof Refused ? error.faults.map((fault) => fault.message).join("; ") : String(error);
      setLooked({ file, unit, brought: null, refused });
    }
  };
  const close = (): void => {
    show(false);
    setLooked(null);
  };
  const brought = looked?.brought ?? null;
  const take = (): void => {
    if (!brought) return;
    const { centre } = usePlanView.getState();
    const by: Point =
      where === "here" ? [centre[0] - (brought.middle[0] ?? 0), centre[1] - (brought.middle[1] ?? 0)] : [0, 0];
    let ids: string[] = [];
    useSite.getState().edit(`Bring in ${looked?.file.name ?? ""}`.slice(0, 200), (site) => {
      ids = bringIn(site, brought, choices, by);
      bringInPoints(site, brought, points, by);
    });
    useInHand.getState().place(null);
    useDraw.getState().set({ chosen: ids });
    close();
  };
  const count = brought ? countOf(brought, choices) : 0;
  const taken = points.as.filter((is) => is !== null).length;
  return (
    <Modal
      open={open}
      title="Bring in a drawing"
      width={640}
      onCancel={close}
      okText={takes(count, taken)}
      okButtonProps={{ disabled: count + taken === 0 }}
      onOk={take}
    >
      <div className="bring-in">
        <Upload
          accept=".dxf,.geojson,.json"
          showUploadList={false}
          beforeUpload={(file) => {
            void look(file, null);
            return false;
          }}
        >
          <Button type={looked ? "default" : "primary"}>Choose a GeoJSON or DXF file</Button>
        </Upload>
        {looked?.refused && (
          <p className="notice notice-bad" role="alert">
            {looked.file.name}: {looked.refused}
          </p>
        )}
        {looked && /\.dxf$/i.test(looked.file.name) && (
          <UnitChoice unit={looked.unit} onUnit={(unit) => void look(looked.file, unit)} />
        )}
        {brought && (
          <>
            <p>
              {formatLength(brought.size_m[0] ?? 0, units, 1)} × {formatLength(brought.size_m[1] ?? 0, units, 1)}, read
              as {brought.coordinates}.
            </p>
            <Preview brought={brought} choices={choices} />
            <Layers brought={brought} choices={choices} onChoices={setChoices} units={units} />
            {brought.points.length > 0 && (
              <Points brought={brought} points={points} onPoints={setPoints} units={units} />
            )}
            <RadioGroup
              aria-label="Where it goes"
              value={where}
              onChange={(event) => setWhere(event.target.value as "here" | "as drawn")}
              options={[
                { value: "here", label: "to the middle of the plan as it is shown" },
                { value: "as drawn", label: "where its own coordinates say" },
              ]}
            />
            <LeftOut brought={brought} />
          </>
        )}
      </div>
    </Modal>
  );
}

const counted = (count: number, word: string): string => `${count} ${word}${count === 1 ? "" : "s"}`;

/** What the button says that is taken. */
function takes(obstacles: number, points: number): string {
  const parts = [
    ...(obstacles > 0 || points === 0 ? [counted(obstacles, "obstacle")] : []),
    ...(points > 0 ? [counted(points, "point")] : []),
  ];
  return `Take ${parts.join(" and ")}`;
}

function UnitChoice({ unit, onUnit }: { unit: Unit | null; onUnit(unit: Unit | null): void }) {
  return (
    <label>
      Unit{" "}
      <Select
        size="small"
        aria-label="Unit of the drawing"
        value={unit ?? ""}
        popupMatchSelectWidth={false}
        options={[
          { value: "", label: "as its header says" },
          ...["mm", "cm", "m", "in", "ft"].map((value) => ({ value, label: value })),
        ]}
        onChange={(value: string) => onUnit(value === "" ? null : (value as Unit))}
      />
    </label>
  );
}

/** The outlines, those that are taken in ink. */
function Preview({ brought, choices }: { brought: Import; choices: LayerChoice[] }) {
  const [x = 0, y = 0] = brought.middle;
  const [wide = 1, tall = 1] = brought.size_m;
  const room = Math.max(wide, tall, 0.1) * 0.04;
  const box = [x - wide / 2 - room, -y - tall / 2 - room, wide + 2 * room, tall + 2 * room].join(" ");
  return (
    <svg className="bring-in-preview" viewBox={box} role="img" aria-label="What the drawing holds">
      {brought.layers.map((layer) => (
        <path
          key={layer.name}
          vectorEffect="non-scaling-stroke"
          className={choices.find((choice) => choice.name === layer.name)?.taken ? "taken" : "left"}
          d={layer.obstacles
            .map((o) => `M${o.outline.map(([u = 0, v = 0]) => `${u} ${-v}`).join("L")}${o.closed === false ? "" : "Z"}`)
            .join("")}
        />
      ))}
      {brought.points.map(({ at: [u = 0, v = 0] }, place) => (
        <path key={place} vectorEffect="non-scaling-stroke" className="bring-in-point" d={`M${u} ${-v}h0`} />
      ))}
    </svg>
  );
}

const POINT_IS: { value: PointIs | ""; label: string }[] = [
  { value: "", label: "left out" },
  { value: "spot", label: "a spot" },
  { value: "target", label: "a target" },
];

/** The measured points: what each of them is, and what their heights count from. */
function Points({
  brought,
  points,
  onPoints,
  units,
}: {
  brought: Import;
  points: PointChoices;
  onPoints(points: PointChoices): void;
  units: Units;
}) {
  const all = (is: PointIs | null): void => onPoints({ ...points, as: points.as.map(() => is) });
  const one = (place: number, is: PointIs | null): void =>
    onPoints({ ...points, as: points.as.map((held, at) => (at === place ? is : held)) });
  return (
    <details className="bring-in-points" open>
      <summary>{counted(brought.points.length, "measured point")}</summary>
      <div className="row">
        <Button size="small" onClick={() => all("spot")}>
          All are spots
        </Button>
        <Button size="small" onClick={() => all("target")}>
          All are targets
        </Button>
        <Button size="small" onClick={() => all(null)}>
          Leave all out
        </Button>
        <Measure
          of="points"
          label="Its zero is over the ground by"
          value={points.zero}
          quantity={length(units)}
          min={-100}
          max={100}
          onChange={(zero) => onPoints({ ...points, zero })}
        />
      </div>
      <ul aria-label="Measured points">
        {brought.points.slice(0, MOST_SHOWN).map((point, place) => (
          <li key={place}>
            <span>{point.name ?? point.source}</span>
            <span className="figure">{formatLength(point.height_m, units)}</span>
            <Select
              size="small"
              aria-label={`What ${point.name ?? point.source} is`}
              value={points.as[place] ?? ""}
              options={POINT_IS}
              onChange={(is: PointIs | "") => one(place, is === "" ? null : is)}
            />
          </li>
        ))}
      </ul>
      {brought.points.length > MOST_SHOWN && (
        <p className="fine">… and {brought.points.length - MOST_SHOWN} more, which go with all of them.</p>
      )}
    </details>
  );
}

function Layers({
  brought,
  choices,
  onChoices,
  units,
}: {
  brought: Import;
  choices: LayerChoice[];
  onChoices(choices: LayerChoice[]): void;
  units: Units;
}) {
  const change = (name: string, to: Partial<LayerChoice>): void =>
    onChoices(choices.map((choice) => (choice.name === name ? { ...choice, ...to } : choice)));
  return (
    <ul className="bring-in-layers" aria-label="Layers">
      {brought.layers.map((layer) => {
        const choice = choices.find((held) => held.name === layer.name);
        if (!choice) return null;
        const tops = layer.obstacles.map((obstacle) => obstacle.top_m);
        return (
          <li key={layer.name}>
            <Checkbox checked={choice.taken} onChange={(event) => change(layer.name, { taken: event.target.checked })}>
              {layer.name} <span className="fine">{layer.obstacles.length}</span>
            </Checkbox>
            <Select
              size="small"
              aria-label={`What ${layer.name} is`}
              value={choice.kind}
              options={OBSTACLE_KINDS.map((value) => ({ value, label: value }))}
              onChange={(kind) => change(layer.name, { kind })}
            />
            <Measure
              of={layer.name}
              label="Top"
              value={choice.top ?? Math.max(...tops)}
              quantity={length(units)}
              min={0.01}
              max={500}
              onChange={(top) => change(layer.name, { top })}
            />
          </li>
        );
      })}
    </ul>
  );
}

function LeftOut({ brought }: { brought: Import }) {
  if (brought.left_out_count === 0) return <p className="fine">Nothing is left out.</p>;
  return (
    <details>
      <summary>
        {brought.left_out_count} {brought.left_out_count === 1 ? "thing is" : "things are"} left out, or not as drawn
      </summary>
      <ul className="bring-in-left">
        {brought.left_out.map((left, place) => (
          <li key={place}>
            {left.source}
            {left.layer && ` on ${left.layer}`}: {left.why}
          </li>
        ))}
      </ul>
    </details>
  );
}
