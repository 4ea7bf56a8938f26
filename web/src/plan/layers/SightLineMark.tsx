/** The sight line in hand, with its length and what stands in it. */
import type { Point, Section, SightLine, Units } from "../../core/types";
import { formatLength } from "../../ui/length";
import { type PlanView, toScreen } from "../view";

interface Props {
  view: PlanView;
  /** Where the camera and what it looks at are now. */
  from: Point;
  to: Point;
  /** What was found of it. */
  line: SightLine;
  needEnds: Section["need_ends"];
  units: Units;
}

export function SightLineMark({ view, from, to, line, needEnds, units }: Props) {
  const [x0, y0] = toScreen(view, from);
  const [x1, y1] = toScreen(view, to);
  const long = Math.max(Math.hypot(x1 - x0, y1 - y0), 1);
  const label = formatLength(line.slant_m, units, 1);
  const half = label.length * 3.9 + 6;
  // The length stands past the target, out of the way of both ends.
  const [tu, tv] = [x1 + ((x1 - x0) / long) * (24 + half), y1 + ((y1 - y0) / long) * 32];
  return (
    <g className={`sight-line${line.clear ? "" : " sight-line-blocked"}`} aria-hidden="true">
      <line x1={x0} y1={y0} x2={x1} y2={y1} className="sight-line-ground" />
      <line x1={x0} y1={y0} x2={x1} y2={y1} className="sight-line-ray" data-testid="sight-line" />
      {needEnds.map((end) => {
        const share = end.ground_m / line.ground_m;
        // Beside the line, clear of the camera, its grip and the length.
        const underTag = Math.abs((share - 1) * long - 24 - half) < half + 14;
        if (share * long < 62 || underTag || share > 2.6) return null;
        const [du, dv] = [((y1 - y0) / long) * 16, ((x0 - x1) / long) * 16];
        return (
          <text
            key={end.task}
            x={x0 + (x1 - x0) * share - du}
            y={y0 + (y1 - y0) * share - dv + 4}
            className="contour-label"
            textAnchor="middle"
          >
            {Math.round(end.px_per_m)}
          </text>
        );
      })}
      <g transform={`translate(${tu} ${tv})`}>
        <rect x={-half} y={-9} width={2 * half} height={18} rx={3} className="tag" />
        <text textAnchor="middle" y={4} className="tag-text">
          {label}
        </text>
      </g>
    </g>
  );
}
