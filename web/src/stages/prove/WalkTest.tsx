/** The walk test at one target: the picture with what the plan has there, two marks or a plate or a word, and what that proves. */
import { useMemo, useRef, useState } from "react";
import { type Asked, useAnswer } from "../../core/useAsked";
import type {
  Camera,
  CameraHead,
  HeadRef,
  Hung,
  Proof,
  ProofHow,
  PromiseProved,
  SiteFile,
  Target,
} from "../../core/types";
import { usePicture } from "../../core/usePicture";
import { keepEvidence } from "../../keep/evidence";
import { holdPicture } from "../../keep/heldPictures";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { type TryDraft, useTries } from "../../keep/tries";
import { targetOf } from "../../model/lookups";
import { computedWish } from "../../pictures/computed";
import { Cross, Overlay } from "../../pictures/Overlay";
import { Sources } from "../../pictures/Sources";
import { Corners } from "../../pictures/Corners";
import { useRealPicture } from "../../pictures/realPicture";
import { CLICKED_PX, isOfShape } from "../../pictures/shape";
import { Measure, length } from "../../ui/Measure";
import { Pixels } from "../../ui/Pixels";
import { TextLine } from "../../ui/TextLine";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { fitAddress, goTo, proveAddress } from "../../ui/address";
import { Button, Segmented, Select, Switch } from "../../ui/controls";
import { freshKey, keepProof } from "./proveEdits";
import { Tries } from "./Tries";
import { useProveView } from "./proveView";
import { keyOf } from "./WalkPanel";

/** How wide the computed picture is worked out, px. */
const WIDE = 640;
/** Marks as they usually are, m: a board for people, a plate across; common practice, no source. */
const BOARD_M = 1.6;
const PLATE_M = 0.52;

type Way = NonNullable<TryDraft["way"]>;
const NOTHING: TryDraft = {};

export function WalkTest({ site, promise, settled }: { site: SiteFile; promise: PromiseProved; settled: boolean }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const target = targetOf(site, promise.target);
  const views = viewsOf(site);
  const [by, setBy] = useState<string | null>(null);
  const chosen =
    views.find((one) => one.key === by) ??
    views.find((one) => promise.best && one.key === keyOf(promise.best)) ??
    views[0];
  if (!target || !chosen)
    return (
      <section className="prove-empty">
        <p className="hint">There is no camera yet that could see it: cameras come on the stage Aim.</p>
      </section>
    );
  return (
    <>
      <a className="prove-back" href={proveAddress(id, "walk")}>
        ‹ All promises
      </a>
      <Test
        {...chosen}
        key={chosen.key}
        site={site}
        promise={promise}
        target={target}
        settled={settled}
        choose={
          <Select
            size="small"
            value={chosen.key}
            onChange={setBy}
            aria-label="In the picture of"
            options={views.map(({ key, name }) => ({ value: key, label: name }))}
          />
        }
      />
    </>
  );
}

interface ViewOf {
  key: string;
  name: string;
  camera: Camera;
  head: CameraHead;
  view: string | null;
}

/** Every view that a target can be tried in. */
function viewsOf(site: SiteFile): ViewOf[] {
  return site.cameras
    .filter(({ existing }) => existing !== "goes")
    .flatMap((camera) =>
      camera.heads.flatMap((head) => {
        const views = [...(head.presets ?? []), ...(head.flattened ?? [])];
        const own = (head.presets ?? []).length === 0 ? [null] : [];
        return [...own, ...views].map((one) => ({
          key: keyOf({ camera: camera.id, head: head.id, view: one?.id ?? null }),
          name: [camera.name, ...(camera.heads.length > 1 ? [head.id] : []), ...(one ? [one.name] : [])].join(" "),
          camera,
          head,
          view: one?.id ?? null,
        }));
      }),
    );
}

function Test({
  site,
  promise,
  target,
  camera,
  head,
  view,
  settled,
  choose,
}: ViewOf & {
  site: SiteFile;
  promise: PromiseProved;
  target: Target;
  settled: boolean;
  choose: React.ReactNode;
}) {
  const id = useSite((state) => state.open?.id) ?? "";
  const { night, set } = useProveView();
  const ref = useMemo(
    (): HeadRef => ({ camera: camera.id, head: head.id, ...(view ? { view } : {}) }),
    [camera.id, head.id, view],
  );
  const slot = [head.id, ...(view ? [view] : []), target.id, night ? "night" : "day"].join(".");
  return (
    <OneTest
      key={slot}
      {...{ site, promise, target, camera, head, settled, choose, id, night }}
      head_ref={ref}
      slot={slot}
      onNight={(next) => set({ night: next })}
    />
  );
}

