/** The section along the sight line in hand: height and tilt are dragged here. */
import { useRef } from "react";
import useMeasure from "react-use-measure";
import type { Camera, HeadRef, Section, SiteFile, Verdict, ZoneTold } from "../../../core/types";
import { useHand } from "../../../core/hand";
import type { Shown } from "../../../core/useSights";
import { useSettings } from "../../../keep/settings";
import { cameraOf, targetOf } from "../../../model/lookups";
import { type Aimed, aimedOf } from "../../../model/views";
import { rounded } from "../../../model/points";
import { useSite } from "../../../keep/store";
import { formatLength } from "../../../ui/length";
import { Handle, HandlesProvider, useHandles } from "../../../ui/Handle";
import { Ground } from "./Ground";
import { type Cut, cutOf } from "./cut";
import { Mount } from "./Mount";
import { Subject } from "./Subject";
import "./section.css";

export function SectionView({ shown }: { shown: Shown }) {
  const [frame, { width, height }] = useMeasure();
  const svg = useRef<SVGSVGElement>(null);
  const handles = useHandles(svg);
  const size: [number, number] = [width, height];
  const section = shown.sights?.section;
  const camera = section && cameraOf(shown.site, section.camera);
  const ref = section && { camera: section.camera, head: section.head, view: shown.line?.view ?? null };
  const head = ref && aimedOf(shown.site, ref);
  const target = section && targetOf(shown.site, section.target);
  const cut = section && size[0] > 0 ? cutOf(section, size) : null;
  return (
    <div className="section-frame" ref={frame}>
      {cut && cut.exaggeration > 1.05 && (
        <span className="figure fine section-scale">heights drawn × {cut.exaggeration.toFixed(1)}</span>
      )}
      <svg
        ref={svg}
        width={size[0]}
        height={size[1]}
        role="group"
        aria-label="Side view drawing"
        data-testid="section-drawing"
      >
        {section && cut && camera && head && target && (
          <HandlesProvider value={handles}>
            <Drawing
              cut={cut}
              section={section}
              site={shown.site}
              camera={camera}
              head={head}
              of={ref}
              verdict={shown.sights?.line?.verdict ?? null}
              zone={shown.sights?.line?.zone ?? null}
            />
          </HandlesProvider>
        )}
      </svg>
      {!section && (
        <p className="hint">
          {shown.line
            ? "Working …"
            : "Choose a promise and a camera: the side view from one to the other is drawn here."}
        </p>
      )}
    </div>
  );
}

/** What the section is of. */
export function sectionTitle({ site, sights }: Shown): string {
  const section = sights?.section;
  const camera = section && cameraOf(site, section.camera);
  const target = section && targetOf(site, section.target);
  return `Side view along the sight line${camera && target ? ` · ${camera.name} → ${target.name}` : ""}`;
}

interface Props {
  cut: Cut;
  section: Section;
  site: SiteFile;
  camera: Camera;
  head: Aimed;
  of: HeadRef;
  verdict: Verdict | null;
  zone: ZoneTold | null;
}

function Drawing({ cut, section, site, camera, head, of, verdict, zone }: Props) {
  const target = targetOf(site, section.target);
  const eye = cut.at(0, camera.height_m);
  const seen = cut.at(section.ground_m, section.target_height_m);
  return (
    <>
      {section.edges && <path d={cut.wedge(section.edges)} className="picture-wedge" data-testid="picture-wedge" />}
      <Ground cut={cut} section={section} />
      <Solids cut={cut} section={section} site={site} />
      {zone && <ReadsFrom cut={cut} section={section} zone={zone} />}
      {target && <Subject cut={cut} section={section} subject={target.subject} verdict={verdict} />}
      <line x1={eye[0]} y1={eye[1]} x2={seen[0]} y2={seen[1]} className="section-ray" />
      <TiltGrip cut={cut} section={section} camera={camera} head={head} of={of} />
      <Mount cut={cut} section={section} camera={camera} />
    </>
  );
}

/** Where a plate on its way reads, by its distance: a rail at its height. */
function ReadsFrom({ cut, section, zone }: { cut: Cut; section: Section; zone: ZoneTold }) {
  const drop = section.camera_height_m - section.target_height_m;
  const level = (slant: number): number => Math.sqrt(Math.max(slant * slant - drop * drop, 0));
  const [from, to] = [level(zone.near_m), level(zone.far_m)].map((along) => cut.at(along, section.target_height_m));
  if (!from || !to) return null;
  return (
    <g className="section-zone" data-testid="section-zone" role="img" aria-label="Where the plate is readable">
      <rect x={from[0]} y={from[1] - 5} width={Math.max(to[0] - from[0], 1)} height={10} />
      <text x={(from[0] + to[0]) / 2} y={from[1] + 18} textAnchor="middle">
        readable
      </text>
    </g>
  );
}

