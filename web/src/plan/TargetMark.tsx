/** A target on the plan with its verdict: drag it to move it, drag its corners to shape it. */
import type { Target, Verdict } from "../engine/types";
import { middle, moveTarget, targetOf } from "../site/edits";
import { useSite } from "../site/store";
import { VerdictShape } from "../verdict/VerdictMark";
import { useInHand } from "../aim/inHand";
import { Corner } from "./Corner";
import { Handle } from "./Handle";
import { type PlanView, toScreen, toSite, usePlanView } from "./planView";

interface Props {
  view: PlanView;
  target: Target;
  verdict: Verdict | null;
  inHand: boolean;
  /** What taking it in hand does; on the Aim screen it takes the promise. */
  onTake?(): void;
}

export function TargetMark({ view, target, verdict, inHand, onTake }: Props) {
  const takeTarget = useInHand((state) => state.takeTarget);
  const take = onTake ?? (() => takeTarget(target.id));
  const edit = useSite((state) => state.edit);
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
        label={`Target ${target.name}, ${verdict ?? "not known yet"}`} testId={`target-${target.id}`} pressed={inHand}
        className={inHand ? "target target-in-hand" : "target"}
        onChoose={take}
        onDrag={({ at, first, gesture }) => {
          if (first && !inHand) take();
          edit(`Move ${target.name}`, (site) => {
            const moved = targetOf(site, target.id);
            if (!moved) return;
            const to = toSite(usePlanView.getState(), at);
            const from = middle(moved);
            moveTarget(moved, to[0] - from[0], to[1] - from[1]);
          }, gesture);
        }}
      >
        <title>{target.name}</title>
        <circle cx={u} cy={v} r={22} className="reach" />
        {typeof facing === "number" && (
          <path transform={`translate(${u} ${v}) rotate(${facing})`} d="M0 -12V-21M-3.5 -17L0 -21.5L3.5 -17" className="target-facing" />
        )}
        {inHand && <circle cx={u} cy={v} r={14} className="target-ring" />}
        <g transform={`translate(${u} ${v})`}><VerdictShape verdict={verdict} /></g>
      </Handle>
      {inHand && points.length > 1 && points.map((point, place) => (
        <Corner
          key={place} label={`Corner ${place + 1} of ${target.name}`} at={point}
          onMove={(to, gesture) =>
            edit(`Shape ${target.name}`, (site) => {
              const shaped = targetOf(site, target.id);
              if (shaped) shaped.shape.points[place] = to;
            }, gesture)
          }
        />
      ))}
    </g>
  );
}
