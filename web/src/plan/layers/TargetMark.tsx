/** A target on the plan with its verdict: drag it to move it, drag its corners to shape it. */
import { memo } from "react";
import type { Point, Target, Verdict } from "../../core/types";
import { middle } from "../../model/lookups";
import { Handle } from "../../ui/Handle";
import { VerdictShape } from "../../ui/VerdictMark";
import { type PlanView, toScreen, toSite } from "../view";
import { Corner } from "./Corner";
import { turned } from "./turned";

export interface TargetActions {
  onTake(target: Target): void;
  onMove(target: Target, to: Point, gesture: string): void;
  onShape(target: Target, corner: number, to: Point, gesture: string): void;
}

interface Props {
  view: PlanView;
  target: Target;
  /** How it stands; null while that is not known. */
  verdict: Verdict | null;
  inHand: boolean;
  actions: TargetActions;
}

/** An arrow out of the mark. */
const FACING: Point[][] = [
  [
    [0, -12],
    [0, -21],
  ],
  [
    [-3.5, -17],
    [0, -21.5],
    [3.5, -17],
  ],
];

export const TargetMark = memo(function TargetMark({ view, target, verdict, inHand, actions }: Props) {
  const [u, v] = toScreen(view, middle(target));
  const points = target.shape.points.map((p) => toScreen(view, p));
  const facing = target.facing_deg;
  return (
    <g>
      {points.length > 1 && (
        <path
          d={`M${points.map((p) => p.join(" ")).join("L")}${target.shape.kind === "area" ? "Z" : ""}`}
          className={inHand ? "target-shape target-shape-in-hand" : "target-shape"}
        />
      )}
      <Handle
        label={`Target ${target.name}, ${verdict ?? "not known yet"}`}
        testId={`target-${target.id}`}
        pressed={inHand}
        className={inHand ? "target target-in-hand" : "target"}
        onChoose={() => actions.onTake(target)}
        onDrag={({ at, first, gesture }) => {
          if (first && !inHand) actions.onTake(target);
          actions.onMove(target, toSite(view, at), gesture);
        }}
      >
        <title>{target.name}</title>
        <circle cx={u} cy={v} r={22} className="reach" />
        {typeof facing === "number" && <path d={turned(FACING, [u, v], facing)} className="target-facing" />}
        {inHand && <circle cx={u} cy={v} r={14} className="target-ring" />}
        <VerdictShape verdict={verdict} at={[u, v]} />
      </Handle>
      {inHand &&
        points.length > 1 &&
        points.map((point, place) => (
          <Corner
            key={place}
            view={view}
            label={`Corner ${place + 1} of ${target.name}`}
            at={point}
            onMove={(to, gesture) => actions.onShape(target, place, to, gesture)}
          />
        ))}
    </g>
  );
});
