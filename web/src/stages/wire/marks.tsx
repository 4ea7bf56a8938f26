/** Boxes, cables and cable ways on the plan. */
import { memo } from "react";
import type { Cable, CablePath, Node, NodeKind, Point, SiteFile, Verdict } from "../../core/types";
import { lineOf, networkOf } from "../../model/network";
import { Handle } from "../../ui/Handle";
import { VerdictShape } from "../../ui/VerdictMark";
import { type PlanView, toScreen, toSite } from "../../plan/view";

export interface WireActions {
  onTake(kind: "node" | "cable" | "path" | "camera", id: string): void;
  onMoveNode(node: Node, to: Point, gesture: string): void;
  onCorner(kind: "cable" | "path", id: string, place: number, to: Point, gesture: string): void;
  onNewCorner(kind: "cable" | "path", id: string, place: number, at: Point): void;
  onRemoveCorner(kind: "cable" | "path", id: string, place: number): void;
  onRemove(kind: "node" | "cable" | "path", thing: { id: string; name?: string }): void;
}

const pathOf = (points: Point[]): string => points.map(([u, v], at) => `${at === 0 ? "M" : "L"}${u} ${v}`).join("");

/** The letters on a box: what it is, at a glance. */
const SIGNS: Record<NodeKind, string> = {
  recorder: "REC",
  switch: "SW",
  injector: "INJ",
  extender: "EXT",
  repeater: "REP",
  router: "RTR",
  outlet: "AC",
};

export const NodeMark = memo(function NodeMark({
  view,
  node,
  verdict,
  inHand,
  actions,
}: {
  view: PlanView;
  node: Node;
  verdict: Verdict | null;
  inHand: boolean;
  actions: WireActions;
}) {
  const [u, v] = toScreen(view, node.position);
  const wide = node.kind === "outlet" ? 24 : 34;
  return (
    <Handle
      label={`Box ${node.name}`}
      testId={`node-${node.id}`}
      pressed={inHand}
      className={inHand ? "wire-node wire-in-hand" : "wire-node"}
      onChoose={() => actions.onTake("node", node.id)}
      onRemove={() => actions.onRemove("node", node)}
      onDrag={({ at, first, gesture }) => {
        if (first && !inHand) actions.onTake("node", node.id);
        actions.onMoveNode(node, toSite(view, at), gesture);
      }}
    >
      <title>{node.name}</title>
      <circle cx={u} cy={v} r={22} className="reach" />
      <rect x={u - wide / 2} y={v - 10} width={wide} height={20} rx={2} className="wire-node-face" />
      <text x={u} y={v + 4.5} textAnchor="middle" className="wire-node-sign">
        {SIGNS[node.kind]}
      </text>
      <text x={u} y={v + 25} textAnchor="middle" className="camera-name">
        {node.name}
      </text>
      {verdict && verdict !== "kept" && <VerdictShape verdict={verdict} at={[u + wide / 2 + 3, v - 11]} size={15} />}
    </Handle>
  );
});

export const CableMark = memo(function CableMark({
  view,
  cable,
  line,
  verdict,
  lit,
  inHand,
  actions,
}: {
  view: PlanView;
  cable: Cable;
  line: Point[];
  verdict: Verdict | null;
  /** On the way of the camera in hand. */
  lit: boolean;
  inHand: boolean;
  actions: WireActions;
}) {
  const points = line.map((at) => toScreen(view, at));
  const middle = half(points);
  return (
    <Handle
      label={`Cable ${cable.id}, ${verdict ?? "not known yet"}`}
      testId={`cable-${cable.id}`}
      pressed={inHand}
      className={`wire-cable wire-${cable.kind} wire-${verdict ?? "unknown"}${lit ? " wire-lit" : ""}${inHand ? " wire-in-hand" : ""}`}
      onChoose={() => actions.onTake("cable", cable.id)}
      onRemove={() => actions.onRemove("cable", { id: cable.id, name: cable.id })}
    >
      <path d={pathOf(points)} className="wire-reach" />
      <path d={pathOf(points)} className="wire-line" />
      {verdict === "broken" && <VerdictShape verdict={verdict} at={middle} size={15} />}
    </Handle>
  );
});

