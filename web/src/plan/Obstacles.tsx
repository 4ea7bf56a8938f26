/** Solids on the plan: hatched outlines with their tops, thin walls as strokes. One that is in hand is moved and shaped. */
import { useRef } from "react";
import type { Obstacle, Point, SiteFile } from "../engine/types";
import { useSettings } from "../shell/settings";
import { mean, obstacleOf, removeCorner, shifted } from "../site/edits";
import { useSite } from "../site/store";
import { formatLength } from "../units/length";
import { useInHand } from "../aim/inHand";
import { Corner } from "./Corner";
import { type Drag, Handle } from "./Handle";
import { type PlanView, toScreen } from "./planView";

export function Obstacles({ view, site }: { view: PlanView; site: SiteFile }) {
  const inHand = useInHand((state) => state.obstacle);
  return (
    <g className="obstacles">
      <defs>
        <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" className="hatch-line" />
        </pattern>
      </defs>
      {(site.obstacles ?? []).map((obstacle) => (
        <ObstacleMark key={obstacle.id} view={view} obstacle={obstacle} inHand={obstacle.id === inHand} />
      ))}
    </g>
  );
}

function ObstacleMark({ view, obstacle, inHand }: { view: PlanView; obstacle: Obstacle; inHand: boolean }) {
  const units = useSettings((settings) => settings.units);
  const takeObstacle = useInHand((state) => state.takeObstacle);
  const edit = useSite((state) => state.edit);
  // A solid is held where it was taken, so it moves by as much as the hand does.
  const taken = useRef(obstacle);
  const move = ({ moved: [u, v], first, gesture }: Drag): void => {
    if (first) taken.current = obstacle;
    edit(`Move ${obstacle.name}`, (site) => {
      const held = obstacleOf(site, obstacle.id);
      if (held) held.outline = shifted(taken.current.outline, u / view.scale, -v / view.scale, 2);
    }, gesture);
  };
  const points = obstacle.outline.map((p) => toScreen(view, p));
  const d = `M${points.map((p) => p.join(" ")).join("L")}${obstacle.closed === false ? "" : "Z"}`;
  const seeThrough = (obstacle.see_through ?? 0) > 0.5;
  const label = `${obstacle.name} ${formatLength(obstacle.top_m, units, 1)}`;
  return (
    <Handle
      label={`Obstacle ${label}`} testId={`obstacle-${obstacle.id}`} pressed={inHand}
      className={`obstacle obstacle-${obstacle.kind}${seeThrough ? " obstacle-thin" : ""}${inHand ? " obstacle-in-hand" : ""}`}
      onChoose={() => takeObstacle(obstacle.id)}
      onRemove={() => removeObstacle(obstacle)}
      onDrag={inHand ? move : undefined}
    >
      <title>{label}</title>
      <path d={d} className="obstacle-reach" />
      {obstacle.closed !== false && <path d={d} className="obstacle-ground" />}
      <path d={d} className={obstacle.closed === false ? "obstacle-wall" : "obstacle-solid"} />
      <ObstacleLabel points={points} label={label} wall={obstacle.closed === false} />
    </Handle>
  );
}

/** The label where the outline has room for it. */
function ObstacleLabel({ points, label, wall }: { points: Point[]; label: string; wall: boolean }) {
  const [left, right] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const [top, bottom] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))];
  const fits = !wall && right - left > label.length * 6.2 && bottom - top > 14;
  return fits ? <text x={(left + right) / 2} y={(top + bottom) / 2 + 4} textAnchor="middle">{label}</text> : null;
}

export function removeObstacle(obstacle: Obstacle): void {
  useSite.getState().edit(`Delete ${obstacle.name}`, (site) => { site.obstacles = (site.obstacles ?? []).filter((o) => o.id !== obstacle.id); });
  useInHand.getState().takeObstacle(null);
}

/** The corners of the obstacle in hand, and between them places to pull a new one out of an edge. */
export function ObstacleCorners({ view, site }: { view: PlanView; site: SiteFile }) {
  const inHand = useInHand((state) => state.obstacle);
  const edit = useSite((state) => state.edit);
  const obstacle = inHand ? obstacleOf(site, inHand) : undefined;
  if (!obstacle) return null;
  const { outline, name } = obstacle;
  const edges = obstacle.closed === false ? outline.slice(1).map((_, i) => i) : outline.map((_, i) => i);
  const shape = (change: (held: Obstacle) => void, gesture: string): void =>
    edit(`Shape ${name}`, (draft) => { const held = obstacleOf(draft, obstacle.id); if (held) change(held); }, gesture);
  return (
    <g>
      {edges.map((edge) => (
        <EdgeKnob
          key={`edge${edge}`} label={`Put a corner into side ${edge + 1} of ${name}`}
          at={toScreen(view, mean([outline[edge] ?? [], outline[(edge + 1) % outline.length] ?? []]))}
          onPut={() => shape((held) => held.outline.splice(edge + 1, 0, mean([held.outline[edge] ?? [], held.outline[(edge + 1) % held.outline.length] ?? []])), "")}
        />
      ))}
      {outline.map((corner, place) => (
        <Corner
          key={place} label={`Corner ${place + 1} of ${name}`} at={toScreen(view, corner)}
          onMove={(to, gesture) => shape((held) => { held.outline[place] = to; }, gesture)}
          onRemove={() => shape((held) => removeCorner(held, place), "")}
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
