/** One camera's pictures by day or by night: a new one comes in, is held against the reference, and is kept with what differs. */
import { useEffect, useMemo, useState } from "react";
import { comparer } from "../../core/comparer";
import { Fallen, Refused } from "../../core/errors";
import type { Compared, HeadRef, Looked, ProvingRules, SiteFile, Snapshot } from "../../core/types";
import { useAnswer } from "../../core/useAsked";
import { usePicture } from "../../core/usePicture";
import { evidenceOf, keepEvidence } from "../../keep/evidence";
import type { HeldPicture } from "../../keep/heldPictures";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { computedWish } from "../../pictures/computed";
import { Overlay } from "../../pictures/Overlay";
import { Sources } from "../../pictures/Sources";
import { useRealPicture } from "../../pictures/realPicture";
import { Pixels } from "../../ui/Pixels";
import { Told } from "../../ui/Told";
import { fitAddress, proveAddress } from "../../ui/address";
import { Button } from "../../ui/controls";
import { Differences } from "./Differences";
import { Series } from "./Series";
import { EvidenceImage, useEvidence } from "./Tries";
import { dropSnapshot, keepSnapshot, snapshotOf } from "./proveEdits";
import { half, when } from "./words";

const WIDE = 640;
/** So often what fell over is asked again. */
const TRIES = 3;

export function HeadPictures({ site, looked, settled }: { site: SiteFile; looked: Looked; settled: boolean }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const { night, name } = looked;
  const { surveyor } = useSettings();
  const head_ref = useMemo(
    (): HeadRef => ({
      camera: looked.head.camera,
      head: looked.head.head,
      ...(looked.head.view ? { view: looked.head.view } : {}),
    }),
    [looked.head.camera, looked.head.head, looked.head.view],
  );
  const camera = site.cameras.find((one) => one.id === head_ref.camera);
  const head = camera?.heads.find((one) => one.id === head_ref.head);
  const slot = [head_ref.head, ...(head_ref.view ? [head_ref.view] : []), "look", night ? "night" : "day"].join(".");
  const real = useRealPicture(id, head_ref.camera, slot, "prove");
  const hung = useAnswer(site, { ask: "hung", head: head_ref }, { by: "surveyor" });
  const reference = site.snapshots?.find((one) => one.id === looked.reference) ?? null;
  const later = site.snapshots?.find((one) => one.id === looked.later) ?? null;
  const comparison = useComparison(site.rules?.proving, id, reference, real.held, looked.hfov_deg);
  const [fault, setFault] = useState("");
  const shownLater = useEvidence(real.held ? null : (later?.picture.picture ?? null));
  const referenceUrl = useEvidence(reference?.picture.picture ?? null);
  const { shown } = usePicture(site, referenceUrl ? null : head_ref, computedWish(WIDE, night), "view", "rest");
  if (!camera || !head) return null;
  const keep = async (against: Snapshot["against"]): Promise<void> => {
    setFault("");
    const { held } = real;
    if (!held?.name || !hung.value) return;
    if (!(await keepEvidence(id, held))) {
      setFault("This device has no room for the picture: nothing was kept.");
      return;
    }
    const whose = { head: head_ref, night, by: surveyor, hung: hung.value };
    keepSnapshot(snapshotOf(whose, { ...held, name: held.name }, against), name);
    real.drop();
  };
  const { held, url } = real;
  const size = held ?? (later ? sizeOf(later) : null) ?? (reference ? sizeOf(reference) : null);
  const picture = held && url ? { url, width: held.width, height: held.height, corners: null } : null;
  const kept =
    shownLater && later
      ? { url: shownLater, width: later.picture.width_px, height: later.picture.height_px, corners: null }
      : null;
  const regions = held ? (comparison.found?.regions ?? []) : looked.faults.flatMap((one) => one.regions);
  const wide = size?.width ?? camera.model.sensor.width_px;
  return (
    <>
      <a className="prove-back" href={proveAddress(id, "pictures")}>
        ‹ All cameras
      </a>
      <section className="prove-middle" aria-label="Picture">
        <h2 className="prove-title">
          {name}, {half(night)}
        </h2>
        <Sources site={site} camera={camera} head={head} real={real} evidence={{ night }} standIn={!head_ref.view} />
        {(real.fault || fault) && (
          <p className="notice notice-bad" role="alert">
            {real.fault || fault}
          </p>
        )}
        <Overlay
          site={site}
          size={size ? { width_px: size.width, height_px: size.height } : camera.model.sensor}
          under={
            referenceUrl ? (
              <img src={referenceUrl} alt="The reference" className="real-expected" draggable={false} />
            ) : (
              shown && <Pixels shown={shown} className="real-expected" label="What it must show, computed" />
            )
          }
          real={picture ?? kept}
          coming={real.coming}
          testId="look-frame"
          marks={(scale) =>
            regions.map(({ kind, box_px: [left = 0, top = 0, right = 0, bottom = 0] }) => (
              <rect
                key={`${kind} ${left} ${top}`}
                className="prove-region"
                data-kind={kind}
                x={left * scale}
                y={top * scale}
                width={(right - left) * scale}
                height={(bottom - top) * scale}
              />
            ))
          }
        />
        <p className="fine prove-hash">
          {held?.name
            ? `As it came${held.changed ? ` (${held.changed})` : ""}: SHA-256 ${held.name.slice(0, 16)}… ${wide} px wide`
            : later
              ? `The last one, ${when(later.at)}`
              : reference
                ? `The reference, ${when(reference.at)}`
                : "What it must show, computed"}
        </p>
        {held && <When held={held} put={real.put} />}
      </section>
      <section className="prove-right" aria-label="What differs">
        {looked.past !== null && <p className="prove-odd">The reference counts no more: {looked.past}.</p>}
        {held && reference && (
          <Found
            comparison={comparison}
            regions={regions.length}
            clockOffS={held.clockOffS ?? null}
            onKeep={(found) => void keep({ reference: reference.id, found })}
          />
        )}
        {held && (
          <Button
            size="large"
            block
            type={reference ? "default" : "primary"}
            disabled={!hung.value}
            onClick={() => void keep(null)}
          >
            {reference ? "Make it the new reference" : "Keep it as the reference"}
          </Button>
        )}
        {!held && !reference && (
          <p className="hint">
            Take its picture once it hangs as it should: sharp, clean, nothing before it. It is what later ones are
            compared with.
          </p>
        )}
        {!held && reference && (
          <Told settled={settled}>
            <Differences looked={looked} />
          </Told>
        )}
        {looked.faults.some(({ kind }) => kind === "moved") && (
          <Button block href={fitAddress(id, camera.id, head.id)}>
            Aim it again by its picture
          </Button>
        )}
        {reference && (
          <Series
            site={site}
            looked={looked}
            reference={reference}
            hung={hung.value}
            head_ref={head_ref}
            by={surveyor}
          />
        )}
        <Kept site={site} looked={looked} name={name} />
      </section>
    </>
  );
}

