/** A corner of a shape on the plan: dragged, and taken out with Delete where that is allowed. */
import type { Point } from "../engine/types";
import { Handle } from "./Handle";
import { roundPoint } from "../site/edits";
import { toSite, usePlanView } from "./planView";

interface Props {
  label: string;
  at: Point;
  onMove(to: Point, gesture: string): void;
  onRemove?(): void;
}

export function Corner({ label, at: [u, v], onMove, ...rest }: Props) {
  return (
    <Handle label={label} className="corner" onDrag={({ at, gesture }) => onMove(roundPoint(toSite(usePlanView.getState(), at)), gesture)} {...rest}>
      <circle cx={u} cy={v} r={14} className="reach" />
      <rect x={u - 4.5} y={v - 4.5} width={9} height={9} className="corner-knob" />
    </Handle>
  );
}
