/** The real picture over the expected one: slider, blink, difference; a click puts the landmark in hand down. */
import { useEffect, useMemo, useRef, useState } from "react";
import { ask } from "../../../core/port";
import type { Camera, CameraHead, Clickable, SiteFile } from "../../../core/types";
import { usePicture } from "../../../core/usePicture";
import { Pixels } from "../../../ui/Pixels";
import { Button, Segmented } from "../../../ui/controls";
import { wish } from "../card/Expected";
import type { RealPicture } from "./realPicture";

type Look = "real" | "over" | "blink" | "difference";
const LOOKS: { value: Look; label: string }[] = [
  { value: "real", label: "Real" },
  { value: "over", label: "Over it" },
  { value: "blink", label: "Blink" },
  { value: "difference", label: "Difference" },
];
/** How wide the expected picture is worked out, px, and how much nearer one looks. */
const WIDE = 640;
const NEARER = 3;
/** A tap slips by so much at most, px of the page. */
const SLIPS = 8;

export function Over({
  site,
  camera,
  head,
  real,
  marks,
  inHand,
  onClick,
}: {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  real: RealPicture;
  marks: Clickable[];
  inHand: string | null;
  onClick(u: number, v: number): void;
}) {
  const designed = useMemo(() => asDesigned(site, camera.id, head.id), [site, camera.id, head.id]);
  const ref = useMemo(() => ({ camera: camera.id, head: head.id }), [camera.id, head.id]);
  const { shown } = usePicture(designed, ref, wish(WIDE), "view", "rest");
  const [look, setLook] = useState<Look>("real");
  const [share, setShare] = useState(50);
  const [near, setNear] = useState(false);
  const frame = useRef<HTMLDivElement>(null);
  const down = useRef<[number, number]>([0, 0]);
  const { sensor } = camera.model;
  const { held, url } = real;
  const wide = useWidth(frame);
  const scale = wide / sensor.width_px;
  const mark = marks.find((one) => one.id === inHand);
  const map = useStraight(site, held?.corners ?? null, [sensor.width_px, sensor.height_px]);
  useEffect(() => {
    // Nearer, the place where it must be comes into the middle.
    const scroller = frame.current?.parentElement;
    if (!near || !scroller || !mark?.pixel) return;
    const [u = 0, v = 0] = held?.points.find((point) => point.id === mark.id)
      ? [
          held.points.find((point) => point.id === mark.id)?.u ?? 0,
          held.points.find((point) => point.id === mark.id)?.v ?? 0,
        ]
      : mark.pixel;
    scroller.scrollTo({ left: u * scale - scroller.clientWidth / 2, top: v * scale - scroller.clientHeight / 2 });
    // Once for each landmark, not at each click.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [near, mark?.id, scale]);
  const opacity = look === "over" ? share / 100 : 1;
  const place = (event: React.PointerEvent<HTMLDivElement>): void => {
    const [x, y] = down.current;
    // A finger that moves the picture puts nothing down. (A click's own place is rounded to whole pixels of the page: many of the sensor's.)
    if (
      !held ||
      real.coming ||
      !frame.current ||
      event.button !== 0 ||
      Math.hypot(event.clientX - x, event.clientY - y) > SLIPS
    )
      return;
    const box = frame.current.getBoundingClientRect();
    onClick(
      ((event.clientX - box.left) / box.width) * sensor.width_px,
      ((event.clientY - box.top) / box.height) * sensor.height_px,
    );
  };
  return (
    <section aria-label="Pictures" className="fit-pictures">
      <div className="fit-scroll">
        <div
          ref={frame}
          className={`fit-frame fit-look-${look}`}
          style={{ aspectRatio: `${sensor.width_px} / ${sensor.height_px}`, width: near ? `${NEARER * 100}%` : "100%" }}
          data-testid="fit-frame"
          data-look={look}
          data-coming={real.coming}
          onPointerDown={(event) => {
            down.current = [event.clientX, event.clientY];
          }}
          onPointerUp={place}
        >
          {shown && <Pixels shown={shown} className="fit-expected-pixels" label="What it must show, computed" />}
          {url && held && (held.corners === null || map) && (
            <img
              src={url}
              alt="The real picture"
              className="fit-real"
              draggable={false}
              style={
                held.corners && map
                  ? { ...straight(map, scale), width: held.width, height: held.height, opacity }
                  : { opacity }
              }
            />
          )}
          {wide > 0 && (
            <svg
              className="fit-crosses"
              viewBox={`0 0 ${wide} ${(wide * sensor.height_px) / sensor.width_px}`}
              aria-hidden
            >
              {held?.points.map(({ id, u, v }) => (
                <g
                  key={id}
                  transform={`translate(${u * scale} ${v * scale})`}
                  className={id === inHand ? "fit-cross fit-cross-in-hand" : "fit-cross"}
                >
                  <path d="M-11 0H-3M3 0H11M0 -11V-3M0 3V11" />
                </g>
              ))}
              {mark?.pixel && !held?.points.some((point) => point.id === mark.id) && (
                <circle
                  cx={(mark.pixel[0] ?? 0) * scale}
                  cy={(mark.pixel[1] ?? 0) * scale}
                  r={13}
                  className="fit-must-be"
                />
              )}
            </svg>
          )}
        </div>
      </div>
      {held && (
        <div className="fit-looks">
          <Segmented<Look> size="small" value={look} onChange={setLook} options={LOOKS} />
          {look === "over" && (
            <input
              type="range"
              min={0}
              max={100}
              value={share}
              aria-label="How much of the real picture"
              onChange={(event) => setShare(Number(event.target.value))}
            />
          )}
          <Button size="small" aria-pressed={near} onClick={() => setNear(!near)}>
            {near ? "Whole" : "Nearer"}
          </Button>
        </div>
      )}
      {real.coming && (
        <p className="fit-click-it" role="status">
          Another picture is on its way …
        </p>
      )}
      {mark && held && !real.coming && (
        <p className="fit-click-it">
          Click: <strong>{mark.says}</strong>
          {mark.pixel ? ". The ring shows where it must be." : ", behind the picture by the plan."}
        </p>
      )}
    </section>
  );
}

/** The site with a head as it was designed, whatever was taken over since. */
function asDesigned(site: SiteFile, camera: string, head: string): SiteFile {
  const built = site.cameras.find(({ id }) => id === camera)?.heads.find(({ id }) => id === head)?.as_built;
  if (!built) return site;
  return {
    ...site,
    cameras: site.cameras.map((held) =>
      held.id === camera
        ? {
            ...held,
            heads: held.heads.map((one) => {
              if (one.id !== head) return one;
              return { ...one, lens: null, ...built.designed };
            }),
          }
        : held,
    ),
  };
}

/** How wide a frame is drawn, px. */
function useWidth(frame: React.RefObject<HTMLDivElement | null>): number {
  const [wide, setWide] = useState(0);
  useEffect(() => {
    const box = frame.current;
    if (!box) return;
    const watch = new ResizeObserver(() => setWide(box.clientWidth));
    watch.observe(box);
    return () => watch.disconnect();
  }, [frame]);
  return wide;
}

/** The map that straightens a photo of a monitor; null without corners, or until the core has said it. */
function useStraight(site: SiteFile, corners: [number, number][] | null, size: [number, number]): number[] | null {
  const [map, setMap] = useState<number[] | null>(null);
  const asked = corners && JSON.stringify([corners, size]);
  useEffect(() => {
    if (!asked) return;
    let here = true;
    const [of, to] = JSON.parse(asked) as [[number, number][], [number, number]];
    void ask(site, { ask: "straighten", corners: of, size: to }, "surveyor").then(
      (figures) => here && setMap(figures),
      () => here && setMap(null),
    );
    return () => {
      here = false;
    };
    // The map does not hang on the site.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [asked]);
  return asked ? map : null;
}

/** A map of the plane as a transform of the page: pixels of the photo to pixels of the frame. */
function straight(
  [a = 1, b = 0, c = 0, d = 0, e = 1, f = 0, g = 0, h = 0, i = 1]: number[],
  scale: number,
): React.CSSProperties {
  const figures = [a * scale, d * scale, 0, g, b * scale, e * scale, 0, h, 0, 0, 1, 0, c * scale, f * scale, 0, i];
  return { transform: `matrix3d(${figures.join(",")})`, transformOrigin: "0 0" };
}