const sizeOf = ({ picture }: Snapshot): { width: number; height: number } => ({
  width: picture.width_px,
  height: picture.height_px,
});

interface Comparison {
  /** The picture that it is of. */
  of: HeldPicture | null;
  found: Compared | null;
  why: string | null;
}

/** The picture in hand against the reference, by a worker; asked again where that falls over. */
function useComparison(
  limits: Partial<ProvingRules> | undefined,
  id: string,
  reference: Snapshot | null,
  held: HeldPicture | null,
  hfovDeg: number,
): Comparison {
  const [told, setTold] = useState<Comparison & { name: string | null }>({
    of: null,
    found: null,
    why: null,
    name: null,
  });
  const name = reference?.picture.picture ?? null;
  // The worker starts, and unpacks the reference, while the picture is on its way.
  useEffect(() => {
    if (name === null) return;
    void evidenceOf(id, name).then((blob) => blob && comparer.ready({ name, blob }));
  }, [id, name]);
  useEffect(() => {
    if (!held || name === null) return;
    const stop = new AbortController();
    const tell = (found: Compared | null, why: string | null): void => {
      if (!stop.signal.aborted) setTold({ of: held, found, why, name });
    };
    void (async () => {
      const before = await evidenceOf(id, name);
      if (!before) {
        tell(null, "The reference is not on this device, and the server is away: it is compared when it is back.");
        return;
      }
      for (let tries = 1; !stop.signal.aborted; tries++) {
        try {
          const wish = { reference: { name, blob: before }, later: held.blob, hfovDeg, limits: limits ?? {} };
          const found = await comparer.compared(wish, stop.signal);
          if (found) tell(found, null);
          return;
        } catch (error) {
          if (error instanceof Fallen && tries < TRIES) continue;
          const first = error instanceof Refused ? error.faults[0]?.message : (error as Error).message;
          tell(null, `It cannot be compared with the reference: it ${first ?? "is refused"}.`);
          return;
        }
      }
    })();
    return () => stop.abort();
  }, [id, held, name, hfovDeg, limits]);
  const mine = told.of === held && told.name === name;
  return mine ? told : { of: held, found: null, why: null };
}

