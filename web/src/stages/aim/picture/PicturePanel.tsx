/** What the head in hand will see, with its promises, and the sensor's own pixels around the promise in hand. */
import { Segmented, Switch } from "antd";
import { useEffect, useRef } from "react";
import useMeasure from "react-use-measure";
import type { Aim, HeadRef, PictureTold, Point, SiteFile, Verdict } from "../../../core/types";
import type { Shown } from "../../../core/useSights";
import { type PictureState, usePicture } from "../../../core/usePicture";
import { useSite } from "../../../keep/store";
import { useInHand } from "../../../model/inHand";
import { cameraOf, headOf, targetOf } from "../../../model/lookups";
import { rounded } from "../../../model/points";
import { aimedOf, hasFocal } from "../../../model/views";
import { type Drag, Handle, HandlesProvider, useHandles } from "../../../ui/Handle";
import { Measure, plain } from "../../../ui/Measure";
import { VerdictShape } from "../../../ui/VerdictMark";
import { TASK_WORDS, density, share } from "../../../ui/words";
import { lightOf, usePictureLook } from "./pictureView";
import "./picture.css";

/** Sensor pixels that the loupe shows across and down: twice their size, and as they are where a subject is wider. */
const NEAR: [number, number] = [80, 44];
const WIDE: [number, number] = [200, 88];

export function PicturePanel({ shown }: { shown: Shown }) {
  const { site } = shown;
  const { head: inHand, target } = useInHand();
  const look = usePictureLook();
  const [frame, { width, height }] = useMeasure();
  const head = inHand && headOf(site, inHand.camera, inHand.head) ? inHand : null;
  const light = lightOf(look);
  const sensor = head && sensorOf(site, head);
  // As large as its room, at whole pixels.
  const wide = sensor && height > 0 ? Math.floor(Math.min((height * sensor[0]) / sensor[1], width)) : 0;
  const whole = usePicture(
    site,
    head,
    wide > 0 ? JSON.stringify({ window: { whole: { width: wide } }, light, grid: look.grid }) : null,
    0,
  );
  const held = target !== null && targetOf(site, target) ? target : null;
  const bracket = whole.shown?.told.marks.find((mark) => mark.target === held)?.bracket;
  const [across, down] = bracket && (bracket[2] ?? 0) - (bracket[0] ?? 0) > 0.9 * NEAR[0] ? WIDE : NEAR;
  const loupe = usePicture(
    site,
    head,
    held && wide > 0 ? JSON.stringify({ window: { loupe: { target: held, across, down } }, light, grid: false }) : null,
    1,
  );
  return (
    <div
      className="picture-panel"
      data-testid="picture-panel"
      data-settled={whole.settled && (!held || loupe.settled || !loupe.shown)}
    >
      <div className="picture-room" ref={frame}>
        {whole.shown && head ? (
          <Whole shown={whole.shown} head={head} site={site} inHand={held} />
        ) : (
          <p className="hint">{head ? "Working …" : "Choose a camera on the plan."}</p>
        )}
      </div>
      <div className="picture-beside">
        <div className="picture-look">
          <Segmented
            size="small"
            aria-label="Light of the picture"
            value={look.night ? "night" : "day"}
            options={[
              { value: "day", label: "Day" },
              { value: "night", label: "Night" },
            ]}
            onChange={(value) => look.set({ night: value === "night" })}
          />
          <label className="switch-line">
            <Switch size="small" checked={look.grid} onChange={(grid) => look.set({ grid })} /> metre grid
          </label>
        </div>
        {look.night && (
          <div className="dials">
            <Measure
              label="Exposure"
              value={look.stops}
              quantity={plain("stops", 1, 0.5)}
              min={-12}
              max={12}
              hint="Over what lights the promises of this head well."
              onChange={(stops) => look.set({ stops })}
            />
          </div>
        )}
        {held && loupe.shown && <Loupe shown={loupe.shown} site={site} target={held} />}
        <Says told={whole.shown?.told ?? null} night={look.night} />
      </div>
    </div>
  );
}

