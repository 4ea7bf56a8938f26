/** The work in visits: who comes, how long it takes, and what must be there before. */
import type { Days, Visit } from "../../core/types";
import { useSite } from "../../keep/store";
import { Told } from "../../ui/Told";
import { fitAddress } from "../../ui/address";
import { Button } from "../../ui/controls";
import { STATE_WORDS, hours } from "./words";

export function DayPanel({ days, settled, refused }: { days: Days | null; settled: boolean; refused: string | null }) {
  if (refused) return <p className="hint">{refused}</p>;
  if (!days) return <p className="hint">Working …</p>;
  if (days.visits.length === 0) return <p className="hint">There is nothing to put up yet.</p>;
  return (
    <Told settled={settled} className="fit-days" testId="fit-days">
      <p className="fit-days-head">
        <span className="figure">{hours(days.hours)}</span> in {days.visits.length} visits,{" "}
        <span className="figure">{hours(days.done_hours)}</span> done. Hours are usual ones: change the plan where yours
        differ.
        <Button size="small" className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </p>
      {days.visits.map((visit) => (
        <VisitTold key={visit.name} visit={visit} />
      ))}
      <p className="caution">
        Work at height from a footed ladder or a lift, two people. Mains by a licensed electrician. Local rules decide.
      </p>
    </Told>
  );
}

function VisitTold({ visit }: { visit: Visit }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const done = visit.stops.filter((stop) => stop.done).length;
  return (
    <section className="fit-visit" aria-label={visit.name}>
      <h3>
        {visit.name} <span className="figure">{hours(visit.hours)}</span>{" "}
        <span className="fine">
          {visit.who} · {done} of {visit.stops.length} done
        </span>
      </h3>
      <ol>
        {visit.stops.map((stop) => (
          <li key={stop.id} className={stop.done ? "fit-stop fit-stop-done" : "fit-stop"}>
            <span className="fit-stop-mark" role="img" aria-label={stop.done ? "done" : "to do"}>
              {stop.done ? "✓" : "○"}
            </span>
            {stop.state ? <a href={fitAddress(id, stop.id)}>{stop.name}</a> : <span>{stop.name}</span>}
            <span className="figure">{hours(stop.hours)}</span>
            <span className="fine">
              {stop.state ? STATE_WORDS[stop.state] : ""}
              {stop.after.length > 0 && !stop.done ? ` · after: ${stop.after.join(", ")}` : ""}
            </span>
          </li>
        ))}
      </ol>
      {visit.packing.length > 0 && (
        <details>
          <summary>Packed for this visit</summary>
          <ul className="fit-packing">
            {visit.packing.map((one) => (
              <li key={one.what}>
                <span className="figure">{one.needed + one.spare}</span> {one.what}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}
