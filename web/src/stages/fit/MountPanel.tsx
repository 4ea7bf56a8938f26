/** What the camera in hand hangs by: its parts, and whether they will do. */
import { InputNumber, Select } from "antd";
import { useState } from "react";
import { ask } from "../../core/port";
import type { Access, Camera, CableEntry, Mount, MountCheck, MountPart, SiteFile, Surface } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { useOwnCatalogue } from "../../keep/ownCatalogue";
import { useSite } from "../../keep/store";
import { changeOf } from "../../keep/things";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { Button } from "../../ui/controls";
import { PART_WORDS } from "../../ui/words";
import { useFitView } from "./fitView";
import { SURFACE_WORDS } from "./words";

const ENTRIES: Record<CableEntry, string> = {
  back: "Through the back",
  below: "From below",
  side: "Level",
  above: "From above",
};
const ACCESS: Record<Access, string> = { ladder: "Ladder", lift: "Lift", roof: "Roof" };
const options = <Key extends string>(words: Record<Key, string>): { value: Key; label: string }[] =>
  (Object.keys(words) as Key[]).map((value) => ({ value, label: words[value] }));

export function MountPanel({ site }: { site: SiteFile }) {
  const { camera: id, set } = useFitView();
  const camera = site.cameras.find((held) => held.id === id && held.existing !== "goes");
  return (
    <div className="fit-mount">
      <Select
        aria-label="Camera"
        placeholder="Choose a camera"
        value={camera?.id ?? null}
        onChange={(next: string) => set({ camera: next })}
        options={site.cameras
          .filter(({ existing }) => existing !== "goes")
          .map((one) => ({ value: one.id, label: `${one.name}, ${one.model.name}` }))}
      />
      {camera ? (
        <MountOf key={camera.id} site={site} camera={camera} />
      ) : (
        <p className="hint">What does it hang by? Choose a camera here or on the plan.</p>
      )}
    </div>
  );
}

function MountOf({ site, camera }: { site: SiteFile; camera: Camera }) {
  const checks = useAnswer(site, { ask: "mount_checks", camera: camera.id }, { keeps: false });
  const mount: Mount = camera.mount ?? {};
  const change = changeOf("camera", camera);
  const put = (says: string, part: Partial<Mount>): void =>
    change(says, (held) => {
      held.mount = { ...held.mount, ...part };
    });
  return (
    <div className="fit-mount-of">
      <div className="fit-mount-fields">
        <label className="stacked">
          Screwed to
          <Select
            size="small"
            allowClear
            placeholder={site.spots?.find((spot) => spot.id === camera.spot)?.surface ?? "not said"}
            value={mount.surface ?? null}
            options={options(SURFACE_WORDS)}
            onChange={(surface: Surface | undefined) => put("Say the surface", { surface: surface ?? null })}
          />
        </label>
        <label className="stacked">
          Cable comes in
          <Select
            size="small"
            value={mount.entry ?? "back"}
            options={options(ENTRIES)}
            onChange={(entry: CableEntry) => put("Say where the cable comes in", { entry })}
          />
        </label>
        <label className="stacked">
          Put up from
          <Select
            size="small"
            allowClear
            placeholder="by its height"
            value={mount.access ?? null}
            options={options(ACCESS)}
            onChange={(access: Access | undefined) => put("Say from what it is put up", { access: access ?? null })}
          />
        </label>
        <Figure
          word="Conduit, mm"
          value={mount.conduit_mm}
          least={5}
          most={200}
          onChange={(conduit_mm) => put("Say the conduit", { conduit_mm })}
        />
        <Figure
          word="To the nearest edge, m"
          value={mount.edge_m}
          least={0}
          most={100}
          onChange={(edge_m) => put("Say how far the edge is", { edge_m })}
        />
        <Figure
          word="Holes of its seal"
          value={mount.seal_holes}
          least={1}
          most={16}
          onChange={(seal_holes) => put("Say how many holes the seal has", { seal_holes })}
        />
      </div>
      <Parts site={site} camera={camera} />
      <Checks checks={checks.value} settled={checks.settled} refused={checks.refused} />
    </div>
  );
}

