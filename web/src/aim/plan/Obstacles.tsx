/** Solids on the plan: hatched outlines with their tops, thin walls as strokes. */
import type { Obstacle, SiteFile } from "../../engine/types";
import { useSettings } from "../../shell/settings";
import { formatLength } from "../../units/length";
import { type PlanView, toScreen } from "./planView";

export function Obstacles({ view, site }: { view: PlanView; site: SiteFile }) {
  return (
    <g className="obstacles">
      <defs>
        <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" className="hatch-line" />
        </pattern>
      </defs>
      {(site.obstacles ?? []).map((obstacle) => (
        <ObstacleMark key={obstacle.id} view={view} obstacle={obstacle} />
      ))}
    </g>
  );
}

function ObstacleMark({ view, obstacle }: { view: PlanView; obstacle: Obstacle }) {
  const units = useSettings((settings) => settings.units);
  const points = obstacle.outline.map((p) => toScreen(view, p));
  const d = `M${points.map((p) => p.join(" ")).join("L")}${obstacle.closed === false ? "" : "Z"}`;
  const seeThrough = (obstacle.see_through ?? 0) > 0.5;
  const [left, right] = [Math.min(...points.map((p) => p[0])), Math.max(...points.map((p) => p[0]))];
  const [top, bottom] = [Math.min(...points.map((p) => p[1])), Math.max(...points.map((p) => p[1]))];
  const label = `${obstacle.name} ${formatLength(obstacle.top_m, units, 1)}`;
  const fits = obstacle.closed !== false && right - left > label.length * 6.2 && bottom - top > 14;
  return (
    <g className={`obstacle obstacle-${obstacle.kind}${seeThrough ? " obstacle-thin" : ""}`} role="img" aria-label={label}>
      <title>{label}</title>
      {obstacle.closed !== false && <path d={d} className="obstacle-ground" />}
      <path d={d} className={obstacle.closed === false ? "obstacle-wall" : "obstacle-solid"} />
      {fits && (
        <text x={(left + right) / 2} y={(top + bottom) / 2 + 4} textAnchor="middle">{label}</text>
      )}
    </g>
  );
}
