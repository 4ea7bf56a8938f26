/** Two pictures of the same promise side by side: as the head in hand is, and with another lens, resolution or height. */
import { useMemo, useState } from "react";
import useMeasure from "react-use-measure";
import { useAsked } from "../../../core/useAsked";
import type { Slot } from "../../../core/hands";
import { ask } from "../../../core/port";
import type { Camera, HeadRef, PictureTold, SiteFile } from "../../../core/types";
import type { Shown } from "../../../core/useSights";
import { useCatalogue } from "../../../core/useStock";
import { usePicture } from "../../../core/usePicture";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { setModel } from "../../../model/cameras";
import { useInHand } from "../../../model/inHand";
import { cameraOf, headOf, targetOf } from "../../../model/lookups";
import { aimedOf, hasFocal, nameOf } from "../../../model/views";
import { Measure, length, plain } from "../../../ui/Measure";
import { VerdictMark } from "../../../ui/VerdictMark";
import { LoupePixels, loupeCorner, loupeSays, markOf, toldBy, useLoupe } from "./Loupe";
import { Pixels } from "../../../ui/Pixels";
import { lightOf, sensorOf, usePictureLook, widthIn } from "./pictureView";
import { Button, Select } from "../../../ui/controls";

/** What is different in the other picture. */
interface Other {
  /** Another model; null for its own. */
  model: string | null;
  focal: number | null;
  height: number | null;
}

const SAME: Other = { model: null, focal: null, height: null };
/** How wide a piece of the world the loupes show, as shares of the subject's bracket. */
const AROUND = 1.5;

export function BesideView({ shown }: { shown: Shown }) {
  const { site } = shown;
  const { head: inHand, target } = useInHand();
  const head = inHand && headOf(site, inHand.camera, inHand.head) ? inHand : null;
  const held = target !== null && targetOf(site, target) ? target : null;
  if (!head || !held) return <p className="hint beside-hint">Choose a promise and a camera that looks at it.</p>;
  return <Beside key={`${head.camera}/${head.head}`} site={site} head={head} target={held} />;
}

function Beside({ site, head, target }: { site: SiteFile; head: HeadRef; target: string }) {
  const [other, setOther] = useState(SAME);
  const { then, settled } = useOther(site, head, target, other);
  const [frame, { width, height }] = useMeasure();
  const edit = useSite((state) => state.edit);
  const use = (): void => {
    // A camera of another state of the site would take back what was done since.
    const camera = then && settled && cameraOf(then, head.camera);
    if (!camera) return;
    edit(`${camera.name} as compared`, (draft) => {
      draft.cameras = draft.cameras.map((now) => (now.id === camera.id ? camera : now));
    });
    setOther(SAME);
  };
  const room: [number, number] = [width / 2 - 6, height - 52];
  return (
    <div className="beside" ref={frame} data-testid="beside">
      <Half site={site} head={head} target={target} room={room} slots={["left", "leftLoupe"]}>
        <strong className="beside-name">{nameOf(site, head)}, as it is</strong>
      </Half>
      <Half
        site={then ?? site}
        head={head}
        target={target}
        room={room}
        slots={["right", "rightLoupe"]}
        act={
          <Button size="small" onClick={use} disabled={other === SAME || !settled} aria-label="Use the compared lens">
            Use it
          </Button>
        }
      >
        <OtherDials site={then ?? site} head={head} other={other} set={setOther} />
      </Half>
    </div>
  );
}

/** The site with the other lens, resolution or height; aimed at the promise where it hangs higher or lower. With whether that is of the site as it is. */
function useOther(
  site: SiteFile,
  head: HeadRef,
  target: string,
  other: Other,
): { then: SiteFile | null; settled: boolean } {
  const made = useAsked(site, JSON.stringify([head, target, other]), (of) => otherCamera(of, head, target, other), {
    rest: "live",
  });
  const camera = made.value;
  const then = useMemo(() => {
    if (!camera) return null;
    return { ...site, cameras: site.cameras.map((held) => (held.id === camera.id ? camera : held)) };
  }, [site, camera]);
  return { then, settled: made.settled && camera !== null };
}

async function otherCamera(site: SiteFile, head: HeadRef, target: string, other: Other): Promise<Camera | null> {
  const own = cameraOf(site, head.camera);
  if (!own) return null;
  const camera = structuredClone(own);
  const draft: SiteFile = { ...site, cameras: site.cameras.map((held) => (held.id === camera.id ? camera : held)) };
  if (other.model !== null && other.model !== own.model.name)
    setModel(draft, await ask(site, { ask: "model", camera: head.camera, model: other.model }));
  const aimed = aimedOf(draft, head);
  if (!aimed) return null;
  const lens = headOf(draft, head.camera, head.head)?.lens ?? camera.model.lens;
  if (other.focal !== null && hasFocal(aimed))
    aimed.focal_mm = Math.min(Math.max(other.focal, lens.focal_min_mm), lens.focal_max_mm);
  if (other.height !== null) {
    camera.height_m = other.height;
    const aim = await ask(draft, { ask: "aim", line: { ...head, target } });
    [aimed.pan_deg, aimed.tilt_deg] = [aim.pan_deg, aim.tilt_deg];
  }
  return camera;
}

