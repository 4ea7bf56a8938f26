/** Each camera's way from the recorder, the worst first, and what does not hang together. */
import { memo } from "react";
import type { NodeTold, RunTold, SiteFile, Verdict } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { networkOf } from "../../model/network";
import { Told } from "../../ui/Told";
import { VerdictMark } from "../../ui/VerdictMark";
import { formatLength } from "../../ui/length";
import { gigabytes, mbps, watts } from "./figures";
import { take, useHeld } from "./held";
import { useShown } from "./wired";

const ORDER: Verdict[] = ["broken", "tight", "unknown", "kept"];
const worstFirst = (runs: RunTold[]): RunTold[] =>
  [...runs].sort((a, b) => ORDER.indexOf(a.verdict) - ORDER.indexOf(b.verdict));

/** What all boxes with a supply of their own give: what passes on what comes over its cable is in that already. */
function powerOf(site: SiteFile, told: NodeTold[]): number {
  const fed = new Set(
    networkOf(site)
      .nodes.filter((node) => node.power_class_in != null || node.kind === "repeater" || node.kind === "extender")
      .map(({ id }) => id),
  );
  return told.reduce((sum, node) => (fed.has(node.id) ? sum : sum + node.drawn_w), 0);
}

export function RunsList({ site }: { site: SiteFile }) {
  const { wired, settled } = useShown();
  const held = useHeld(site);
  const units = useSettings((settings) => settings.units);
  const runs = wired ? worstFirst(wired.runs) : [];
  const kept = runs.filter((run) => run.verdict === "kept").length;
  const names = new Map(site.cameras.map(({ id, name }) => [id, name]));
  return (
    <section className="promises wire-runs" aria-label="Runs">
      <div className="panel-head">
        <h2>Runs</h2>
        <span className="figure">{wired ? `${kept} of ${runs.length} kept` : "working …"}</span>
      </div>
      {wired && runs.length === 0 && (
        <p className="hint">Each camera gets a run here. There are no cameras yet: they come on the stage Aim.</p>
      )}
      <ol className="promise-rows">
        {runs.map((run) => (
          <RunRow
            key={run.camera}
            run={run}
            name={names.get(run.camera) ?? run.camera}
            settled={settled}
            selected={held?.kind === "camera" && held.id === run.camera}
            length={formatLength(run.length_m, units, 0)}
            onTake={() => take({ kind: "camera", id: run.camera }, site)}
          />
        ))}
      </ol>
      {wired && wired.faults.length > 0 && (
        <ul className="wire-faults" aria-label="What does not hang together">
          {wired.faults.map((fault) => (
            <li key={fault}>{fault}</li>
          ))}
        </ul>
      )}
      {wired && (
        <Told settled={settled} className="wire-sums" testId="wire-sums">
          <dl>
            <dt>Cable</dt>
            <dd className="figure">{formatLength(wired.cable_m, units, 0)}</dd>
            <dt>Power</dt>
            <dd className="figure">{watts(powerOf(site, wired.nodes))}</dd>
            <dt>A day records</dt>
            <dd className="figure">{gigabytes(wired.store.gb_per_day)}</dd>
            <dt>
              <VerdictMark verdict={wired.store.verdict} size={14} /> Disks hold
            </dt>
            <dd className="figure">
              {wired.store.holds_days === null ? "not said" : `${wired.store.holds_days.toFixed(0)} days`}
            </dd>
          </dl>
        </Told>
      )}
    </section>
  );
}

const RunRow = memo(
  function RunRow({
    run,
    name,
    settled,
    selected,
    length,
    onTake,
  }: {
    run: RunTold;
    name: string;
    settled: boolean;
    selected: boolean;
    length: string;
    onTake(): void;
  }) {
    const { verdict, says } = run;
    return (
      <li className={selected ? "promise promise-in-hand" : "promise"}>
        <button type="button" className="promise-face" aria-pressed={selected} onClick={onTake}>
          <VerdictMark verdict={verdict} />
          <span className="promise-name">{name}</span>
          <span className="promise-task">
            {run.cables.length === 0 ? "not wired" : `${length} · ${mbps(run.mbps)}`}
          </span>
          {verdict !== "kept" && says[0] && (
            <span className={`promise-says verdict-word-${verdict} told`} data-settled={settled} data-testid="run-says">
              {says[0]}
            </span>
          )}
        </button>
      </li>
    );
  },
  (a, b) =>
    a.run === b.run &&
    a.name === b.name &&
    a.settled === b.settled &&
    a.selected === b.selected &&
    a.length === b.length,
);
