/** Pairs are clicked: a thing on the ground in the picture of the fixed view, then the same thing in that of the head that is turned. */
import { Modal } from "antd";
import { type ReactNode, useMemo, useRef, useState } from "react";
import { ask } from "../../../../core/port";
import type { Camera, CameraHead, Link, Point, PointedThrough, SiteFile, TurnedAt } from "../../../../core/types";
import { usePicture } from "../../../../core/usePicture";
import { useSite } from "../../../../keep/store";
import { useTries } from "../../../../keep/tries";
import { HeadPicture } from "../../../../pictures/HeadPicture";
import { Cross } from "../../../../pictures/Overlay";
import { computedWish } from "../../../../pictures/computed";
import { useRealPicture } from "../../../../pictures/realPicture";
import { Measure, plain } from "../../../../ui/Measure";
import { Pixels } from "../../../../ui/Pixels";
import { Button } from "../../../../ui/controls";
import { Cautions } from "./PairList";

/** How wide the computed picture is worked out, px. */
const WIDE = 640;
/** As fine as scales of such heads are read, degrees. */
const READ = 2;

/** How it stood, as far as that is typed. */
type Typed = { [name in keyof TurnedAt]?: number | undefined };

interface Props {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  link: Link;
  /** The pair that fits worst; null where all agree. */
  doubtful: number | null;
  add(pair: Link["pairs"][number]): Promise<void>;
  /** Turns the head to what a pixel of the fixed view shows; null while too few pairs are there. */
  onPoint: ((pixel: Point) => Promise<PointedThrough>) | null;
  onClose(): void;
  /** The pairs so far. */
  children: ReactNode;
}