function Found({
  comparison,
  regions,
  clockOffS,
  onKeep,
}: {
  comparison: Comparison;
  regions: number;
  clockOffS: number | null;
  onKeep(found: Compared): void;
}) {
  const { found, why } = comparison;
  if (why)
    return (
      <p className="notice notice-bad" role="alert" data-testid="look-refused">
        {why}
      </p>
    );
  if (!found)
    return (
      <p role="status" data-testid="look-working">
        Comparing …
      </p>
    );
  return (
    <div className="prove-result" data-testid="look-found" data-says={found.says.join(" ")}>
      <p className="prove-says">{found.says.length === 0 ? "As it was: nothing differs." : inWords(found)}</p>
      <dl className="prove-figures figure">
        <dt>Moved</dt>
        <dd>{movedWords(found)}</dd>
        <dt>Sharpness</dt>
        <dd>{share(found.sharpness_share)}</dd>
        <dt>Contrast</dt>
        <dd>{share(found.contrast_share)}</dd>
        <dt>Light</dt>
        <dd>{share(found.light_share)}</dd>
        {clockOffS !== null && (
          <>
            <dt>Its clock</dt>
            <dd>{clockOffS === 0 ? "right" : `${Math.abs(clockOffS)} s ${clockOffS > 0 ? "fast" : "slow"}`}</dd>
          </>
        )}
      </dl>
      {regions > 0 && <p className="fine">Framed in the picture: where.</p>}
      <Button type="primary" size="large" block onClick={() => onKeep(found)}>
        Keep it
      </Button>
    </div>
  );
}

const share = (value: number): string => `${(100 * value).toFixed(0)} %`;

const WORDS: Record<Compared["says"][number], string> = {
  moved: "it moved",
  out_of_focus: "it is out of focus",
  hazed: "dirty or hazed",
  blocked: "something hides part of it",
  darker: "it is darker",
};

function inWords(found: Compared): string {
  const says = found.says.map((one) => WORDS[one]).join(", ");
  return `${says.charAt(0).toUpperCase()}${says.slice(1)}.`;
}

function movedWords({ moved }: Compared): string {
  if (!moved) return "cannot be told";
  const { right_deg: right, down_deg: down, roll_deg: roll } = moved;
  const parts = [
    ...(Math.abs(right) >= 0.05 ? [`${Math.abs(right).toFixed(1)}° ${right > 0 ? "right" : "left"}`] : []),
    ...(Math.abs(down) >= 0.05 ? [`${Math.abs(down).toFixed(1)}° ${down > 0 ? "down" : "up"}`] : []),
    ...(Math.abs(roll) >= 0.1 ? [`${Math.abs(roll).toFixed(1)}° rolled`] : []),
  ];
  return parts.length === 0 ? "no" : parts.join(", ");
}

/** When the picture in hand was taken: a file says it, and a hand can. */
function When({ held, put }: { held: HeldPicture; put(next: HeldPicture): void }) {
  const local = (at: string): string => {
    const date = new Date(at);
    return new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
  };
  return (
    <label className="switch-line">
      Taken{" "}
      <input
        type="datetime-local"
        value={local(held.at ?? new Date().toISOString())}
        onChange={(event) => {
          const date = new Date(event.target.value);
          if (!Number.isNaN(date.getTime())) put({ ...held, at: date.toISOString() });
        }}
      />
    </label>
  );
}

/** All that is kept of this camera by day or by night, the newest first. */
function Kept({ site, looked, name }: { site: SiteFile; looked: Looked; name: string }) {
  const own = (site.snapshots ?? []).filter(
    (one) =>
      one.camera === looked.head.camera &&
      one.head === looked.head.head &&
      (one.view ?? null) === (looked.head.view ?? null) &&
      (one.night ?? false) === looked.night,
  );
  if (own.length === 0) return null;
  const newest = [...own].sort((a, b) => Date.parse(b.at) - Date.parse(a.at));
  return (
    <details className="prove-kept">
      <summary>
        Kept: <span className="figure">{own.length}</span>
      </summary>
      <ol data-testid="look-kept">
        {newest.map((one) => (
          <li key={one.id}>
            <EvidenceImage name={one.picture.picture} says={`${name}, ${when(one.at)}`} />
            <p className="fine">
              {one.id === looked.reference ? "The reference. " : one.against ? "" : "A reference before. "}
              {when(one.at)}
              {one.by ? `, ${one.by}` : ""}
              {one.against ? `: ${one.against.found.says.length === 0 ? "as it was" : inWords(one.against.found)}` : ""}
            </p>
            <Button size="small" type="text" onClick={() => dropSnapshot(one.id, name)}>
              Take it back
            </Button>
          </li>
        ))}
      </ol>
    </details>
  );
}
