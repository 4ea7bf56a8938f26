/** A head is aimed with its real picture in hand: it comes in, lies over the expected one, landmarks are clicked, and words say what to turn. */
import { useMemo, useState } from "react";
import type { Camera, CameraHead, Clickable, HangsWish, SiteFile } from "../../../core/types";
import { useAnswer } from "../../../core/useAsked";
import { useSite } from "../../../keep/store";
import { Told } from "../../../ui/Told";
import { fitAddress } from "../../../ui/address";
import { Button, Switch } from "../../../ui/controls";
import { Corners } from "../../../pictures/Corners";
import { FindIt } from "./FindIt";
import { Follow } from "./Follow";
import { Found } from "./Found";
import { Nudge } from "./Nudge";
import { Over } from "./Over";
import { PhoneLevel } from "./PhoneLevel";
import { Sources } from "../../../pictures/Sources";
import { type RealPicture, useRealPicture } from "../../../pictures/realPicture";
import { CLICKED_PX, isOfShape } from "../../../pictures/shape";

/** How well the spot and its height are known where they are sought too, m. */
const PLACE_SIGMA_M = 0.3;
const HEIGHT_SIGMA_M = 0.05;

export function AimHead({ site, camera, head }: { site: SiteFile; camera: Camera; head: CameraHead }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const real = useRealPicture(id, camera.id, head.id);
  const sensor = camera.model.sensor;
  const { held } = real;
  const fits = held !== null && isOfShape(held, sensor);
  const [monitor, setMonitor] = useState(false);
  return (
    <main className="fit-aim">
      <header className="fit-card-head">
        <a href={fitAddress(id, camera.id)}>‹ Card</a>
        <h1>
          {camera.name} {camera.heads.length > 1 && head.id}
        </h1>
        <span className="figure">
          {head.pan_deg.toFixed(1)}° · {head.tilt_deg.toFixed(1)}° down · {head.focal_mm.toFixed(1)} mm
        </span>
      </header>
      <Sources site={site} camera={camera} head={head} real={real} />
      <PhoneLevel head={head} />
      {real.fault && (
        <p className="notice notice-bad" role="alert">
          {real.fault}
        </p>
      )}
      {held && real.url && (!fits || monitor) ? (
        <Corners
          key={real.url}
          real={real}
          url={real.url}
          sensor={sensor}
          wrongShape={!fits}
          onDone={() => setMonitor(false)}
        />
      ) : (
        <Clicking site={site} camera={camera} head={head} real={real} onMonitor={() => setMonitor(true)} />
      )}
    </main>
  );
}

function Clicking({
  site,
  camera,
  head,
  real,
  onMonitor,
}: {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  real: RealPicture;
  onMonitor(): void;
}) {
  const ref = useMemo(() => ({ camera: camera.id, head: head.id }), [camera.id, head.id]);
  const marks = useAnswer(site, { ask: "clickables", head: ref }, { keeps: false });
  const [chosen, setChosen] = useState<string | null>(null);
  const [place, setPlace] = useState(false);
  const { held } = real;
  const list = marks.value ?? [];
  const points = held?.points ?? [];
  const inHand =
    chosen ?? list.find((mark) => mark.in_view && !points.some((point) => point.id === mark.id))?.id ?? null;
  const click = (u: number, v: number): void => {
    if (!held || inHand === null) return;
    const kept = points.filter((point) => point.id !== inHand);
    const next = { ...held, points: [...kept, { id: inHand, u, v }] };
    // A hand was at it: what was found without clicks is not all there is any more.
    delete next.foundTo;
    real.put(next);
    setChosen(inHand);
  };
  const card = useAnswer(site, { ask: "card", head: ref }, { by: "surveyor", keeps: true });
  const wish = held && wishOf(camera, ref, held, list, place);
  const found = useAnswer(site, wish && { ask: "hangs", wish }, { by: "surveyor", keeps: true });
  const enough = wish !== null && wish.points.length >= 3;
  return (
    <>
      <Over site={site} camera={camera} head={head} real={real} marks={list} inHand={inHand} onClick={click} />
      {held && (
        <>
          <FindIt
            site={site}
            head={ref}
            real={real}
            shape={[camera.model.sensor.width_px, camera.model.sensor.height_px]}
          />
          <Nudge
            real={real}
            id={inHand}
            sensor={camera.model.sensor}
            says={list.find((mark) => mark.id === inHand)?.says ?? null}
            next={list.find((mark) => mark.in_view && !points.some((point) => point.id === mark.id))?.id ?? null}
            onNext={setChosen}
          />
          <Follow real={real} sensor={camera.model.sensor} hfovDeg={card.value?.hfov_deg ?? null} />
          {!enough && (
            <p className="hint" data-testid="fit-too-few">
              Click {3 - (wish?.points.length ?? 0)} more: corners that are far from each other, near and far. Four find
              a wrong one.
            </p>
          )}
          {enough && found.refused && (
            <p className="notice notice-bad" role="alert" data-testid="fit-refused">
              {found.refused}
            </p>
          )}
          {enough && !found.refused && (
            <Told settled={found.settled} testId="fit-found">
              {found.value ? (
                <Found
                  site={site}
                  camera={camera}
                  head={head}
                  found={found.value}
                  real={real}
                  settled={found.settled}
                />
              ) : (
                <p className="hint">Working …</p>
              )}
            </Told>
          )}
          <Landmarks
            marks={list}
            real={real}
            inHand={inHand}
            onChoose={setChosen}
            doubtful={enough ? (found.value?.pose.points.find((point) => point.doubtful)?.id ?? null) : null}
          />
          <p className="real-options">
            <label className="switch-line">
              <Switch size="small" checked={place} onChange={setPlace} /> Its spot may be off, too
            </label>
            <Button size="small" onClick={onMonitor}>
              It is a photo of a monitor
            </Button>
          </p>
        </>
      )}
    </>
  );
}

