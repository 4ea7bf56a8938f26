/** A corner of a shape on the plan: dragged, and taken out with Delete where that is allowed. */
import type { Point } from "../../core/types";
import { roundPoint } from "../../model/points";
import { Handle } from "../../ui/Handle";
import { type PlanView, toSite } from "../view";

interface Props {
  view: PlanView;
  label: string;
  at: Point;
  onMove(to: Point, gesture: string): void;
  /** Where a pointer means to be; keys go where they say. */
  snap?(to: Point): Point;
  onRemove?(): void;
}

export function Corner({ view, label, at: [u, v], onMove, snap, ...rest }: Props) {
  return (
    <Handle
      label={label}
      className="corner"
      onDrag={({ at, gesture, keys }) => {
        const to = toSite(view, at);
        onMove(roundPoint(snap && !keys ? snap(to) : to), gesture);
      }}
      {...rest}
    >
      <circle cx={u} cy={v} r={14} className="reach" />
      <rect x={u - 4.5} y={v - 4.5} width={9} height={9} className="corner-knob" />
    </Handle>
  );
}
