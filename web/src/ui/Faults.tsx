/** The faults of a site file, each with its place. */
import type { Fault } from "../core/types";
import { faultInWords } from "./place";

const MOST = 50;

export function Faults({ faults }: { faults: Fault[] }) {
  return (
    <div className="faults" role="alert">
      <ul>
        {faults.slice(0, MOST).map((fault, place) => (
          <li key={place}>
            {faultInWords(fault)}
            {fault.hint && <span className="fine"> {fault.hint}</span>}
          </li>
        ))}
      </ul>
      {faults.length > MOST && <p>… and {faults.length - MOST} more.</p>}
    </div>
  );
}
