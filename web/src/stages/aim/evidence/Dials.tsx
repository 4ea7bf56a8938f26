/** The dials of the head in hand: height, bearing, tilt, focal length, and the distance as shot. */
import { ask } from "../../../core/port";
import type { Camera, CameraHead, Line, SightLine } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { type Change, changeOf } from "../../../keep/things";
import { type Aimed, aimedOf, hasFocal, keyOf, viewOf } from "../../../model/views";
import { setMeasured } from "../../../model/targets";
import { Dial } from "../../../ui/Dial";
import { Measure, length, plain } from "../../../ui/Measure";

interface Props {
  camera: Camera;
  head: CameraHead;
  /** The id of the head's view in hand. */
  view: string | null;
  line: Line | null;
  result: SightLine | undefined;
}

export function Dials({ camera, head, view, line, result }: Props) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const lens = head.lens ?? camera.model.lens;
  const ref = { camera: camera.id, head: head.id, view };
  const aimed = viewOf(head, view) ?? head;
  const zoom = lens.focal_max_mm > lens.focal_min_mm;
  const onCamera = changeOf("camera", camera);
  const onAimed: Change<Aimed> = (says, change, turned) =>
    onCamera(
      says,
      (_, site) => {
        const held = aimedOf(site, ref);
        if (held) change(held, site);
      },
      turned && `dial-${says}-${keyOf(ref)}`,
    );
  const shoot = async (of: Line, slant: number, gesture: boolean): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site) return;
    const points = await ask(site, { ask: "slant", camera: of.camera, target: of.target, slant_m: slant });
    edit("Set the distance as measured", (draft) => setMeasured(draft, of.target, points), gesture ? "dial-shot" : "");
  };
  return (
    <div className="dials dials-head">
      <Dial
        change={onCamera}
        of={camera.id}
        label="Height"
        value={camera.height_m}
        quantity={length(units)}
        min={0.05}
        max={500}
        set={(c, v) => (c.height_m = v)}
      />
      <Dial
        change={onAimed}
        of={keyOf(ref)}
        label="Pan (bearing)"
        value={aimed.pan_deg}
        quantity={plain("°", 1, 1)}
        min={-360}
        max={360}
        hint="Clockwise from north"
        set={(h, v) => (h.pan_deg = v)}
      />
      <Dial
        change={onAimed}
        says="Tilt"
        of={keyOf(ref)}
        label="Tilt"
        value={aimed.tilt_deg}
        quantity={plain("°", 1, 1)}
        min={-90}
        max={90}
        hint="Down from the horizontal; up with a minus"
        set={(h, v) => (h.tilt_deg = v)}
      />
      {hasFocal(aimed) && (
        <Dial
          change={onAimed}
          of={keyOf(ref)}
          label="Focal length"
          value={aimed.focal_mm}
          quantity={plain("mm", 1, 0.1)}
          min={lens.focal_min_mm}
          max={lens.focal_max_mm}
          disabled={!zoom}
          inHand={zoom}
          hint={
            zoom ? `${lens.focal_min_mm} to ${lens.focal_max_mm} mm` : "A fixed lens: choose another model to change it"
          }
          set={(a, v) => {
            if (hasFocal(a)) a.focal_mm = v;
          }}
        />
      )}
      {line && result && (
        <Measure
          of={keyOf(ref) + line.target}
          label="Laser shot"
          value={result.slant_m}
          quantity={length(units)}
          min={0.1}
          max={10000}
          hint="The slope distance from camera to target: type what the rangefinder reads, the target moves along its bearing"
          onChange={(v, g) => void shoot(line, v, g)}
        />
      )}
    </div>
  );
}

/** What is set once: how it is turned about its axis, and where it hangs. */
export function PlaceDials({ camera, head }: { camera: Camera; head: CameraHead }) {
  const units = useSettings((settings) => settings.units);
  const onCamera = changeOf("camera", camera);
  const onHead: Change<CameraHead> = (says, change, turned) =>
    onCamera(
      says,
      (held, site) => {
        const own = held.heads.find((one) => one.id === head.id);
        if (own) change(own, site);
      },
      turned && `dial-${says}-${camera.id}-${head.id}`,
    );
  const [east = 0, north = 0] = camera.position;
  // One axis at a time, of the place as it is then: the other one may have been set a moment ago.
  const move = (axis: 0 | 1, to: number, gesture: boolean): void =>
    onCamera(
      "Place",
      (c) => {
        c.position[axis] = to;
        delete c.spot;
      },
      gesture,
    );
  return (
    <div className="dials dials-place">
      <Dial
        change={onHead}
        of={`${camera.id}/${head.id}`}
        label="Roll"
        value={head.roll_deg ?? 0}
        quantity={plain("°", 0, 1)}
        min={-360}
        max={360}
        hint="Clockwise as seen from behind; 90° is a corridor picture"
        set={(h, v) => (h.roll_deg = v)}
      />
      <Dial
        change={onCamera}
        of={camera.id}
        label="Ground"
        value={camera.ground_m ?? 0}
        quantity={length(units)}
        min={-100}
        max={500}
        hint="Height of the ground under it over the plan's zero; its own height is over it"
        set={(c, v) => {
          if (v === 0) delete c.ground_m;
          else c.ground_m = v;
        }}
      />
      <Measure
        of={camera.id}
        label="East"
        value={east}
        quantity={length(units)}
        min={-100000}
        max={100000}
        onChange={(v, g) => move(0, v, g)}
      />
      <Measure
        of={camera.id}
        label="North"
        value={north}
        quantity={length(units)}
        min={-100000}
        max={100000}
        onChange={(v, g) => move(1, v, g)}
      />
    </div>
  );
}
