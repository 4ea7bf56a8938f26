/** What only some forms of camera have: the heads of a ring, the presets of a tour, the flat views of a fisheye, the corridor turn. */
import { Button } from "antd";
import { useSite } from "../../../keep/store";
import { headOf } from "../../../model/lookups";
import { FisheyePanel } from "./forms/FisheyePanel";
import { RingPanel } from "./forms/RingPanel";
import { TourPanel } from "./forms/TourPanel";
import type { FormProps } from "./forms/formProps";
import "./forms/forms.css";

export function FormPanel(props: FormProps) {
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