function OneTest({
  site,
  id,
  promise,
  target,
  camera,
  head,
  head_ref,
  slot,
  night,
  onNight,
  settled,
  choose,
}: {
  site: SiteFile;
  id: string;
  promise: PromiseProved;
  target: Target;
  camera: Camera;
  head: CameraHead;
  head_ref: HeadRef;
  slot: string;
  night: boolean;
  onNight(night: boolean): void;
  settled: boolean;
  choose: React.ReactNode;
}) {
  const real = useRealPicture(id, camera.id, slot, "prove");
  const sights = useAnswer(site, { ask: "sights", target: target.id, head: head_ref }, { keeps: false });
  const { shown } = usePicture(site, head_ref, computedWish(WIDE, night), "view", "rest");
  const sensor = useMemo(() => sizeOf(camera, head, head_ref), [camera, head, head_ref]);
  const { held, url } = real;
  const fits = held !== null && isOfShape(held, sensor);
  const tries = useTries();
  const key = `${id}/${camera.id}/${slot}`;
  const draft = tries.drafts[key] ?? NOTHING;
  const put = (change: TryDraft): void => tries.put(key, change);
  const way: Way = draft.way ?? (promise.walk === "plate" ? "plate" : "marks");
  const marks = held?.points ?? [];
  const click = (u: number, v: number): void => {
    if (!held || way !== "marks") return;
    // A third click moves the nearer of the two.
    const at = (mark: { u: number; v: number }): number => Math.hypot(mark.u - u, mark.v - v);
    const [a, b] = marks;
    const taken = !a ? "a" : !b ? "b" : at(a) < at(b) ? a.id : b.id;
    real.put({ ...held, points: [...marks.filter((mark) => mark.id !== taken), { id: taken, u, v }].sort(byId) });
  };
  const pixel = sights.value?.line?.pixel;
  return (
    <>
      <section className="prove-middle" aria-label="Picture">
        <h2 className="prove-title">
          {promise.name} <span className="fine">needs</span>{" "}
          <span className="figure">{promise.needs_px_per_m.toFixed(0)} px/m</span>
        </h2>
        <div className="row">
          {choose}
          <Segmented<string>
            size="small"
            value={night ? "night" : "day"}
            onChange={(next) => onNight(next === "night")}
            options={[
              { value: "day", label: "By day" },
              { value: "night", label: "By night" },
            ]}
          />
        </div>
        <Sources site={site} camera={camera} head={head} real={real} evidence={{ night }} standIn={!head_ref.view} />
        {real.fault && (
          <p className="notice notice-bad" role="alert">
            {real.fault}
          </p>
        )}
        {held && url && !fits ? (
          <Corners key={url} real={real} url={url} sensor={sensor} wrongShape onDone={() => undefined} />
        ) : (
          <Overlay
            site={site}
            size={sensor}
            under={shown && <Pixels shown={shown} className="real-expected" label="What it must show, computed" />}
            real={url && held ? { url, width: held.width, height: held.height, corners: held.corners } : null}
            coming={real.coming}
            testId="prove-frame"
            middle={pixel ? { id: target.id, at: [pixel[0] ?? 0, pixel[1] ?? 0] } : null}
            marks={(scale) => (
              <>
                {pixel && <Bracket at={[(pixel[0] ?? 0) * scale, (pixel[1] ?? 0) * scale]} />}
                {marks.length === 2 && <Between marks={marks} scale={scale} />}
                {marks.map(({ id: mark, u, v }) => (
                  <Cross key={mark} at={[u * scale, v * scale]} />
                ))}
              </>
            )}
            onClick={click}
          />
        )}
        {held?.name && (
          <p className="fine prove-hash">
            As it came{held.changed ? ` (${held.changed})` : ""}: SHA-256 {held.name.slice(0, 16)}…
          </p>
        )}
      </section>
      <section className="prove-right" aria-label="Test">
        <TryForm
          {...{ site, id, promise, target, camera, head, head_ref, night, real, way, sensor, draft, put }}
          setWay={(next) => put({ way: next })}
          drop={() => tries.drop(key)}
        />
        <Told settled={settled}>
          <Tries half={night ? promise.night : promise.day} name={promise.name} night={night} site={site} />
        </Told>
      </section>
    </>
  );
}

const byId = (a: { id: string }, b: { id: string }): number => a.id.localeCompare(b.id);

