/** Lamps on the plan: a small sun of strokes around a dot, out of a wall or on a post. */
import { memo } from "react";
import type { Lamp, Point, SiteFile } from "../../core/types";
import { Handle } from "../../ui/Handle";
import { type PlanView, toScreen, toSite } from "../view";

export interface LampActions {
  onTake(lamp: Lamp): void;
  onMove(lamp: Lamp, to: Point, gesture: string): void;
  onRemove(lamp: Lamp): void;
}

interface Props {
  view: PlanView;
  lamps: SiteFile["lamps"];
  /** Some have an infrared lamp of their own. */
  cameras: SiteFile["cameras"];
  inHand: string | null;
  actions: LampActions;
}

/** Strokes of a lamp, from a little out of its middle. */
const STROKES = Array.from({ length: 8 }, (_, i) => {
  const [cos, sin] = [Math.cos((i * Math.PI) / 4), Math.sin((i * Math.PI) / 4)];
  return `M${(4.5 * cos).toFixed(1)} ${(4.5 * sin).toFixed(1)}L${(8 * cos).toFixed(1)} ${(8 * sin).toFixed(1)}`;
}).join("");

export const Lamps = memo(function Lamps({ view, lamps = [], cameras, inHand, actions }: Props) {
  return (
    <g className="lamps">
      {lamps.map((lamp) => {
        const [u, v] = toScreen(view, lamp.position);
        return (
          <Handle
            key={lamp.id}
            label={`Lamp ${lamp.name}`}
            testId={`lamp-${lamp.id}`}
            pressed={lamp.id === inHand}
            className={lamp.id === inHand ? "lamp lamp-in-hand" : "lamp"}
            onChoose={() => actions.onTake(lamp)}
            onRemove={() => actions.onRemove(lamp)}
            onDrag={({ at, gesture }) => actions.onMove(lamp, toSite(view, at), gesture)}
          >
            <title>{lamp.name}</title>
            <g transform={`translate(${u} ${v})`}>
              <circle r={16} className="reach" />
              <circle r={2.6} className="lamp-dot" />
              <path d={STROKES} className="lamp-strokes" />
            </g>
          </Handle>
        );
      })}
      {cameras.map(({ id, name, position, emitter }) => {
        if (!emitter) return null;
        const [[u, v], [x, y]] = [toScreen(view, emitter.position), toScreen(view, position)];
        return (
          <g key={id} className="emitter" role="img" aria-label={`Infrared lamp of ${name}`}>
            <line x1={u} y1={v} x2={x} y2={y} />
            <path d={`M${u - 5} ${v}l5 -5l5 5l-5 5Z`} />
          </g>
        );
      })}
    </g>
  );
});
