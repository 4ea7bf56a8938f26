/** Grid, scale bar and north. */
import type { Units } from "../../core/types";
import { roundLabel, roundLength } from "../../ui/length";
import { type PlanView, toScreen, toSite } from "../view";

export function Grid({ view, units }: { view: PlanView; units: Units }) {
  const step = roundLength(90 / view.scale, units);
  const [x0, y1] = toSite(view, [0, 0]);
  const [x1, y0] = toSite(view, view.size);
  const ticks = (from: number, to: number): number[] => {
    const first = Math.ceil(from / step);
    return Array.from({ length: Math.max(Math.floor(to / step) - first + 1, 0) }, (_, i) => (first + i) * step);
  };
  return (
    <g className="grid" aria-hidden="true">
      {ticks(x0, x1).map((x) => {
        const [u] = toScreen(view, [x, 0]);
        return <line key={`x${x}`} x1={u} x2={u} y1={0} y2={view.size[1]} />;
      })}
      {ticks(y0, y1).map((y) => {
        const [, v] = toScreen(view, [0, y]);
        return <line key={`y${y}`} x1={0} x2={view.size[0]} y1={v} y2={v} />;
      })}
    </g>
  );
}

export function Furniture({ view, units }: { view: PlanView; units: Units }) {
  const bar = roundLength(130 / view.scale, units);
  const [w, h] = view.size;
  const long = bar * view.scale;
  return (
    <g className="furniture" aria-hidden="true">
      <g transform={`translate(${w - 28} 62)`}>
        <path d="M0 20V-16M-5 -6L0 -17L5 -6" />
        <text y={36} textAnchor="middle">
          N
        </text>
      </g>
      <g transform={`translate(18 ${h - 20})`} data-testid="scale-bar">
        <path d={`M0 -5V5M0 0H${long}M${long} -5V5M${long / 2} -3V3`} />
        <text x={long + 8} y={4.5}>
          {roundLabel(bar, units)}
        </text>
      </g>
    </g>
  );
}