/** The size of the picture of a view, px. */
function sizeOf(camera: Camera, head: CameraHead, ref: HeadRef): { width_px: number; height_px: number } {
  const flat = head.flattened?.find(({ id }) => id === ref.view);
  return flat ? { width_px: flat.width_px, height_px: flat.height_px } : camera.model.sensor;
}

/** Where the plan has the target. */
function Bracket({ at: [u, v] }: { at: [number, number] }) {
  const corner = (x: number, y: number): string => `M${u + x * 16} ${v + y * 9}V${v + y * 16}H${u + x * 9}`;
  return <path className="prove-bracket" d={[corner(-1, -1), corner(1, -1), corner(-1, 1), corner(1, 1)].join("")} />;
}

function Between({ marks: [a, b], scale }: { marks: { u: number; v: number }[]; scale: number }) {
  if (!a || !b) return null;
  return <line className="prove-between" x1={a.u * scale} y1={a.v * scale} x2={b.u * scale} y2={b.v * scale} />;
}

function TryForm({
  site,
  id,
  promise,
  target,
  camera,
  head,
  head_ref,
  night,
  real,
  way,
  setWay,
  sensor,
  draft,
  put,
  drop,
}: {
  draft: TryDraft;
  put(change: TryDraft): void;
  drop(): void;
  site: SiteFile;
  id: string;
  promise: PromiseProved;
  target: Target;
  camera: Camera;
  head: CameraHead;
  head_ref: HeadRef;
  night: boolean;
  real: ReturnType<typeof useRealPicture>;
  way: Way;
  setWay(way: Way): void;
  sensor: { width_px: number };
}) {
  const units = useSettings((settings) => settings.units);
  const { surveyor, set } = useSettings();
  const person = target.subject === "person" || target.subject === "face";
  const { apart_m: apart = promise.walk === "plate" ? PLATE_M : BOARD_M, shown = "", read = "", moved = "" } = draft;
  const upright = draft.upright ?? (person || target.subject === "scene");
  const [fault, setFault] = useState("");
  const hung = useAnswer(site, { ask: "hung", head: head_ref }, { by: "surveyor" });
  const how = howOf({ way, real, apart, upright, shown, read, sensor });
  const proof = how && hung.value ? proofOf({ promise, head_ref, night, how, hung: hung.value, by: surveyor }) : null;
  // Asked with the same words as long as the same is meant: what it is called and when come as it is kept.
  const told = useAnswer(site, proof && { ask: "try_out", proof }, { by: "surveyor", keeps: true });
  /** The picture in hand is the one to aim by, too: how the head hangs now is found in it. */
  const aimByIt = async (): Promise<void> => {
    if (real.held) {
      const key = { held: "fit", site: id, camera: camera.id, head: head.id } as const;
      await holdPicture(key, { ...real.held, points: [] });
    }
    goTo(fitAddress(id, camera.id, head.id));
  };
  const keeping = useRef(false);
  const keep = async (said: ProofHow): Promise<void> => {
    setFault("");
    // A second press while the picture is being put away keeps nothing twice.
    if (!hung.value || keeping.current) return;
    const { held } = real;
    keeping.current = true;
    const room = held === null || (await keepEvidence(id, held));
    keeping.current = false;
    if (!room) {
      setFault("This device has no room for the picture: nothing was kept.");
      return;
    }
    const made = proofOf({ promise, head_ref, night, how: said, hung: hung.value, by: surveyor });
    keepProof(
      {
        ...made,
        id: freshKey("proof"),
        at: held?.at ?? new Date().toISOString(),
        ...(held?.name ? { picture: { picture: held.name, width_px: held.width, height_px: held.height } } : {}),
        ...(moved.trim() ? { moved: moved.trim() } : {}),
      },
      promise.name,
    );
    // What was kept once is not kept again by a second press.
    real.drop();
    drop();
  };
  return (
    <form className="prove-form" aria-label="Try it out" onSubmit={(event) => event.preventDefault()}>
      <Segmented<Way>
        value={way}
        onChange={setWay}
        options={[
          { value: "marks", label: "Two marks" },
          ...(target.subject === "plate" ? [{ value: "plate" as const, label: "Plate" }] : []),
          { value: "yes", label: "Client says" },
        ]}
      />
      {way === "marks" && (
        <>
          <p className="real-click-it" data-testid="prove-click">
            {!real.held
              ? "Stand there with a board or a car, take the picture, and click two marks a known distance apart."
              : real.held.points.length < 2
                ? `Click the ${real.held.points.length === 0 ? "first" : "second"} mark.`
                : "A further click moves the nearer mark."}
          </p>
          <div className="row">
            <Measure
              of={`apart ${target.id}`}
              label="Apart"
              value={apart}
              quantity={length(units)}
              min={0.05}
              max={20}
              onChange={(apart_m) => put({ apart_m })}
            />
            <label className="switch-line">
              <Switch size="small" checked={upright} onChange={(next) => put({ upright: next })} /> one above the other
            </label>
          </div>
        </>
      )}
      {way === "plate" && (
        <>
          <TextLine
            of={`shown ${target.id}`}
            word="On the plate"
            value={shown}
            onChange={(text) => put({ shown: text })}
          />
          <TextLine
            of={`read ${target.id}`}
            word="Read in the picture, ? for what cannot be"
            value={read}
            onChange={(text) => put({ read: text })}
          />
        </>
      )}
      {way === "yes" && (
        <div className="row">
          <Button size="large" onClick={() => void keep({ kind: "yes", yes: true })}>
            {person ? "They know who it is" : "It will do"}
          </Button>
          <Button size="large" onClick={() => void keep({ kind: "yes", yes: false })}>
            {person ? "They do not" : "It will not"}
          </Button>
        </div>
      )}
      {proof && <Result told={told} hold={how} keep={keep} />}
      {fault && (
        <p className="notice notice-bad" role="alert">
          {fault}
        </p>
      )}
      <TextLine
        of={`moved ${target.id}`}
        word="Turned or moved to get there?"
        placeholder="nothing"
        value={moved}
        onChange={(text) => put({ moved: text })}
      />
      {moved !== "" && (
        <p className="fine">
          How it hangs now belongs into the plan before the test is kept:{" "}
          <button type="button" className="link" onClick={() => void aimByIt()}>
            {real.held ? "aim by this picture" : "aim by its picture"}
          </button>
          , and take that over as built.
        </p>
      )}
      <TextLine of="surveyor" word="Who tries" value={surveyor} onChange={(text) => set({ surveyor: text })} />
    </form>
  );
}

