/** The survey as a sheet to print: the brief, one line for each camera, then a page for every five targets, each with the drawing. */
import { Button } from "antd";
import { useLayoutEffect, useRef, useState } from "react";
import type { Brief, Camera, SiteFile, Target } from "../../../core/types";
import type { SurveyState } from "../../../core/useSurvey";
import { useAnswer } from "../../../core/useAsked";
import { useSettings } from "../../../keep/settings";
import { isAimedAt } from "../../../model/lines";
import { middle } from "../../../model/lookups";
import { nameOf } from "../../../model/readings";
import { DrawingImage } from "../../../plan/layers/DrawingImage";
import { Solids } from "../../../plan/layers/Solids";
import { SpotShape } from "../../../plan/layers/SpotShape";
import { type PlanView, fitting, toScreen } from "../../../plan/view";
import { Told } from "../../../ui/Told";
import { formatLength } from "../../../ui/length";
import { plainTask } from "../walk/plainTasks";

const A_PAGE = 5;

const ASKED: [keyof Brief, string][] = [
  ["client", "Client"],
  ["contact", "Contact"],
  ["address", "Address"],
  ["kind", "Kind of site"],
  ["worry", "Main worry"],
  ["must_see", "Must be seen"],
  ["retention_days", "Days of recording"],
  ["recorder_place", "Recorder"],
  ["colour", "Colour"],
  ["style", "Style"],
  ["sound", "Sound"],
  ["viewers", "May see recordings"],
  ["hours", "Hours"],
  ["night_light", "Light at night"],
  ["access", "Access"],
  ["private_places", "Keep out of view"],
  ["decides", "Decides"],
];