function OtherDials({
  site,
  head,
  other,
  set,
}: {
  site: SiteFile;
  head: HeadRef;
  other: Other;
  set(other: Other): void;
}) {
  const models = useCatalogue() ?? [];
  const units = useSettings((settings) => settings.units);
  const camera = cameraOf(site, head.camera);
  const aimed = aimedOf(site, head);
  if (!camera || !aimed) return null;
  const lens = headOf(site, head.camera, head.head)?.lens ?? camera.model.lens;
  const { name, form } = camera.model;
  const own = models.some((model) => model.name === name) ? [] : [{ value: name, label: name }];
  const others = models
    .filter((model) => model.form === form)
    .map((model) => ({ value: model.name, label: model.name }));
  return (
    <>
      <Select
        size="small"
        className="beside-model"
        aria-label="Model and lens to compare"
        showSearch
        value={name}
        popupMatchSelectWidth={false}
        options={[...own, ...others]}
        onChange={(model: string) => set({ ...other, model, focal: null })}
      />
      {hasFocal(aimed) && lens.focal_max_mm > lens.focal_min_mm && (
        <Measure
          of={camera.id}
          label="Focal length"
          name="Focal length to compare"
          value={aimed.focal_mm}
          quantity={plain("mm", 1, 0.5)}
          min={lens.focal_min_mm}
          max={lens.focal_max_mm}
          onChange={(focal) => set({ ...other, focal })}
        />
      )}
      <Measure
        of={camera.id}
        label="Height"
        name="Height to compare"
        value={camera.height_m}
        quantity={length(units)}
        min={0.05}
        max={500}
        onChange={(height) => set({ ...other, height })}
      />
    </>
  );
}

interface HalfProps {
  site: SiteFile;
  head: HeadRef;
  target: string;
  room: [number, number];
  slots: [Slot, Slot];
  children: React.ReactNode;
  /** What can be done with it. */
  act?: React.ReactNode;
}

/** One of the two: its picture, and in it the same piece of the world in its own pixels. */
function Half({ site, head, target, room, slots, children, act }: HalfProps) {
  const look = usePictureLook();
  const light = lightOf(look);
  const sensor = sensorOf(site, head);
  const wide = sensor ? Math.max(widthIn(sensor, room[0], room[1]), 0) : 0;
  const tall = sensor ? Math.round((wide * sensor[1]) / sensor[0]) : 0;
  const whole = usePicture(
    site,
    head,
    wide > 0 ? JSON.stringify({ window: { whole: { width: wide } }, light, grid: look.grid, shutter_s: 0 }) : null,
    slots[0],
    "rest",
  );
  const mark = whole.shown ? markOf(whole.shown.told, target) : undefined;
  const size = sameWorld(mark, tall);
  const loupe = useLoupe(
    site,
    head,
    size ? target : null,
    size ?? NONE,
    { light, shutter: look.shutter },
    slots[1],
    "rest",
  );
  return (
    <figure className="beside-half" data-settled={whole.settled && (!size || loupe.settled)}>
      <figcaption>{children}</figcaption>
      <div className="picture-whole" style={{ width: wide, height: tall }}>
        {whole.shown && <Pixels shown={whole.shown} className="picture-pixels" label="The whole picture" />}
        {size && loupe.shown && whole.shown && (
          <div className={`loupe loupe-${loupeCorner(whole.shown.told, target, [wide, tall], size)}`}>
            <LoupePixels shown={loupe.shown} target={target} times={size.times} />
          </div>
        )}
      </div>
      <div className="beside-foot">
        <p className="fine beside-says">
          {mark && <VerdictMark verdict={mark.verdict} size={13} />}{" "}
          {whole.shown && loupeSays(toldBy(whole.shown, loupe.shown), site, target)}
        </p>
        {act}
      </div>
    </figure>
  );
}

const NONE = { across: 1, down: 1, times: 1 };

/** A loupe that shows as much of the world whatever the pixels: the subject with a margin, as tall as half of the picture. */
function sameWorld(mark: PictureTold["marks"][number] | undefined, tall: number): typeof NONE | null {
  if (!mark?.bracket || tall <= 0) return null;
  const [left = 0, top = 0, right = 0, bottom = 0] = mark.bracket;
  const down = Math.max(Math.round((bottom - top) * AROUND), 4);
  const across = Math.max(Math.round((right - left) * AROUND), 4);
  return { across, down, times: Math.min((tall * 0.5) / down, (tall * 0.9) / across) };
}