function Result({
  told,
  hold,
  keep,
}: {
  told: Asked<import("../../core/types").ProofTold>;
  hold: ProofHow | null;
  keep(how: ProofHow): Promise<void>;
}) {
  if (told.refused) return <p className="notice notice-bad">{told.refused}</p>;
  if (!told.value) return <p className="hint">Working …</p>;
  return (
    <Told settled={told.settled} testId="prove-result" className="prove-result">
      <p className="prove-says">
        <VerdictMark verdict={told.value.verdict} size={22} /> {told.value.says}
      </p>
      {told.value.odd.map((says) => (
        <p key={says} className="prove-odd">
          {says}
        </p>
      ))}
      {told.value.verdict !== "kept" && (
        <p className="fine">Turn, zoom or move it, take the picture again, and measure again.</p>
      )}
      <Button type="primary" size="large" block disabled={!told.settled} onClick={() => hold && void keep(hold)}>
        Keep it
      </Button>
    </Told>
  );
}

function howOf({
  way,
  real,
  apart,
  upright,
  shown,
  read,
  sensor,
}: {
  way: Way;
  real: ReturnType<typeof useRealPicture>;
  apart: number;
  upright: boolean;
  shown: string;
  read: string;
  sensor: { width_px: number };
}): ProofHow | null {
  if (way === "plate") return shown.trim() === "" || read.trim() === "" ? null : { kind: "plate", shown, read };
  const [a, b] = real.held?.points ?? [];
  if (way !== "marks" || !real.held || !a || !b) return null;
  // A smaller picture is clicked less finely; a photo of a monitor no finer than the photo is.
  const clicked_px = CLICKED_PX * Math.max(1, sensor.width_px / real.held.width);
  return { kind: "marks", a: [a.u, a.v], b: [b.u, b.v], apart_m: apart, upright, clicked_px };
}

function proofOf({
  promise,
  head_ref: { camera, head, view },
  night,
  how,
  hung,
  by,
}: {
  promise: PromiseProved;
  head_ref: HeadRef;
  night: boolean;
  how: ProofHow;
  hung: Hung;
  by: string;
}): Proof {
  return {
    id: "now",
    target: promise.target,
    camera,
    head,
    ...(view ? { view } : {}),
    ...(by ? { by } : {}),
    ...(night ? { night } : {}),
    how,
    hung,
    needed_px_per_m: promise.needs_px_per_m,
  };
}
