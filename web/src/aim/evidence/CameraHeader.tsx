/** The camera in hand: its name, its model out of the catalogue, and what can be done with it. */
import { Button, Dropdown, Input, Select } from "antd";
import { useState } from "react";
import type { Camera, CameraHead } from "../../engine/types";
import { aim, cameraOf, duplicateCamera, headOf, setModel, targetOf } from "../../site/edits";
import { useSite } from "../../site/store";
import { useInHand } from "../inHand";
import { useCatalogue } from "../../plan/usePlacing";

export function CameraHeader({ camera, head }: { camera: Camera; head: CameraHead }) {
  const edit = useSite((state) => state.edit);
  const { takeHead, target } = useInHand();
  const [typed, setTyped] = useState<string | null>(null);
  const rename = (): void => {
    const name = typed?.trim();
    if (name && name !== camera.name) edit(`Rename ${camera.name}`, (site) => { const c = cameraOf(site, camera.id); if (c) c.name = name; });
    setTyped(null);
  };
  const duplicate = (): void => {
    let copy: string | null = null;
    edit(`Duplicate ${camera.name}`, (site) => { copy = duplicateCamera(site, camera.id); });
    if (copy) takeHead({ camera: copy, head: head.id });
  };
  const remove = (): void => {
    edit(`Delete ${camera.name}`, (site) => { site.cameras = site.cameras.filter((c) => c.id !== camera.id); });
    takeHead(null);
  };
  const aimAt = (): void => edit(`Aim ${camera.name} at the promise`, (site) => {
    const c = cameraOf(site, camera.id);
    const h = headOf(site, camera.id, head.id);
    const t = target ? targetOf(site, target) : undefined;
    if (c && h && t) aim(c, h, t);
  });
  return (
    <div className="camera-head">
      <Input
        size="small" className="camera-title" aria-label="Name of the camera" value={typed ?? camera.name} maxLength={200}
        onChange={(event) => setTyped(event.target.value)} onBlur={rename} onPressEnter={(event) => event.currentTarget.blur()}
      />
      <ModelChoice camera={camera} />
      <Dropdown
        trigger={["click"]}
        menu={{ items: [
          { key: "aim", label: "Aim at the promise in hand", disabled: !target, onClick: aimAt },
          { key: "duplicate", label: "Duplicate", onClick: duplicate },
          { key: "delete", label: "Delete", danger: true, onClick: remove },
        ] }}
      >
        <Button size="small" type="text" aria-label={`More for ${camera.name}`}>⋯</Button>
      </Dropdown>
    </div>
  );
}

/** The catalogue by build; a model that is in the site file only stays on top. */
function ModelChoice({ camera }: { camera: Camera }) {
  const models = useCatalogue();
  const edit = useSite((state) => state.edit);
  const forms = [...new Set(models.map((model) => model.form))];
  const own = models.some((model) => model.name === camera.model.name) ? [] : [{ label: "In this site", options: [{ value: camera.model.name, label: camera.model.name }] }];
  const choose = (name: string): void => {
    const model = models.find((m) => m.name === name);
    if (model) edit(`${camera.name}: ${model.name}`, (site) => { const c = cameraOf(site, camera.id); if (c) setModel(c, model); });
  };
  return (
    <Select
      size="small" className="model-choice" showSearch aria-label="Model and lens" value={camera.model.name} onChange={choose} popupMatchSelectWidth={false}
      options={[...own, ...forms.map((form) => ({
        label: form.replace("_", " "),
        options: models.filter((m) => m.form === form).map((m) => ({ value: m.name, label: m.name })),
      }))]}
    />
  );
}
