/** The riser: from the recorder to the cameras, a chain of boxes and runs with what is on each; what fails is drawn broken. */
import { memo, useEffect, useMemo, useRef } from "react";
import type { SiteFile, Units, Verdict } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { nameOf, networkOf } from "../../model/network";
import { Handle, HandlesProvider, useHandles } from "../../ui/Handle";
import { Told } from "../../ui/Told";
import { VerdictShape } from "../../ui/VerdictMark";
import { formatLength } from "../../ui/length";
import { take, useHeld } from "./held";
import { type RiserBox, type RiserDrawing, type RiserRun, riserOf, wayTo } from "./riserLayout";
import { figure, mbps, volts, watts } from "./figures";
import { type WiredShown, useShown } from "./wired";

/** Sizes, px: a column and a row, a box, and where the drawing begins. */
const COLUMN = 346;
const ROW = 54;
const BOX = { wide: 164, high: 40 };
const EDGE = 14;

export function Riser({ site }: { site: SiteFile }) {
  const shown = useShown();
  const { wired } = shown;
  const units = useSettings((settings) => settings.units);
  const held = useHeld(site);
  const frame = useRef<HTMLDivElement>(null);
  const handles = useHandles(frame);
  const drawing = useMemo(() => wired && riserOf(site, wired), [site, wired]);
  const way = useMemo(() => (drawing && held ? wayTo(drawing, held.id) : new Set<string>()), [drawing, held]);
  useEffect(() => {
    const mark = held && frame.current?.querySelector(`[data-testid="riser-${held.id}"]`);
    mark?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [held]);
  if (!drawing) return <p className="hint">Working …</p>;
  if (drawing.boxes.length === 0)
    return <p className="hint">Nothing to wire yet: put a recorder on the plan, and cameras on the stage Aim.</p>;
  return (
    <Told settled={shown.settled} className="riser" label="Riser" testId="riser">
      <div className="riser-frame" ref={frame}>
        <HandlesProvider value={handles}>
          <svg
            width={2 * EDGE + (drawing.columns - 1) * COLUMN + BOX.wide}
            height={2 * EDGE + Math.max(drawing.rows, 1) * ROW}
          >
            <Drawn site={site} drawing={drawing} shown={shown} way={way} held={held?.id ?? null} units={units} />
          </svg>
        </HandlesProvider>
      </div>
    </Told>
  );
}

interface DrawnProps {
  site: SiteFile;
  drawing: RiserDrawing;
  shown: WiredShown;
  way: ReadonlySet<string>;
  held: string | null;
  units: Units;
}

const Drawn = memo(function Drawn({ site, drawing, shown, way, held, units }: DrawnProps) {
  return (
    <>
      {drawing.runs.map((run) => (
        <Run key={run.cable} site={site} run={run} shown={shown} lit={way.has(run.cable)} held={held} units={units} />
      ))}
      {drawing.boxes.map((box) => (
        <BoxMark key={box.id} site={site} box={box} shown={shown} lit={way.has(box.id)} held={held} />
      ))}
    </>
  );
});

const left = (box: RiserBox): number => EDGE + box.column * COLUMN;
const middle = (box: RiserBox): number => EDGE + (box.row + 0.5) * ROW;

/** A run: its line, and what is on it. */
function Run({
  site,
  run,
  shown,
  lit,
  held,
  units,
}: {
  site: SiteFile;
  run: RiserRun;
  shown: WiredShown;
  lit: boolean;
  held: string | null;
  units: Units;
}) {
  const told = shown.cables.get(run.cable);
  const [u, v, x, y] = [left(run.from) + BOX.wide, middle(run.from), left(run.to), middle(run.to)];
  const elbow = u + 16;
  const verdict: Verdict = told?.verdict ?? "unknown";
  const power = [
    told?.watts != null && watts(told.watts),
    told?.volts_at_device != null && volts(told.volts_at_device),
  ];
  const words = [told && formatLength(told.length_m, units, 0), ...power].filter(Boolean).join(" · ");
  return (
    <Handle
      label={`Cable ${run.cable} to ${nameOf(site, run.to.id)}, ${verdict}`}
      testId={`riser-${run.cable}`}
      pressed={held === run.cable}
      className={`riser-run riser-${verdict}${lit ? " riser-lit" : ""}${held === run.cable ? " riser-held" : ""}`}
      onChoose={() => take({ kind: "cable", id: run.cable }, site)}
    >
      <path d={`M${u} ${v}H${elbow}V${y}H${x}`} className="riser-reach" />
      <path d={`M${u} ${v}H${elbow}V${y}H${x}`} className="riser-line" />
      <text x={elbow + 8} y={y - 5} className="riser-words">
        {words}
      </text>
      {told && told.speed_mbps !== null && (
        <text x={elbow + 8} y={y + 13} className="riser-words riser-load">
          {figure(told.mbps)} of {mbps(told.speed_mbps)}
        </text>
      )}
      {verdict !== "kept" && <VerdictShape verdict={verdict} at={[x - 12, y]} size={16} />}
    </Handle>
  );
}

function BoxMark({
  site,
  box,
  shown,
  lit,
  held,
}: {
  site: SiteFile;
  box: RiserBox;
  shown: WiredShown;
  lit: boolean;
  held: string | null;
}) {
  const told = box.camera ? shown.runs.get(box.id) : shown.nodes.get(box.id);
  const name = nameOf(site, box.id);
  const [x, y] = [left(box), middle(box) - BOX.high / 2];
  const verdict: Verdict = told?.verdict ?? "unknown";
  return (
    <Handle
      label={`${box.camera ? "Camera" : "Box"} ${name}, ${verdict}`}
      testId={`riser-${box.id}`}
      pressed={held === box.id}
      className={`riser-box${lit ? " riser-lit" : ""}${held === box.id ? " riser-held" : ""}`}
      onChoose={() => take({ kind: box.camera ? "camera" : "node", id: box.id }, site)}
    >
      <rect
        x={x}
        y={y}
        width={BOX.wide}
        height={BOX.high}
        rx={box.camera ? 18 : 2}
        className={`riser-face riser-${verdict}`}
      />
      <text x={x + 10} y={y + 17} className="riser-name">
        {name.length > 20 ? `${name.slice(0, 19)}…` : name}
      </text>
      <text x={x + 10} y={y + 33} className="riser-words">
        {under(site, box, shown)}
      </text>
      <VerdictShape verdict={verdict} at={[x + BOX.wide - 14, y + 13]} size={15} />
    </Handle>
  );
}

/** What stands under a name: a box's ports and power, a camera's load. */
function under(site: SiteFile, box: RiserBox, shown: WiredShown): string {
  if (box.camera) {
    const run = shown.runs.get(box.id);
    return run ? mbps(run.mbps) : "";
  }
  const told = shown.nodes.get(box.id);
  const node = networkOf(site).nodes.find(({ id }) => id === box.id);
  if (!told || !node) return "";
  const ports = told.ports === null ? `${told.ports_used} ports` : `${told.ports_used}/${told.ports} ports`;
  return told.budget_w === null ? ports : `${ports} · ${told.drawn_w.toFixed(0)}/${watts(told.budget_w)}`;
}
