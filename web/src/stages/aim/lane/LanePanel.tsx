/** The plate on its way: the way as a ruler with where it reads, what comes of it in time, blur, focus and light, and what it is set to. */
import { speed, inTheFile, onTheRoad } from "../../../ui/speed";
import { memo } from "react";
import useMeasure from "react-use-measure";
import type { Shown } from "../../../core/useSights";
import { useAnswer } from "../../../core/useAsked";
import type { Line, Point, SiteFile, Target, Units, ZoneTold } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { headOf, targetOf } from "../../../model/lookups";
import { setShape } from "../../../model/targets";
import { keyOf } from "../../../model/views";
import { goTo, settingsAddress } from "../../../ui/address";
import { formatLength, roundLabel, roundLength } from "../../../ui/length";
import { Measure } from "../../../ui/Measure";
import { seconds, times } from "../../../ui/words";
import { Told } from "../../../ui/Told";
import { Button } from "../../../ui/controls";
import "./lane.css";

export function LanePanel({ shown, calm }: { shown: Shown; calm: Shown }) {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const id = useSite((state) => state.open?.id) ?? "";
  const target = calm.line && targetOf(calm.site, calm.line.target);
  if (!target) return <p className="hint">Choose a promise to read plates.</p>;
  if (target.shape.kind !== "line")
    return (
      <div className="lane-panel">
        <p className="hint">
          This plate stands at one place. Draw its path, in the direction of travel, to see where along it the plate is
          readable.
        </p>
        <Button
          type="primary"
          onClick={() =>
            edit(`Draw the path of ${target.name}`.slice(0, 200), (site) => {
              const held = targetOf(site, target.id);
              if (!held) return;
              const facing = held.facing_deg ?? null;
              setShape(site, held, "line");
              alongItsFacing(held, facing);
              held.facing_deg = null;
              if (!held.speed_mps) held.speed_mps = 4.2;
            })
          }
        >
          Draw its path
        </Button>
      </div>
    );
  // Of this head at this promise; of a state before this one it stands, marked.
  const result = shown.sights?.line;
  const mine =
    result?.target === target.id &&
    result.camera === calm.line?.camera &&
    result.head === calm.line.head &&
    (result.preset ?? result.flattened ?? null) === (calm.line.view ?? null);
  const zone = mine ? (result.zone ?? null) : null;
  const head = calm.line && headOf(calm.site, calm.line.camera, calm.line.head);
  return (
    <Told className="lane-panel" testId="lane-panel" settled={shown.settled}>
      <Ruler target={target} zone={zone} units={units} />
      <div className="lane-row">
        <div className="lane-set">
          <Measure
            of={target.id}
            label="Speed"
            value={onTheRoad(target.speed_mps, units)}
            quantity={speed(units)}
            min={0}
            max={onTheRoad(150, units)}
            onChange={(v, g) =>
              edit(
                `Change the speed: ${target.name}`.slice(0, 200),
                (site) => {
                  const held = targetOf(site, target.id);
                  if (held) held.speed_mps = inTheFile(v, units);
                },
                g ? `lane-speed-${target.id}` : "",
              )
            }
          />
          {zone && calm.line && head && (
            <Button size="small" onClick={() => calm.line && goTo(settingsAddress(id, keyOf(calm.line)))}>
              Settings sheet
            </Button>
          )}
        </div>
        {zone ? (
          <div>
            <Figures zone={zone} units={units} stands={(target.speed_mps ?? 0) === 0} />
            {calm.line && <Schools site={calm.site} line={calm.line} units={units} />}
          </div>
        ) : (
          <p className="hint">
            {shown.settled
              ? "It is readable nowhere on its path: too few pixels, too much from the side, or something in between. The ways to keep it say from where it would be."
              : "Working …"}
          </p>
        )}
      </div>
    </Told>
  );
}

/** What the choice between the two mounting schools is worth here. */
function Schools({ site, line, units }: { site: SiteFile; line: Line; units: Units }) {
  const { value: told, settled } = useAnswer(site, { ask: "schools", line }, { by: "surveyor" });
  if (!told) return null;
  const held = site.rules?.plate_school ?? "level";
  return (
    <p className="told fine lane-schools" data-testid="lane-schools" data-settled={settled}>
      {told.map(({ school, reads_m, worst_deg: [side = 0, vertical = 0] }) => (
        <span key={school}>
          {school === "level" ? "Level method" : "Raised method"}
          {school === held ? " (this site's)" : ""}:{" "}
          {reads_m > 0
            ? `readable over ${formatLength(reads_m, units, 1)}, up to ${side.toFixed(0)}° to the side and ${vertical.toFixed(0)}° down. `
            : "readable nowhere. "}
        </span>
      ))}
    </p>
  );
}

/** A way of twelve metres towards where the plate faces, through where it stood. */
function alongItsFacing(target: Target, facing: number | null): void {
  if (facing === null) return;
  const [first, last] = [target.shape.points[0], target.shape.points[target.shape.points.length - 1]];
  if (!first || !last) return;
  const at: Point = [((first[0] ?? 0) + (last[0] ?? 0)) / 2, ((first[1] ?? 0) + (last[1] ?? 0)) / 2];
  const [east, north] = [Math.sin((facing * Math.PI) / 180), Math.cos((facing * Math.PI) / 180)];
  const end = (by: number): Point => [Number((at[0] + by * east).toFixed(2)), Number((at[1] + by * north).toFixed(2))];
  target.shape.points = [end(-12), end(6)];
}

