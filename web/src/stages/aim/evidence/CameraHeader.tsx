/** The camera in hand: its name, its model out of the catalogue, and what can be done with it. */
import { Dropdown } from "antd";
import { memo } from "react";
import { ask } from "../../../core/port";
import { useCatalogue } from "../../../core/useStock";
import type { Model } from "../../../core/types";
import { useOwnCatalogue } from "../../../keep/ownCatalogue";
import { useSite } from "../../../keep/store";
import { changeOf, duplicateThing, removeThing } from "../../../keep/things";
import { setAim, setModel } from "../../../model/cameras";
import { useInHand } from "../../../model/inHand";
import { NameInput } from "../../../ui/NameInput";
import { Button, Select } from "../../../ui/controls";
import { formWord } from "../../../ui/words";

interface Props {
  /** The camera's id, its name, and what its model is called. */
  id: string;
  name: string;
  model: string;
  /** The id of the head in hand, and of its view. */
  head: string;
  view: string | null;
}

export const CameraHeader = memo(function CameraHeader({ id, name, model, head, view }: Props) {
  const edit = useSite((state) => state.edit);
  const { takeHead, target } = useInHand();
  const rename = (wanted: string): void =>
    changeOf("camera", { id, name })("Rename", (held) => void (held.name = wanted));
  const duplicate = (): void => {
    const copy = duplicateThing("camera", { id, name });
    if (copy) takeHead({ camera: copy, head });
  };
  const remove = (): void => {
    removeThing("camera", { id, name });
    takeHead(null);
  };
  const aimAt = async (): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site || !target) return;
    const ref = { camera: id, head, view };
    const aim = await ask(site, { ask: "aim", line: { ...ref, target } });
    edit(`Aim ${name} at the promise`, (draft) => setAim(draft, ref, aim));
  };
  return (
    <div className="camera-head">
      <NameInput of={id} name={name} label="Name of the camera" className="camera-title" onName={rename} />
      <ModelChoice id={id} name={name} model={model} />
      <NewerFigures id={id} name={name} model={model} />
      <Dropdown
        trigger={["click"]}
        menu={{
          items: [
            { key: "aim", label: "Aim at the selected promise", disabled: !target, onClick: () => void aimAt() },
            { key: "duplicate", label: "Duplicate", onClick: duplicate },
            { key: "delete", label: "Delete", danger: true, onClick: remove },
          ],
        }}
      >
        <Button size="small" type="text" aria-label={`More for ${name}`}>
          ⋯
        </Button>
      </Dropdown>
    </div>
  );
});

/** Says when the firm's catalogue has other figures for this model by now; nothing is changed unasked. */
function NewerFigures({ id, name, model }: { id: string; name: string; model: string }) {
  const edit = useSite((state) => state.edit);
  const held = useSite((state) => state.open?.site.cameras.find((camera) => camera.id === id)?.model);
  const mine = useOwnCatalogue((state) => state.stock.models.find((known) => known.name === model));
  if (!mine || !held || sameFigures(mine, held)) return null;
  const take = async (): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site) return;
    const fitted = await ask(site, { ask: "model", camera: id, model, own: mine });
    edit(`${name}: newer figures of ${model}`.slice(0, 200), (draft) => setModel(draft, fitted));
  };
  return (
    <p className="hint newer-figures">
      My cameras has other figures for this model.{" "}
      <Button size="small" onClick={() => void take()}>
        Take them
      </Button>
    </p>
  );
}

/** Whether two models say the same, in whatever order they say it. */
function sameFigures(a: Model, b: Model): boolean {
  const sorted = (_: string, value: unknown): unknown =>
    value !== null && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(
          Object.entries(value)
            .filter(([, held]) => held !== null && held !== undefined)
            .sort(([x], [y]) => (x < y ? -1 : 1)),
        )
      : value;
  return JSON.stringify(a, sorted) === JSON.stringify(b, sorted);
}

/** The catalogue by build; a model that is in the site file only stays on top. */
const ModelChoice = memo(function ModelChoice({
  id,
  name: camera,
  model: held,
}: {
  id: string;
  name: string;
  model: string;
}) {
  const shipped = useCatalogue() ?? [];
  const mine = useOwnCatalogue((state) => state.stock.models);
  const mineNames = new Set(mine.map((model) => model.name));
  const models = shipped.filter((model) => !mineNames.has(model.name));
  const edit = useSite((state) => state.edit);
  const forms = [...new Set(models.map((model) => model.form))];
  const own =
    models.some((model) => model.name === held) || mineNames.has(held)
      ? []
      : [{ label: "In this site", options: [{ value: held, label: held }] }];
  const choose = async (name: string): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site || name === held) return;
    const taken = mine.find((model) => model.name === name) ?? null;
    const fitted = await ask(site, { ask: "model", camera: id, model: name, own: taken });
    edit(`${camera}: ${name}`, (draft) => setModel(draft, fitted));
  };
  return (
    <Select
      size="small"
      className="model-choice"
      showSearch
      aria-label="Model and lens"
      value={held}
      onChange={(name: string) => void choose(name)}
      popupMatchSelectWidth={false}
      options={[
        ...own,
        ...(mine.length > 0
          ? [{ label: "My cameras", options: mine.map((m) => ({ value: m.name, label: m.name })) }]
          : []),
        ...forms.map((form) => ({
          label: formWord(form),
          options: models.filter((m) => m.form === form).map((m) => ({ value: m.name, label: m.name })),
        })),
      ]}
    />
  );
});