export function PairsInPictures({ site, camera, head, link, doubtful, add, onPoint, onClose, children }: Props) {
  const id = useSite((state) => state.open?.id) ?? "";
  const fixedCamera = site.cameras.find((held) => held.id === link.camera);
  const fixedHead = fixedCamera?.heads.find((held) => held.id === link.head);
  const fixed = useRealPicture(id, link.camera, link.head, "link");
  const turned = useRealPicture(id, camera.id, head.id, "link");
  const ref = useMemo(() => ({ camera: link.camera, head: link.head }), [link.camera, link.head]);
  const { shown } = usePicture(site, ref, computedWish(WIDE), "left", "rest");
  const key = `${id}/${camera.id}/${head.id}/link`;
  const typed = useTries((state) => state.drafts[key]?.stood);
  const put = useTries((state) => state.put);
  const { pan_deg, tilt_deg, focal_mm = head.focal_mm } = typed ?? {};
  const stood = useMemo(() => whole({ pan_deg, tilt_deg, focal_mm }), [pan_deg, tilt_deg, focal_mm]);
  const [at, setAt] = useState<Point | null>(null);
  const [through, setThrough] = useState<PointedThrough | null>(null);
  const [fault, setFault] = useState("");
  const pairing = useRef(false);
  const asTurned = useMemo(() => turnedTo(site, camera.id, head.id, stood), [site, camera.id, head.id, stood]);
  const ownHead = asTurned.cameras.find((held) => held.id === camera.id)?.heads.find((held) => held.id === head.id);
  if (!fixedCamera || !fixedHead) return null;
  const trying = async (act: () => Promise<void>): Promise<void> => {
    setFault("");
    try {
      await act();
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  /** The thing in hand has its other half: where the turned head has it in the middle. */
  const pair = (pixel: Point | null): Promise<void> =>
    trying(async () => {
      // A second click while the first is looked at adds nothing twice.
      if (!at || !stood || pairing.current) return;
      pairing.current = true;
      const centred = pixel
        ? await ask(site, { ask: "centre", camera: camera.id, head: head.id, stood, pixel })
        : stood;
      await add({ pixel: rounded(at), pan_deg: fine(centred.pan_deg), tilt_deg: fine(centred.tilt_deg) });
      setAt(null);
    }).finally(() => {
      pairing.current = false;
    });
  return (
    <Modal open onCancel={onClose} footer={null} width={1180} title={`${camera.name}, pointed by ${fixedCamera.name}`}>
      <p className="real-click-it" role="status" data-testid="pairs-next">
        {next({ fixed: fixed.held !== null, turned: turned.held !== null, at, stood })}
      </p>
      {fault && (
        <p className="notice notice-bad" role="alert">
          {fault}
        </p>
      )}
      <div className="pairs-pictures">
        <section aria-label={`The fixed view, ${fixedCamera.name}`}>
          <h3>{fixedCamera.name} stays</h3>
          <HeadPicture
            site={site}
            camera={fixedCamera}
            head={fixedHead}
            real={fixed}
            under={shown && <Pixels shown={shown} className="real-expected" label="What it must show, computed" />}
            standIn
            testId="pairs-fixed"
            marks={(scale) => (
              <>
                {link.pairs.map(({ pixel: [u = 0, v = 0] }, number) => (
                  <Numbered key={number} at={[u * scale, v * scale]} number={number + 1} odd={number === doubtful} />
                ))}
                {at && <Cross at={[at[0] * scale, at[1] * scale]} inHand />}
              </>
            )}
            onClick={(u, v) => {
              setAt([u, v]);
              setThrough(null);
            }}
          />
          {onPoint && (
            <Button disabled={!at} onClick={() => void trying(async () => setThrough(at && (await onPoint(at))))}>
              Point {camera.name} there
            </Button>
          )}
          {through && (
            <div data-testid="pairs-through">
              <p className="figure">
                Pan {through.pan_deg.toFixed(READ)}°, tilt {through.tilt_deg.toFixed(READ)}° down
              </p>
              <Cautions through={through} />
            </div>
          )}
        </section>
        <section aria-label={`The head that turns, ${camera.name}`}>
          <h3>{camera.name} turns</h3>
          <div className="dials">
            <Standing
              of={key}
              stood={{ pan_deg, tilt_deg, focal_mm }}
              lens={head.lens ?? camera.model.lens}
              put={(change) => put(key, { stood: { ...typed, ...change } })}
            />
          </div>
          {ownHead && (
            <HeadPicture
              site={asTurned}
              camera={camera}
              head={ownHead}
              real={turned}
              under={null}
              standIn={stood !== null}
              testId="pairs-turned"
              marks={() => null}
              onClick={(u, v) => void pair([u, v])}
            />
          )}
          <Button disabled={!at || !stood} onClick={() => void pair(null)}>
            It is in the middle of it
          </Button>
        </section>
      </div>
      {children}
    </Modal>
  );
}

const fine = (degrees: number): number => Number(degrees.toFixed(READ + 1));
const rounded = ([u, v]: Point): Point => [Number(u.toFixed(1)), Number(v.toFixed(1))];

/** All of it, or nothing. */
function whole({ pan_deg, tilt_deg, focal_mm }: Typed): TurnedAt | null {
  return pan_deg === undefined || tilt_deg === undefined || focal_mm === undefined
    ? null
    : { pan_deg, tilt_deg, focal_mm };
}

/** What is to be done next. */
function next({
  fixed,
  turned,
  at,
  stood,
}: {
  fixed: boolean;
  turned: boolean;
  at: Point | null;
  stood: TurnedAt | null;
}): string {
  if (!fixed) return "Take the picture of the view that stays.";
  if (!stood) return "Type the pan and tilt of the head that turns, as it tells them itself.";
  if (!at) return "Click a thing on the ground in the view that stays: a corner of a mark, the foot of a post.";
  if (!turned) return "Turn the other head until the same thing is in its middle, or take its picture.";
  // A picture that was taken since it was turned again goes by other figures.
  return `Click the same thing in the picture of the head that turns, taken at ${stood.pan_deg.toFixed(READ)}° pan, ${stood.tilt_deg.toFixed(READ)}° tilt.`;
}

/** The site with a head as it stood: that is the picture that its stand-in gives. */
function turnedTo(site: SiteFile, camera: string, head: string, stood: TurnedAt | null): SiteFile {
  if (!stood) return site;
  return {
    ...site,
    cameras: site.cameras.map((held) =>
      held.id !== camera
        ? held
        : {
            ...held,
            heads: held.heads.map((one) => {
              if (one.id !== head) return one;
              const turned = { ...one, ...stood };
              delete turned.presets;
              return turned;
            }),
          },
    ),
  };
}

/** A pair's place, with its number in the list. */
function Numbered({ at: [u, v], number, odd }: { at: Point; number: number; odd: boolean }) {
  return (
    <>
      <Cross at={[u, v]} inHand={odd} />
      <text x={u + 12} y={v - 6} className="pairs-number">
        {number}
        {odd && " ?"}
      </text>
    </>
  );
}

/** How the head stands, on its own scales. */
function Standing({
  of,
  stood,
  lens,
  put,
}: {
  of: string;
  stood: Typed;
  lens: Camera["model"]["lens"];
  put(change: Typed): void;
}) {
  const field = (name: keyof TurnedAt, label: string, min: number, max: number) => (
    <Measure
      of={of}
      label={label}
      value={stood[name] ?? null}
      quantity={name === "focal_mm" ? plain("mm", 1, 0.5) : plain("°", READ, 0.1)}
      min={min}
      max={max}
      empty={{ word: "–", onEmpty: () => put({ [name]: undefined }) }}
      onChange={(value) => put({ [name]: value })}
    />
  );
  return (
    <>
      {field("pan_deg", "Its pan", -360, 360)}
      {field("tilt_deg", "Its tilt", -90, 90)}
      {field("focal_mm", "Its lens", lens.focal_min_mm, lens.focal_max_mm)}
    </>
  );
}