/** What is asked: landmarks with where they were clicked, in pixels of the head's full picture. */
function wishOf(
  camera: Camera,
  head: HangsWish["head"],
  held: NonNullable<RealPicture["held"]>,
  marks: Clickable[],
  place: boolean,
): HangsWish {
  const points = held.points.flatMap(({ id, u, v }) => {
    const mark = marks.find((one) => one.id === id);
    const [x = 0, y = 0, z = 0] = mark?.at ?? [];
    return mark ? [{ id, x, y, z, u, v, sigma_m: mark.sigma_m }] : [];
  });
  const finer = Math.max(1, camera.model.sensor.width_px / held.width);
  return {
    head,
    points,
    wish: {
      sigma_px: CLICKED_PX * finer,
      ...(place ? { position_sigma_m: PLACE_SIGMA_M, height_sigma_m: HEIGHT_SIGMA_M } : {}),
    },
  };
}

function Landmarks({
  marks,
  real,
  inHand,
  onChoose,
  doubtful,
}: {
  marks: Clickable[];
  real: RealPicture;
  inHand: string | null;
  onChoose(id: string): void;
  doubtful: string | null;
}) {
  const { held, put } = real;
  const [all, setAll] = useState(false);
  if (!held) return null;
  const clicked = (id: string): boolean => held.points.some((point) => point.id === id);
  const shown = marks.filter((mark) => all || mark.in_view || clicked(mark.id));
  return (
    <section aria-label="Landmarks" className="fit-marks">
      <ul>
        {shown.map((mark) => (
          <li key={mark.id} className={mark.id === doubtful ? "fit-doubtful" : ""}>
            <button
              type="button"
              aria-pressed={mark.id === inHand}
              data-testid={`landmark-${mark.id}`}
              data-at={mark.at.join(",")}
              onClick={() => onChoose(mark.id)}
            >
              {clicked(mark.id) ? "✕" : "○"} {mark.says}
              {mark.id === doubtful && " – is it this one?"}
            </button>
            {clicked(mark.id) && (
              <Button
                size="small"
                type="text"
                aria-label={`Take the click on ${mark.says} back`}
                onClick={() => put({ ...held, points: held.points.filter((point) => point.id !== mark.id) })}
              >
                Take back
              </Button>
            )}
          </li>
        ))}
      </ul>
      {!all && marks.length > shown.length && (
        <Button size="small" type="text" onClick={() => setAll(true)}>
          Landmarks beside the picture ({marks.length - shown.length})
        </Button>
      )}
      {marks.length === 0 && (
        <p className="hint">No corner is near this picture. Draw what is there, or let somebody stand at a target.</p>
      )}
    </section>
  );
}
