/** Solids on the plan: hatched outlines with their tops, thin walls as strokes. One that is in hand is moved and shaped. */
import { memo, useRef } from "react";
import type { Obstacle, Outlined, Point, SiteFile, Units } from "../../core/types";
import { mean } from "../../model/points";
import { type Drag, Handle } from "../../ui/Handle";
import { formatLength } from "../../ui/length";
import { type PlanView, toScreen } from "../view";
import { Corner } from "./Corner";

export interface SolidActions {
  onTake(obstacle: Obstacle): void;
  /** Moves it by metres east and north from how it was taken. */
  onMove(obstacle: Obstacle, taken: Obstacle, by: Point, gesture: string): void;
  onRemove(obstacle: Obstacle): void;
}

interface Props {
  view: PlanView;
  obstacles: SiteFile["obstacles"];
  units: Units;
  /** The id of the one in hand. */
  inHand?: string | null;
  /** Without them the solids are only looked at. */
  actions?: SolidActions;
}

export const Solids = memo(function Solids({ view, obstacles = [], units, inHand = null, actions }: Props) {
  return (
    <g className="obstacles">
      {obstacles.map((obstacle) => (
        <SolidMark
          key={obstacle.id}
          view={view}
          obstacle={obstacle}
          units={units}
          inHand={obstacle.id === inHand}
          actions={actions}
        />
      ))}
    </g>
  );
});

interface MarkProps {
  view: PlanView;
  obstacle: Obstacle;
  units: Units;
  inHand: boolean;
  actions: SolidActions | undefined;
}

const SolidMark = memo(function SolidMark({ view, obstacle, units, inHand, actions }: MarkProps) {
  // A solid is held where it was taken, so it moves by as much as the hand does.
  const taken = useRef(obstacle);
  const move = ({ moved: [u, v], first, gesture }: Drag): void => {
    if (first) taken.current = obstacle;
    actions?.onMove(obstacle, taken.current, [u / view.scale, -v / view.scale], gesture);
  };
  const standing = obstacle.open && obstacle.open_outline ? obstacle.open_outline : obstacle.outline;
  const points = standing.map((p) => toScreen(view, p));
  const other = standing === obstacle.outline ? obstacle.open_outline : obstacle.outline;
  const d = `M${points.map((p) => p.join(" ")).join("L")}${obstacle.closed === false ? "" : "Z"}`;
  const seeThrough = (obstacle.see_through ?? 0) > 0.5;
  const label = `${obstacle.name} ${formatLength(obstacle.top_m, units, 1)}`;
  const look = `obstacle obstacle-${obstacle.kind}${seeThrough ? " obstacle-thin" : ""}${inHand ? " obstacle-in-hand" : ""}`;
  const drawn = (
    <>
      <title>{label}</title>
      <path d={d} className="obstacle-reach" />
      {obstacle.closed !== false && <path d={d} className="obstacle-ground" />}
      <path d={d} className={obstacle.closed === false ? "obstacle-wall" : "obstacle-solid"} />
      {other && (
        <path d={`M${other.map((p) => toScreen(view, p).join(" ")).join("L")}`} className="obstacle-other-state" />
      )}
      <SolidLabel points={points} label={label} wall={obstacle.closed === false} />
    </>
  );
  // Where nothing is done with it a tap on it is a tap on the plan.
  if (!actions) {
    return (
      <g className={look} data-testid={`obstacle-${obstacle.id}`}>
        {drawn}
      </g>
    );
  }
  return (
    <Handle
      label={`Obstacle ${label}`}
      testId={`obstacle-${obstacle.id}`}
      pressed={inHand}
      className={look}
      onChoose={() => actions.onTake(obstacle)}
      onRemove={() => actions.onRemove(obstacle)}
      onDrag={inHand ? move : undefined}
    >
      {drawn}
    </Handle>
  );
});

/** The label where the outline has room for it. */
function SolidLabel({ points, label, wall }: { points: Point[]; label: string; wall: boolean }) {
  const [left, right] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const [top, bottom] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))];
  const fits = !wall && right - left > label.length * 6.2 && bottom - top > 14;
  return fits ? (
    <text x={(left + right) / 2} y={(top + bottom) / 2 + 4} textAnchor="middle">
      {label}
    </text>
  ) : null;
}

export interface ShapeActions {
  /** Where a hand means to put a corner. */
  snap?(obstacle: Outlined, place: number, to: Point): Point;
  onCorner(obstacle: Outlined, place: number, to: Point, gesture: string): void;
  onNewCorner(obstacle: Outlined, side: number): void;
  onRemoveCorner(obstacle: Outlined, place: number): void;
}

/** The corners of the obstacle in hand, and between them places to pull a new one out of an edge. */
export function SolidCorners({
  view,
  obstacle,
  actions,
}: {
  view: PlanView;
  obstacle: Outlined;
  actions: ShapeActions;
}) {
  const { outline, name } = obstacle;
  const edges = obstacle.closed === false ? outline.slice(1).map((_, i) => i) : outline.map((_, i) => i);
  return (
    <g>
      {edges.map((edge) => (
        <EdgeKnob
          key={`edge${edge}`}
          label={`Put a corner into side ${edge + 1} of ${name}`}
          at={toScreen(view, mean([outline[edge] ?? [], outline[(edge + 1) % outline.length] ?? []]))}
          onPut={() => actions.onNewCorner(obstacle, edge)}
        />
      ))}
      {outline.map((corner, place) => (
        <Corner
          key={place}
          view={view}
          label={`Corner ${place + 1} of ${name}`}
          at={toScreen(view, corner)}
          onMove={(to, gesture) => actions.onCorner(obstacle, place, to, gesture)}
          snap={(to) => actions.snap?.(obstacle, place, to) ?? to}
          onRemove={() => actions.onRemoveCorner(obstacle, place)}
        />
      ))}
    </g>
  );
}

function EdgeKnob({ label, at: [u, v], onPut }: { label: string; at: Point; onPut(): void }) {
  return (
    <Handle label={label} className="edge" onChoose={onPut}>
      <circle cx={u} cy={v} r={12} className="reach" />
      <path d={`M${u - 4} ${v}h8M${u} ${v - 4}v8`} className="edge-knob" />
    </Handle>
  );
}