/** Size of the picture of a head, px. */
function sensorOf(site: SiteFile, head: HeadRef): Point | null {
  const aimed = aimedOf(site, head);
  const camera = cameraOf(site, head.camera);
  if (!aimed || !camera) return null;
  return "hfov_deg" in aimed
    ? [aimed.width_px, aimed.height_px]
    : [camera.model.sensor.width_px, camera.model.sensor.height_px];
}

/** Draws the pixels of a picture on a canvas. */
function Pixels({ shown, className, width: wide }: { shown: PictureState; className: string; width?: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, told } = shown;
  const { width, height } = told.frame;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    context?.putImageData(new ImageData(new Uint8ClampedArray(rgba), width, height), 0, 0);
  }, [rgba, width, height]);
  return (
    <canvas ref={canvas} width={width} height={height} className={className} style={wide ? { width: wide } : {}} />
  );
}

/** The whole picture: dragged, it turns the head; the wheel zooms its lens. */
function Whole({
  shown,
  head,
  site,
  inHand,
}: {
  shown: PictureState;
  head: HeadRef;
  site: SiteFile;
  inHand: string | null;
}) {
  const { told } = shown;
  const svg = useRef<SVGSVGElement>(null);
  const edit = useSite((state) => state.edit);
  const takeTarget = useInHand((state) => state.takeTarget);
  const wish = shown.of.wish.window;
  const [wide, tall] = told.sensor_px as [number, number];
  const width = "whole" in wish ? wish.whole.width * (shown.of.wish.samples === 1 ? 2 : 1) : wide;
  const scale = wide / width;
  const height = tall / scale;
  const name = cameraOf(site, head.camera)?.name ?? head.camera;
  const taken = useRef<Aim | null>(null);
  const handles = useHandles(svg, {
    onWheel: (turned) =>
      edit(
        `Zoom ${name}`,
        (draft) => {
          const aimed = aimedOf(draft, head);
          const lens = lensOf(draft, head);
          if (!aimed || !hasFocal(aimed) || !lens) return;
          const focal = aimed.focal_mm * Math.exp(-turned / 800);
          aimed.focal_mm = rounded(Math.min(Math.max(focal, lens[0]), lens[1]), 2);
        },
        `picture-zoom-${head.camera}-${head.head}-${head.view ?? ""}`,
      ),
  });
  const drag = ({ moved: [right, down], first, gesture }: Drag): void => {
    const now = aimedOf(useSite.getState().open?.site ?? site, head);
    if (!now) return;
    if (first || !taken.current) taken.current = { pan_deg: now.pan_deg, tilt_deg: now.tilt_deg };
    const aim = dragged(taken.current, [right * scale, down * scale], told.focal_px, rollOf(now));
    edit(
      `Aim ${name}`,
      (draft) => {
        const aimed = aimedOf(draft, head);
        if (aimed) [aimed.pan_deg, aimed.tilt_deg] = aim;
      },
      gesture,
    );
  };
  return (
    <div className="picture-whole" style={{ width, height }}>
      <Pixels shown={shown} className="picture-pixels" />
      <svg ref={svg} width={width} height={height} role="group" aria-label={`What ${name} sees`}>
        <HandlesProvider value={handles}>
          <Handle
            label={`Picture of ${name}: drag to aim, wheel to zoom`}
            testId="picture-aim"
            className="picture-aim"
            onDrag={drag}
          >
            <rect width={width} height={height} className="reach picture-ground" />
          </Handle>
          <Graticule width={width} height={height} />
          {told.marks.map((mark) => {
            if (!mark.bracket || !mark.clear) return null;
            const [left, top, right, bottom] = mark.bracket.map((side) => side / scale) as [
              number,
              number,
              number,
              number,
            ];
            if (right < 0 || left > width || bottom < 0 || top > height) return null;
            return (
              <Handle
                key={mark.target}
                label={`${targetOf(site, mark.target)?.name ?? mark.target}, ${mark.verdict}`}
                testId={`mark-${mark.target}`}
                pressed={mark.target === inHand}
                className={mark.target === inHand ? "mark mark-in-hand" : "mark"}
                onChoose={() => takeTarget(mark.target, head)}
                onDrag={drag}
              >
                <Bracket box={[left, top, right, bottom]} verdict={mark.verdict} />
              </Handle>
            );
          })}
        </HandlesProvider>
      </svg>
    </div>
  );
}