const lengthOf = (target: Target): number =>
  target.shape.points.slice(1).reduce((sum, point, i) => {
    const before = target.shape.points[i] ?? point;
    return sum + Math.hypot((point[0] ?? 0) - (before[0] ?? 0), (point[1] ?? 0) - (before[1] ?? 0));
  }, 0);

/** The way laid straight, travel to the right: where it reads, surely reads, and serves. */
function Ruler({ target, zone, units }: { target: Target; zone: ZoneTold | null; units: Units }) {
  const [frame, { width }] = useMeasure();
  const long = lengthOf(target);
  const at = (along: number): number => 8 + (along / Math.max(long, 0.1)) * Math.max(width - 16, 1);
  const step = roundLength(long / 6, units);
  const ticks = Array.from({ length: Math.floor(long / step) + 1 }, (_, i) => i * step);
  const says = zone
    ? `readable from ${formatLength(zone.from, units, 1)} to ${formatLength(zone.to, units, 1)} of ${formatLength(long, units, 1)}`
    : "readable nowhere";
  return (
    <div className="lane-ruler" ref={frame}>
      <svg width={width} height={52} role="img" aria-label={`The path: ${says}`}>
        <line x1={at(0)} x2={at(long)} y1={30} y2={30} className="lane-way" />
        <path d={`M${at(long) - 7} 26l7 4l-7 4`} className="lane-way" />
        {ticks.map((along) => (
          <g key={along}>
            <line x1={at(along)} x2={at(along)} y1={30} y2={35} className="lane-way" />
            <text x={at(along)} y={48} textAnchor="middle">
              {along === 0 ? "0" : roundLabel(along, units)}
            </text>
          </g>
        ))}
        {zone && (
          <>
            <rect x={at(zone.from)} width={at(zone.to) - at(zone.from)} y={22} height={16} className="lane-reads-bar" />
            {zone.sure && (
              <rect
                x={at(zone.sure[0] ?? 0)}
                width={at(zone.sure[1] ?? 0) - at(zone.sure[0] ?? 0)}
                y={25}
                height={10}
                className="lane-sure-bar"
              />
            )}
            {zone.serves && (
              <rect
                x={at(zone.serves[0] ?? 0)}
                width={at(zone.serves[1] ?? 0) - at(zone.serves[0] ?? 0)}
                y={25}
                height={10}
                className="lane-serves-bar"
              />
            )}
            <text x={(at(zone.from) + at(zone.to)) / 2} y={16} textAnchor="middle" className="lane-ruler-says">
              readable over {formatLength(zone.to - zone.from, units, 1)}
              {zone.serves
                ? `; read reliably over ${formatLength((zone.serves[1] ?? 0) - (zone.serves[0] ?? 0), units, 1)}`
                : ""}
            </text>
          </>
        )}
      </svg>
    </div>
  );
}

const shutter = (s: number): string => (s >= 0.5 ? `${s.toFixed(1)} s` : `1/${Math.round(1 / s)} s`);

const Figures = memo(function Figures({ zone, units, stands }: { zone: ZoneTold; units: Units; stands: boolean }) {
  const far = (m: number): string => formatLength(m, units, 1);
  /** The first of two: the unit stands behind the second. */
  const bare = (m: number): string => (units === "metres" ? m.toFixed(1) : far(m));
  const rows: [string, string][] = [
    ["In the zone", zone.time_s === null ? (stands ? "it stands" : "–") : seconds(zone.time_s)],
    ["Pictures of the plate", zone.looks === null ? "frame rate not given" : zone.looks.toFixed(0)],
    ["Shutter needed", zone.shutter_wanted_s === null ? "any" : shutter(zone.shutter_wanted_s)],
    ["Motion blur", zone.blur_px === null ? "shutter not given" : `${zone.blur_px.toFixed(1)} px`],
    ["Distance", `${bare(zone.near_m)}–${far(zone.far_m)}`],
    ["Focus", far(zone.focus_m)],
    [
      "Sharp",
      zone.sharp
        ? `${bare(zone.sharp.near_m)}–${zone.sharp.far_m === null ? "∞" : far(zone.sharp.far_m)}`
        : "aperture not given",
    ],
    ["Infrared, near against far", times(zone.infrared_stops)],
    ["Characters", `${zone.char_height_px.toFixed(0)} px high`],
    ["Strokes", `${zone.stroke_px.toFixed(1)} px wide`],
    ["Size window", `${zone.size_window_px.map((px) => px.toFixed(0)).join("–")} px`],
    ["Picture, at most", `${far(zone.scene_width_m)} wide`],
  ];
  return (
    <dl className="lane-figures" data-testid="lane-figures">
      {rows.map(([word, says]) => (
        <div key={word}>
          <dt>{word}</dt>
          <dd className="figure">{says}</dd>
        </div>
      ))}
    </dl>
  );
});