/** The middle of a line by its length, px. */
function half(points: Point[]): Point {
  const legs = points.slice(1).map((to, at) => {
    const from = points[at] ?? to;
    return { from, to, long: Math.hypot(to[0] - from[0], to[1] - from[1]) };
  });
  let left = legs.reduce((sum, { long }) => sum + long, 0) / 2;
  for (const { from, to, long } of legs) {
    if (left <= long && long > 0) {
      const share = left / long;
      return [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
    }
    left -= long;
  }
  return points[0] ?? [0, 0];
}

export const PathMark = memo(function PathMark({
  view,
  path,
  inHand,
  actions,
}: {
  view: PlanView;
  path: CablePath;
  inHand: boolean;
  actions: WireActions;
}) {
  const points = (path.points as Point[]).map((at) => toScreen(view, at));
  return (
    <Handle
      label={`Cable way ${path.name}`}
      testId={`path-${path.id}`}
      pressed={inHand}
      className={`wire-path wire-path-${path.in}${inHand ? " wire-in-hand" : ""}`}
      onChoose={() => actions.onTake("path", path.id)}
      onRemove={() => actions.onRemove("path", path)}
    >
      <path d={pathOf(points)} className="wire-reach" />
      <path d={pathOf(points)} className="wire-path-edge" />
      <path d={pathOf(points)} className="wire-path-inside" />
    </Handle>
  );
});

/** The corners of the cable or way in hand: dragged, taken out, and new ones pulled out of the middles between. */
export function Corners({
  view,
  kind,
  id,
  line,
  fixed,
  actions,
}: {
  view: PlanView;
  kind: "cable" | "path";
  id: string;
  line: Point[];
  /** Whether its ends are those of the things that it joins. */
  fixed: boolean;
  actions: WireActions;
}) {
  const corners = line.map((at, place) => ({ at, place })).slice(fixed ? 1 : 0, fixed ? -1 : undefined);
  const middles = line.slice(1).map((to, place): Point => {
    const from = line[place] ?? to;
    return [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
  });
  return (
    <g className="wire-corners">
      {middles.map((at, place) => {
        const [u, v] = toScreen(view, at);
        return (
          <Handle
            key={`m${place}`}
            label={`New corner after ${place + 1}`}
            className="wire-corner-new"
            onChoose={() => actions.onNewCorner(kind, id, place, at)}
          >
            <circle cx={u} cy={v} r={14} className="reach" />
            <circle cx={u} cy={v} r={4} className="wire-corner-plus" />
          </Handle>
        );
      })}
      {corners.map(({ at, place }) => {
        const [u, v] = toScreen(view, at);
        return (
          <Handle
            key={place}
            label={`Corner ${place + 1}`}
            testId={`corner-${id}-${place}`}
            className="wire-corner"
            onDrag={({ at: to, gesture }) => actions.onCorner(kind, id, place, toSite(view, to), gesture)}
            onRemove={() => actions.onRemoveCorner(kind, id, place)}
          >
            <circle cx={u} cy={v} r={16} className="reach" />
            <rect x={u - 5} y={v - 5} width={10} height={10} className="wire-corner-face" />
          </Handle>
        );
      })}
    </g>
  );
}

/** A camera as the wiring sees it: something to be reached. */
export const CameraDot = memo(function CameraDot({
  view,
  position,
  id,
  name,
  verdict,
  inHand,
  actions,
}: {
  view: PlanView;
  position: number[];
  id: string;
  name: string;
  verdict: Verdict | null;
  inHand: boolean;
  actions: WireActions;
}) {
  const [u, v] = toScreen(view, position);
  return (
    <Handle
      label={`Camera ${name}`}
      testId={`camera-${id}`}
      pressed={inHand}
      className={inHand ? "wire-camera wire-in-hand" : "wire-camera"}
      onChoose={() => actions.onTake("camera", id)}
    >
      <circle cx={u} cy={v} r={20} className="reach" />
      <circle cx={u} cy={v} r={6.5} className="camera-body" />
      <text x={u} y={v - 13} textAnchor="middle" className="camera-name">
        {name}
      </text>
      {verdict && verdict !== "kept" && <VerdictShape verdict={verdict} at={[u + 12, v + 9]} size={14} />}
    </Handle>
  );
});

/** All cables with their lines; those that lead nowhere are not drawn. */
export const cableLines = (site: SiteFile): { cable: Cable; line: Point[] }[] =>
  networkOf(site).cables.flatMap((cable) => {
    const line = lineOf(site, cable);
    return line ? [{ cable, line }] : [];
  });