const rollOf = (aimed: object): number => ("roll_deg" in aimed ? Number(aimed.roll_deg ?? 0) : 0);

function lensOf(site: SiteFile, { camera, head }: HeadRef): [number, number] | null {
  const held = cameraOf(site, camera);
  const lens = headOf(site, camera, head)?.lens ?? held?.model.lens;
  return lens ? [lens.focal_min_mm, lens.focal_max_mm] : null;
}

/** The aim that keeps what was taken under the hand, to first order, after a drag by so many pixels of the sensor. */
function dragged(from: Aim, [right, down]: Point, focal: number, roll: number): [number, number] {
  const turn = (roll * Math.PI) / 180;
  const across = right * Math.cos(turn) - down * Math.sin(turn);
  const along = right * Math.sin(turn) + down * Math.cos(turn);
  const degrees = (px: number): number => (Math.atan(px / focal) * 180) / Math.PI;
  const lean = Math.max(Math.cos((from.tilt_deg * Math.PI) / 180), 0.2);
  const pan = from.pan_deg - degrees(across) / lean;
  return [
    rounded(((pan % 360) + 360) % 360, 2),
    rounded(Math.min(Math.max(from.tilt_deg - degrees(along), -90), 90), 2),
  ];
}

/** Ticks in per cent along the edges. */
function Graticule({ width, height }: { width: number; height: number }) {
  const ticks: string[] = [];
  for (let share = 10; share < 100; share += 10) {
    const long = share === 50 ? 9 : 5;
    const [u, v] = [(width * share) / 100, (height * share) / 100];
    ticks.push(`M${u} 0v${long}M${u} ${height}v${-long}M0 ${v}h${long}M${width} ${v}h${-long}`);
  }
  return (
    <g className="graticule" aria-hidden="true">
      <rect width={width} height={height} />
      <path d={ticks.join("")} />
    </g>
  );
}

/** Corner brackets around what must be seen, with the verdict's shape. */
function Bracket({
  box: [left, top, right, bottom],
  verdict,
}: {
  box: [number, number, number, number];
  verdict: Verdict;
}) {
  // Never smaller than a hand finds.
  const grow = Math.max(0, (14 - Math.min(right - left, bottom - top)) / 2) + 3;
  const [l, t, r, b] = [left - grow, top - grow, right + grow, bottom + grow];
  const arm = Math.min(8, (r - l) / 3, (b - t) / 3);
  return (
    <>
      <rect x={l} y={t} width={r - l} height={b - t} className="reach" />
      <path
        className="bracket"
        d={`M${l + arm} ${t}H${l}V${t + arm}M${r - arm} ${t}H${r}V${t + arm}M${l + arm} ${b}H${l}V${b - arm}M${r - arm} ${b}H${r}V${b - arm}`}
      />
      <VerdictShape verdict={verdict} size={12} at={[r + 8, t]} />
    </>
  );
}

/** The sensor's own pixels. */
function Loupe({ shown, site, target }: { shown: PictureState; site: SiteFile; target: string }) {
  const mark = shown.told.marks.find((held) => held.target === target);
  const task = targetOf(site, target)?.task;
  return (
    <figure className="loupe" data-testid="loupe">
      <figcaption className="fine">
        {mark?.px_per_m == null
          ? "The promise in hand is out of the picture."
          : `${density(mark.px_per_m)} px/m${task ? ` to ${TASK_WORDS[task]}` : ""}: ${mark.verdict}${mark.clear ? "" : ", hidden"}`}
      </figcaption>
      {mark?.px_per_m != null && (
        <Pixels
          shown={shown}
          className="loupe-pixels"
          width={shown.told.frame.width * (shown.told.frame.width > NEAR[0] ? 1 : 2)}
        />
      )}
    </figure>
  );
}

/** What the picture is, and what it is not. */
function Says({ told, night }: { told: PictureTold | null; night: boolean }) {
  return (
    <p className="fine picture-says">
      {night &&
        told &&
        !told.infrared &&
        "This camera has no light of its own, and no lamps are known: it sees nothing. "}
      {night && told && told.clipped > 0.001 && `${share(told.clipped)} of it is burnt out. `}
      Computed, no proof: no blur, noise, weather or shadows.
    </p>
  );
}
