/** How a head takes its pictures: shutter, pictures a second, focus, and how much of its infrared light it uses. */
import { GUIDE } from "../../../core/guide";
import type { Camera, CameraHead, Exposure } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { cameraOf, headOf } from "../../../model/lookups";
import { formatLength } from "../../../ui/length";
import { Measure, length, plain } from "../../../ui/Measure";
import { SHUTTER_TIME } from "../picture/pictureView";
import { Button } from "../../../ui/controls";

/** That an infrared lamp of its own shines for the camera, and how to do without. */
export function OwnEmitter({ camera }: { camera: Camera }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const { emitter } = camera;
  if (!emitter) return null;
  const [[x = 0, y = 0], [u = 0, v = 0]] = [camera.position, emitter.position];
  return (
    <p className="fine finding-note">
      Lit by an infrared lamp of its own {formatLength(Math.hypot(u - x, v - y), units, 1)} beside it, rated{" "}
      {formatLength(emitter.light.range_m, units, 0)}.{" "}
      <Button
        size="small"
        onClick={() =>
          edit(`Take the infrared lamp of ${camera.name} away`, (site) => {
            const held = cameraOf(site, camera.id);
            if (held) delete held.emitter;
          })
        }
      >
        Take it away
      </Button>
    </p>
  );
}

export function ExposureDials({ camera, head, plate }: { camera: Camera; head: CameraHead; plate: boolean }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const set = (says: string, change: Partial<Exposure> | null, gesture = false): void =>
    edit(
      `${says} of ${camera.name}`,
      (site) => {
        const held = headOf(site, camera.id, head.id);
        if (!held) return;
        if (change === null) delete held.exposure;
        else held.exposure = { ...GUIDE.begins.exposure, ...held.exposure, ...change };
      },
      gesture ? `dial-${says}-${camera.id}-${head.id}` : "",
    );
  const { exposure } = head;
  if (!exposure)
    return plate || camera.model.form === "plate" ? (
      <p className="fine finding-note">
        No shutter is stated.{" "}
        <Button size="small" onClick={() => set("Exposure", {})}>
          Set one
        </Button>
      </p>
    ) : null;
  return (
    <div className="dials dials-place" aria-label="Exposure" role="group">
      <Measure
        of={`${camera.id}/${head.id}`}
        label={exposure.mode === "auto" ? "Longest" : "Shutter"}
        value={exposure.shutter_s ? Math.round(1 / exposure.shutter_s) : null}
        empty={{ word: "automatic", onEmpty: () => set("Shutter", { shutter_s: null }) }}
        hint="“automatic” where the camera chooses"
        quantity={SHUTTER_TIME}
        min={1}
        max={100_000}
        onChange={(v, g) => set("Shutter", { shutter_s: Number((1 / v).toPrecision(6)) }, g)}
      />
      <Measure
        of={`${camera.id}/${head.id}`}
        label="Frame rate"
        value={exposure.fps}
        quantity={plain("fps", 1, 1)}
        min={0.1}
        max={240}
        onChange={(v, g) => set("Frame rate", { fps: v }, g)}
      />
      <Measure
        of={`${camera.id}/${head.id}`}
        label="Focus"
        value={exposure.focus_m ?? null}
        empty={{ word: "auto", onEmpty: () => set("Focus", { focus_m: null }) }}
        min={0.1}
        max={10_000}
        hint="“auto” for the distance in the middle of where plates are readable"
        quantity={length(units)}
        onChange={(v, g) => set("Focus", { focus_m: v }, g)}
      />
      {camera.model.infrared_m != null || camera.model.infrared != null ? (
        <Measure
          of={`${camera.id}/${head.id}`}
          label="Infrared"
          value={100 * (exposure.infrared_share ?? 1)}
          quantity={plain("%", 0, 5)}
          min={0}
          max={100}
          hint="The share of its own light that it uses"
          onChange={(v, g) => set("Infrared", { infrared_share: v / 100 }, g)}
        />
      ) : null}
    </div>
  );
}
