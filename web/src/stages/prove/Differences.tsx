/** What differs in the last picture of a camera: each with its figure, what to do, and the promises that it costs. */
import type { Looked } from "../../core/types";
import { VerdictMark } from "../../ui/VerdictMark";
import { LOOK_WORDS } from "./words";

export function Differences({ looked }: { looked: Looked }) {
  if (looked.later === null) return <p className="hint">Nothing was compared with the reference yet.</p>;
  if (looked.faults.length === 0)
    return (
      <p className="prove-done" data-testid="look-same">
        As it was.
      </p>
    );
  return (
    <ul className="prove-faults" data-testid="look-faults">
      {looked.faults.map((fault) => (
        <li key={fault.kind} data-kind={fault.kind}>
          <h3>{LOOK_WORDS[fault.kind]}</h3>
          <p>{fault.says}.</p>
          <p className="fit-way">{fault.mend}</p>
          {fault.costs.length > 0 && (
            <ul>
              {fault.costs.map((cost) => (
                <li key={cost.target}>
                  <VerdictMark verdict={cost.now ?? "unknown"} /> {cost.name}{" "}
                  <span className="fine">
                    {cost.now ? `${cost.before} by the plan, ${cost.now} as it hangs` : "look whether it still holds"}
                  </span>
                </li>
              ))}
            </ul>
          )}
        </li>
      ))}
    </ul>
  );
}
