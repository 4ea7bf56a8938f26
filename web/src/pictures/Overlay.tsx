/** A real picture over another one of the same head: slider, blink, difference, nearer; a click says where, in pixels of the full picture. */
import { type ReactNode, useEffect, useRef, useState } from "react";
import type { SiteFile } from "../core/types";
import { Button, Segmented } from "../ui/controls";
import { straight, useStraight } from "./straight";

type Look = "real" | "over" | "blink" | "difference";
const LOOKS: { value: Look; label: string }[] = [
  { value: "real", label: "Real" },
  { value: "over", label: "Over it" },
  { value: "blink", label: "Blink" },
  { value: "difference", label: "Difference" },
];
/** How much nearer one looks. */
const NEARER = 3;
/** A tap slips by so much at most, px of the page. */
const SLIPS = 8;

interface Props {
  site: SiteFile;
  /** The size of the head's full picture. */
  size: { width_px: number; height_px: number };
  /** What lies under it. */
  under: ReactNode;
  /** The real picture; nothing while there is none. */
  real: { url: string; width: number; height: number; corners: [number, number][] | null } | null;
  /** While another one is on its way nothing is clicked. */
  coming?: boolean;
  testId: string;
  /** What comes into the middle when one looks nearer, in pixels of the full picture; its id says when it is another. */
  middle?: { id: string; at: [number, number] } | null;
  /** What is drawn over both, in pixels of the frame: so many of its own to one of the full picture. */
  marks(scale: number): ReactNode;
  onClick?(u: number, v: number): void;
}

export function Overlay({ site, size, under, real, coming = false, testId, middle = null, marks, onClick }: Props) {
  const [look, setLook] = useState<Look>("real");
  const [share, setShare] = useState(50);
  const [near, setNear] = useState(false);
  const frame = useRef<HTMLDivElement>(null);
  const down = useRef<[number, number]>([0, 0]);
  const wide = useWidth(frame);
  const scale = wide / size.width_px;
  const map = useStraight(site, real?.corners ?? null, [size.width_px, size.height_px]);
  useEffect(() => {
    const scroller = frame.current?.parentElement;
    if (!near || !scroller || !middle) return;
    const [u, v] = middle.at;
    scroller.scrollTo({ left: u * scale - scroller.clientWidth / 2, top: v * scale - scroller.clientHeight / 2 });
    // Once for each of them, not at each click.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [near, middle?.id, scale]);
  const opacity = look === "over" ? share / 100 : 1;
  const place = (event: React.PointerEvent<HTMLDivElement>): void => {
    const [x, y] = down.current;
    // A finger that moves the picture puts nothing down. (A click's own place is rounded to whole pixels of the page: many of the sensor's.)
    if (
      !real ||
      coming ||
      !frame.current ||
      event.button !== 0 ||
      Math.hypot(event.clientX - x, event.clientY - y) > SLIPS
    )
      return;
    const box = frame.current.getBoundingClientRect();
    onClick?.(
      ((event.clientX - box.left) / box.width) * size.width_px,
      ((event.clientY - box.top) / box.height) * size.height_px,
    );
  };
  return (
    <>
      <div className="real-scroll" role="group" aria-label="The picture" tabIndex={0}>
        <div
          ref={frame}
          className={`real-frame real-look-${look}${onClick ? "" : " real-still"}`}
          style={{ aspectRatio: `${size.width_px} / ${size.height_px}`, width: near ? `${NEARER * 100}%` : "100%" }}
          data-testid={testId}
          data-look={look}
          data-coming={coming}
          onPointerDown={(event) => {
            down.current = [event.clientX, event.clientY];
          }}
          onPointerUp={place}
        >
          {under}
          {real && (real.corners === null || map) && (
            <img
              src={real.url}
              alt="The real picture"
              className="real-shown"
              draggable={false}
              style={
                real.corners && map
                  ? { ...straight(map, scale), width: real.width, height: real.height, opacity }
                  : { opacity }
              }
            />
          )}
          {wide > 0 && (
            <svg
              className="real-crosses"
              viewBox={`0 0 ${wide} ${(wide * size.height_px) / size.width_px}`}
              aria-hidden
            >
              {marks(scale)}
            </svg>
          )}
        </div>
      </div>
      {real && (
        <div className="real-looks">
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
    </>
  );
}

/** A cross where something was clicked. */
export function Cross({ at: [u, v], inHand = false }: { at: [number, number]; inHand?: boolean }) {
  return (
    <g transform={`translate(${u} ${v})`} className={inHand ? "real-cross real-cross-in-hand" : "real-cross"}>
      <path d="M-11 0H-3M3 0H11M0 -11V-3M0 3V11" />
    </g>
  );
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
