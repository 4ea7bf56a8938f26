/** How a fisheye hangs, and the dewarped pictures that are cut out of its round one. */
import { useSite } from "../../../../keep/store";
import { useInHand } from "../../../../model/inHand";
import { cameraOf, headOf } from "../../../../model/lookups";
import { type Hanging, addFlattened, hang, hangingOf, removeFlattened } from "../../../../model/tours";
import { refOf, viewOf } from "../../../../model/views";
import { Measure, plain } from "../../../../ui/Measure";
import type { FormProps } from "./formProps";
import { Button, Segmented } from "../../../../ui/controls";

export function FisheyePanel({ camera, head, view }: FormProps) {
  const edit = useSite((state) => state.edit);
  const takeHead = useInHand((state) => state.takeHead);
  const onHead = (says: string, change: (h: typeof head) => void, gesture = ""): void =>
    edit(
      `${says} ${camera.name}`,
      (site) => {
        const h = headOf(site, camera.id, head.id);
        if (h) change(h);
      },
      gesture,
    );
  const hanging = hangingOf(head);
  const flat = (head.flattened ?? []).find((held) => held.id === view);
  const add = (): void => {
    let made = "";
    onHead("Add a dewarped view to", (h) => {
      made = addFlattened(camera, h);
    });
    takeHead({ camera: camera.id, head: head.id, view: made });
  };
  return (
    <div className="form-panel" role="group" aria-label={`Fisheye ${camera.name}`}>
      <Segmented
        size="small"
        aria-label="How it hangs"
        value={hanging ?? ""}
        options={[
          { value: "ceiling", label: "on a ceiling" },
          { value: "wall", label: "on a wall" },
          { value: "table", label: "on a table" },
        ]}
        onChange={(how) => onHead("Hang", (h) => hang(h, how as Hanging))}
      />
      <p className="fine">
        {hanging === "wall"
          ? "Its arrow points up."
          : "Its arrow points the way of the bearing: note it before the sticker goes."}
        {hanging === "wall" && (head.roll_deg ?? 0) !== 0 && " It is turned now: the picture will hang crooked."}
      </p>
      <ul className="view-list" aria-label="Dewarped views">
        <li className={viewOf(head, view) ? "" : "view-in-hand"}>
          <button type="button" onClick={() => takeHead({ camera: camera.id, head: head.id })}>
            Round picture
          </button>
        </li>
        {(head.flattened ?? []).map((held) => (
          <li key={held.id} className={held.id === view ? "view-in-hand" : ""}>
            <button type="button" onClick={() => takeHead(refOf(camera, head, held.id))}>
              {held.name}
            </button>
            <span className="figure fine">
              {held.pan_deg.toFixed(0)}° · {held.hfov_deg.toFixed(0)}° wide
            </span>
            <Button
              size="small"
              type="text"
              aria-label={`Delete ${held.name}`}
              onClick={() => {
                onHead(`Delete ${held.name} of`, (h) => removeFlattened(h, held.id));
                takeHead({ camera: camera.id, head: head.id });
              }}
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
      <ImageCircle camera={camera} />
      {flat && (
        <Measure
          of={`${camera.id}/${flat.id}`}
          label="Field"
          value={flat.hfov_deg}
          quantity={plain("°", 0, 1)}
          min={5}
          max={150}
          hint="How wide the dewarped picture is. It has no more pixels than the round one under it."
          onChange={(value, gesture) =>
            onHead(
              `Field of ${flat.name} of`,
              (h) => {
                const held = (h.flattened ?? []).find((f) => f.id === flat.id);
                if (held) held.hfov_deg = value;
              },
              gesture ? `field-${camera.id}-${flat.id}` : "",
            )
          }
        />
      )}
      <Button size="small" onClick={add}>
        Add a dewarped view
      </Button>
    </div>
  );
}

/** How much of the sensor the lens lights: where the circle is smaller than the sensor, outside of it is nothing. */
function ImageCircle({ camera }: { camera: FormProps["camera"] }) {
  const edit = useSite((state) => state.edit);
  const { width_px, height_px, image_circle_px } = camera.model.sensor;
  const whole = Math.ceil(Math.hypot(width_px, height_px));
  return (
    <Measure
      of={camera.id}
      label="Image circle"
      value={image_circle_px ?? whole}
      quantity={plain("px", 0, 16)}
      min={16}
      max={whole}
      hint={`Across, on the sensor; ${whole} px and the whole sensor is lit.`}
      onChange={(value, gesture) =>
        edit(
          `Image circle of ${camera.name}`,
          (site) => {
            const held = cameraOf(site, camera.id);
            if (!held) return;
            if (value >= whole) delete held.model.sensor.image_circle_px;
            else held.model.sensor.image_circle_px = Math.round(value);
          },
          gesture ? `circle-${camera.id}` : "",
        )
      }
    />
  );
}