type CutSolid = Section["solids"][number];
const KINDS = ["cut-solid cut-solid-thin", "cut-solid", "cut-solid cut-solid-in-the-way"] as const;
const kindOf = ({ blocks, in_the_way }: CutSolid): number => (blocks ? (in_the_way ? 2 : 1) : 0);

/** The solids along the cut. Of those that are in nobody's way only the outlines follow a hand; at rest each has its name. */
function Solids({ cut, section, site }: { cut: Cut; section: Section; site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const holds = useHand((hand) => hand.holds);
  const nameOf = (solid: CutSolid): string => {
    const name = site.obstacles?.find(({ id }) => id === solid.id)?.name ?? "";
    return `${name} ${formatLength(solid.top_m, units, 1)}`;
  };
  const named = holds ? section.solids.filter((solid) => kindOf(solid) === 2) : section.solids;
  return (
    <>
      {holds &&
        [0, 1].map((kind) => {
          const d = section.solids
            .filter((solid) => kindOf(solid) === kind)
            .map((solid) => outlineOf(cut, solid))
            .join("");
          return (
            <g key={kind} className={KINDS[kind]} aria-hidden="true">
              <path d={d} className="cut-ground" />
              <path d={d} className="cut-face" />
            </g>
          );
        })}
      {named.map((solid, place) => (
        <Solid key={place} cut={cut} solid={solid} label={nameOf(solid)} />
      ))}
    </>
  );
}

/** Left, top, width and height of a solid in the cut, px. */
function boxOf(cut: Cut, solid: CutSolid): [number, number, number, number] {
  const [x0, y0] = cut.at(solid.start_m, solid.top_m);
  const [x1, y1] = cut.at(solid.end_m, Math.max(solid.base_m, 0));
  return [x0, y0, Math.max(x1 - x0, 3), Math.max(y1 - y0, 1)];
}

function outlineOf(cut: Cut, solid: CutSolid): string {
  const [x, y, wide, tall] = boxOf(cut, solid);
  return `M${x} ${y}h${wide}v${tall}h${-wide}Z`;
}

function Solid({ cut, solid, label }: { cut: Cut; solid: CutSolid; label: string }) {
  const [x, y, wide] = boxOf(cut, solid);
  const d = outlineOf(cut, solid);
  return (
    <g className={KINDS[kindOf(solid)]} role="img" aria-label={`${label}${solid.in_the_way ? ", in the way" : ""}`}>
      <title>{label}</title>
      <path d={d} className="cut-ground" />
      <path d={d} className="cut-face" />
      {solid.in_the_way && (
        <text x={x + wide / 2} y={y - 5} textAnchor="middle">
          {label}
        </text>
      )}
    </g>
  );
}

/** The optical axis: its end is dragged up and down to tilt. */
function TiltGrip({
  cut,
  section,
  camera,
  head,
  of,
}: {
  cut: Cut;
  section: Section;
  camera: Camera;
  head: Aimed;
  of: HeadRef;
}) {
  const edit = useSite((state) => state.edit);
  const reach = Math.max(section.ground_m * 0.45, 2);
  const tilt = (head.tilt_deg * Math.PI) / 180;
  if (Math.abs(head.tilt_deg) > 80) return null;
  const [eu, ev] = cut.at(0, camera.height_m);
  const [u, v] = cut.at(reach, camera.height_m - reach * Math.tan(tilt));
  return (
    <Handle
      label={`Tilt of ${camera.name}`}
      testId="tilt-grip"
      className="grip"
      onDrag={({ at, gesture }) => {
        const [along, height] = cut.site(at);
        const drop = camera.height_m - height;
        const wanted = (Math.atan2(drop, Math.max(along, 0.3)) * 180) / Math.PI;
        edit(
          `Tilt ${camera.name}`,
          (site) => {
            const tilted = aimedOf(site, of);
            if (tilted) tilted.tilt_deg = rounded(wanted, 1);
          },
          gesture,
        );
      }}
    >
      <line x1={eu} y1={ev} x2={u} y2={v} className="grip-arm" />
      <circle cx={u} cy={v} r={22} className="reach" />
      <circle cx={u} cy={v} r={6.5} className="grip-knob" />
      <text x={u + 12} y={v - 8} className="figure section-figure">
        {head.tilt_deg.toFixed(1)}° down
      </text>
    </Handle>
  );
}
