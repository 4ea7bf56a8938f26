/** What only some forms of camera have: the heads of a ring, the presets of a tour, the flat views of a fisheye, the corridor turn. */
import { Button, Select } from "antd";
import { GUIDE } from "../../../core/guide";
import type { Point } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { cameraOf, headOf } from "../../../model/lookups";
import { edgesOf, toEdge } from "../../../model/snap";
import { FisheyePanel } from "./forms/FisheyePanel";
import { RingPanel } from "./forms/RingPanel";
import { TourPanel } from "./forms/TourPanel";
import type { FormProps } from "./forms/formProps";
import "./forms/forms.css";

export function FormPanel(props: FormProps) {
  return (
    <>
      <OfItsForm {...props} />
      <MountedOn {...props} />
    </>
  );
}

function OfItsForm(props: FormProps) {
  const { camera } = props;
  switch (camera.model.form) {
    case "ptz":
      return <TourPanel {...props} />;
    case "fisheye":
      return <FisheyePanel {...props} />;
    case "multi_head":
      return <RingPanel {...props} />;
    default:
      return <Corridor {...props} />;
  }
}

/** What it sits on: that hides nothing from it, drawn how roughly it may be. */
function MountedOn({ site, camera }: FormProps) {
  const edit = useSite((state) => state.edit);
  const near = (site.obstacles ?? []).filter(
    ({ id, outline, closed }) =>
      id === camera.mounted_on ||
      edgesOf(outline, closed !== false).some(
        (edge) => toEdge(edge, camera.position as Point) <= GUIDE.sits_on_within_m,
      ),
  );
  if (near.length === 0) return null;
  return (
    <label className="form-panel mounted-on">
      Sits on
      <Select
        size="small"
        aria-label="What the camera sits on"
        popupMatchSelectWidth={false}
        value={camera.mounted_on ?? ""}
        options={[
          { value: "", label: "nothing in particular" },
          ...near.map(({ id, name }) => ({ value: id, label: name })),
        ]}
        onChange={(id: string) =>
          edit(`What ${camera.name} sits on`, (draft) => {
            const held = cameraOf(draft, camera.id);
            if (!held) return;
            if (id) held.mounted_on = id;
            else delete held.mounted_on;
          })
        }
      />
    </label>
  );
}

/** Turns the picture on its side, or back. */
function Corridor({ camera, head }: FormProps) {
  const edit = useSite((state) => state.edit);
  const upright = Math.abs(Math.sin(((head.roll_deg ?? 0) * Math.PI) / 180)) < 0.5;
  return (
    <div className="form-panel">
      <Button
        size="small"
        onClick={() =>
          edit(`${upright ? "Corridor picture" : "Upright picture"} of ${camera.name}`, (site) => {
            const h = headOf(site, camera.id, head.id);
            if (h) h.roll_deg = upright ? 90 : 0;
          })
        }
      >
        {upright ? "Turn to a corridor picture" : "Turn the picture upright"}
      </Button>
    </div>
  );
}