/** The cable for the quote, and how far it is known. */
function CableLine({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const { value, settled } = useAnswer(site, { ask: "cable_estimate" }, { by: "surveyor" });
  if (!value) return null;
  const parts = [
    value.drawn > 0 && `${value.drawn} as drawn`,
    value.estimated > 0 && `${value.estimated} as estimated at the spot`,
    value.across > 0 && `${value.across} along and across to the recorder`,
    value.bounded > 0 && `${value.bounded} to the farthest corner of a building, as the recorder has no place yet`,
    value.unknown > 0 && `${value.unknown} not known`,
  ].filter(Boolean);
  return (
    <Told settled={settled} testId="cable-estimate">
      <p>
        <strong>
          Cable: {value.bounded > 0 ? "at most " : ""}
          {formatLength(value.metres, units, 0)}
        </strong>{" "}
        <span className="fine">{parts.join(", ")}. Slack is in it.</span>
      </p>
    </Told>
  );
}

export function SheetStep({ site, state }: { site: SiteFile; state: SurveyState }) {
  const pages = Array.from({ length: Math.ceil(site.targets.length / A_PAGE) }, (_, i) =>
    site.targets.slice(i * A_PAGE, (i + 1) * A_PAGE),
  );
  // Cameras have a page of their own, once there are some.
  const cameras = site.cameras.length > 0 ? 1 : 0;
  const count = pages.length + 1 + cameras;
  const left = state.survey?.before_you_leave.length;
  return (
    <section className="sheet" aria-label="Sheet">
      <div className="row no-print">
        <Button type="primary" size="large" onClick={() => window.print()}>
          Print
        </Button>
        <p className="fine">{left ? `${left} things are still to ask: the sheet shows what there is.` : ""}</p>
      </div>
      <article className="sheet-page" tabIndex={0}>
        <SheetHead site={site} page={1} pages={count} />
        <dl className="sheet-brief">
          {ASKED.map(([field, word]) => (
            <div key={field}>
              <dt>{word}</dt>
              <dd>{said(site.brief?.[field])}</dd>
            </div>
          ))}
        </dl>
        <SpotTable site={site} />
      </article>
      {cameras > 0 && (
        <article className="sheet-page" tabIndex={0}>
          <SheetHead site={site} page={2} pages={count} />
          <CameraTable site={site} />
          <CableLine site={site} />
        </article>
      )}
      {pages.map((targets, place) => (
        <article key={place} className="sheet-page" tabIndex={0}>
          <SheetHead site={site} page={place + 2 + cameras} pages={count} />
          <SheetDrawing site={site} targets={targets} />
          <TargetTable site={site} targets={targets} />
        </article>
      ))}
    </section>
  );
}

const said = (value: string | number | boolean | null | undefined): string =>
  value === undefined || value === null || value === ""
    ? "—"
    : value === true
      ? "yes"
      : value === false
        ? "no"
        : String(value);

function SheetHead({ site, page, pages }: { site: SiteFile; page: number; pages: number }) {
  return (
    <header className="sheet-head">
      <strong>{site.name}</strong>
      <span>
        Survey, page {page} of {pages}
      </span>
    </header>
  );
}

function SpotTable({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  return (
    <table>
      <thead>
        <tr>
          <th>Spot</th>
          <th>Kind</th>
          <th>Surface</th>
          <th>Height</th>
          <th>Back box</th>
          <th>Outdoors</th>
          <th>In reach</th>
          <th>Cable</th>
        </tr>
      </thead>
      <tbody>
        {(site.spots ?? []).map((spot, place) => (
          <tr key={spot.id}>
            <td>
              {place + 1} {spot.name}
            </td>
            <td>{said(spot.kind?.replace("_", " "))}</td>
            <td>{said(spot.surface)}</td>
            <td>{formatLength(spot.height_m, units)}</td>
            <td>{said(spot.back_box)}</td>
            <td>{said(spot.outdoor)}</td>
            <td>{said(spot.in_reach)}</td>
            <td>{spot.cable_m == null ? "—" : formatLength(spot.cable_m, units, 0)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** One line a camera, under the number that stands on the plan. */
function CameraTable({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const spotOf = (camera: Camera) => site.spots?.find((spot) => spot.id === camera.spot);
  const far = (camera: Camera): string => {
    const readings = (site.readings ?? []).filter(
      (r) => r.used !== false && (r.to === camera.spot || r.from === camera.spot),
    );
    return readings.map((reading) => formatLength(reading.slope_m, units, 1)).join(", ") || "—";
  };
  return (
    <table aria-label="Cameras">
      <thead>
        <tr>
          <th>Camera</th>
          <th>Sees</th>
          <th>Distance</th>
          <th>Model</th>
          <th>Lens set to</th>
          <th>Picture</th>
          <th>Height</th>
          <th>Back box</th>
          <th>Cable</th>
        </tr>
      </thead>
      <tbody>
        {site.cameras.map((camera) => {
          const spot = spotOf(camera);
          const sees = site.targets.filter((target) => isAimedAt({ ...site, cameras: [camera] }, target));
          const { lens, sensor } = camera.model;
          return (
            <tr key={camera.id}>
              <td>
                {camera.name}
                {camera.existing && `, ${WAS[camera.existing]}`}
              </td>
              <td>{sees.map(({ name }) => name).join(", ") || "—"}</td>
              <td>{far(camera)}</td>
              <td>{camera.model.name}</td>
              <td>
                {lens.focal_max_mm > lens.focal_min_mm
                  ? camera.heads.map((head) => `${head.focal_mm.toFixed(1)} mm`).join(", ")
                  : `${lens.focal_min_mm} mm, fixed`}
              </td>
              <td>{((sensor.width_px * sensor.height_px) / 1e6).toFixed(0)} MP</td>
              <td>{formatLength(camera.height_m, units)}</td>
              <td>{spot?.back_box === true ? (camera.model.back_box ?? "yes") : said(spot?.back_box)}</td>
              <td>{spot?.cable_m == null ? "—" : formatLength(spot.cable_m, units, 0)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const WAS = { stays: "stays", goes: "goes", reused: "used again" };

function TargetTable({ site, targets }: { site: SiteFile; targets: Target[] }) {
  const units = useSettings((settings) => settings.units);
  return (
    <table>
      <thead>
        <tr>
          <th>Target</th>
          <th>To</th>
          <th>Used for</th>
          <th>Light at night</th>
          <th>Faces</th>
          <th>Readings, slope</th>
        </tr>
      </thead>
      <tbody>
        {targets.map((target) => (
          <tr key={target.id}>
            <td>
              {site.targets.indexOf(target) + 1} {target.name}
            </td>
            <td>{plainTask(target)}</td>
            <td>{said(target.used_for)}</td>
            <td>{said(target.night_light)}</td>
            <td>{typeof target.facing_deg === "number" ? `${target.facing_deg}°` : "any"}</td>
            <td>
              {(site.readings ?? [])
                .filter((r) => r.used !== false && (r.from === target.id || r.to === target.id))
                .map((r) => (
                  <div key={r.id}>
                    {nameOf(site, r.from === target.id ? r.to : r.from)}: {formatLength(r.slope_m, units)}
                  </div>
                ))}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The drawing with the page's targets; it has a view of its own, the one on screen stays as it is. */
function SheetDrawing({ site, targets }: { site: SiteFile; targets: Target[] }) {
  const frame = useRef<SVGSVGElement>(null);
  const units = useSettings((settings) => settings.units);
  const [view, setView] = useState<PlanView | null>(null);
  useLayoutEffect(() => {
    const size: [number, number] = [frame.current?.clientWidth ?? 680, 380];
    setView({ centre: [0, 0], scale: 1, size, ...fitting(site, size) });
  }, [site]);
  return (
    <svg ref={frame} className="sheet-drawing" height={380} role="group" aria-label="Drawing">
      {view && (
        <>
          <DrawingImage view={view} drawing={site.drawing ?? null} />
          <Solids view={view} obstacles={site.obstacles} units={units} />
          {(site.spots ?? []).map((spot, place) => (
            <SpotShape key={spot.id} at={toScreen(view, spot.position)} place={place} />
          ))}
          {targets.map((target) => {
            const [u, v] = toScreen(view, middle(target));
            return (
              <g key={target.id}>
                <circle cx={u} cy={v} r={10} className="sheet-target" />
                <text x={u} y={v + 4} textAnchor="middle" className="spot-number">
                  {site.targets.indexOf(target) + 1}
                </text>
              </g>
            );
          })}
        </>
      )}
    </svg>
  );
}