function Figure({
  word,
  value,
  least,
  most,
  onChange,
}: {
  word: string;
  value: number | null | undefined;
  least: number;
  most: number;
  onChange(value: number | null): void;
}) {
  return (
    <label className="stacked">
      {word}
      <InputNumber
        size="small"
        aria-label={word}
        min={least}
        max={most}
        value={value ?? null}
        placeholder="not said"
        onChange={(next) => onChange(next)}
      />
    </label>
  );
}

function Parts({ site, camera }: { site: SiteFile; camera: Camera }) {
  const known = useAnswer(site, { ask: "mount_parts" }, { by: "surveyor", keeps: true });
  const own = useOwnCatalogue((state) => state.stock.mounts);
  const [fault, setFault] = useState("");
  const edit = useSite((state) => state.edit);
  const parts = camera.mount?.parts ?? [];
  // The core says where these parts bring it: plan, verdicts and view follow.
  const take = async (next: MountPart[], says: string): Promise<void> => {
    setFault("");
    try {
      const moved = await ask(site, { ask: "with_mount", camera: camera.id, parts: next });
      edit(says, (draft) => {
        const held = draft.cameras.find(({ id }) => id === camera.id);
        if (held) Object.assign(held, { mount: moved.mount, position: moved.position, height_m: moved.height_m });
      });
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  const add = (id: string): void => {
    const part = [...(own ?? []), ...(known.value ?? [])].find((one) => one.id === id);
    if (!part) return;
    void take([...parts, { ...part, id: freeId(id, parts) }], `Add ${part.name} to ${camera.name}`.slice(0, 200));
  };
  return (
    <div className="fit-parts">
      <h3>From the wall outwards</h3>
      <ol>
        {parts.map((part, at) => (
          <li key={part.id}>
            <span>
              {part.name}{" "}
              <span className="fine">
                {PART_WORDS[part.kind]}, {part.weight_kg} kg
              </span>
            </span>
            <Button
              size="small"
              type="text"
              aria-label={`Take ${part.name} off`}
              onClick={() =>
                void take(
                  parts.filter((_, place) => place !== at),
                  `Take ${part.name} off ${camera.name}`.slice(0, 200),
                )
              }
            >
              Take off
            </Button>
          </li>
        ))}
        <li>
          {camera.name}{" "}
          <span className="fine">
            {camera.model.weight_kg == null ? "weight not stated" : `${camera.model.weight_kg} kg`}
          </span>
        </li>
      </ol>
      <Select
        size="small"
        aria-label="Add a part"
        placeholder="+ Part"
        value={null}
        onChange={(id: string | null) => id && add(id)}
        options={[
          ...(own?.length ? [{ label: "My mounts", options: choices(own, camera) }] : []),
          { label: "Generic", options: choices(known.value ?? [], camera) },
        ]}
      />
      {fault && <p className="verdict-word-broken">{fault}</p>}
    </div>
  );
}

const choices = (parts: MountPart[], camera: Camera): { value: string; label: string; disabled: boolean }[] =>
  parts.map(({ id, name, forms = [] }) => ({
    value: id,
    label: name,
    disabled: forms.length > 0 && !forms.includes(camera.model.form),
  }));

/** An id that no other part of the mount has. */
function freeId(id: string, parts: MountPart[]): string {
  for (let number = 1; ; number++) {
    const free = number === 1 ? id : `${id}-${number}`;
    if (!parts.some((part) => part.id === free)) return free;
  }
}

function Checks({
  checks,
  settled,
  refused,
}: {
  checks: MountCheck[] | null;
  settled: boolean;
  refused: string | null;
}) {
  if (refused) return <p className="hint">{refused}</p>;
  if (!checks) return <p className="hint">Working …</p>;
  return (
    <Told settled={settled} testId="mount-checks">
      <ul className="fit-checks">
        {checks.map((check) => (
          <li key={check.rule + check.says}>
            <VerdictMark verdict={check.verdict} size={16} /> {check.says}
            {check.way && <span className="fit-way"> {check.way}.</span>}
            <span className="fine"> {check.basis}</span>
          </li>
        ))}
      </ul>
      <p className="caution">What is not sure to carry does not go up. The anchor's own data and local rules decide.</p>
    </Told>
  );
}
