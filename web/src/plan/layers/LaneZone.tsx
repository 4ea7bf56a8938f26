/** Where a plate reads on its way: the stretch as a rail beside the way, and that which serves as a filled one. */
import type { SightLine } from "../../core/types";
import { formatLength } from "../../ui/length";
import type { Units } from "../../core/types";
import { type PlanView, toScreen } from "../view";

export function LaneZone({
  view,
  zone,
  units,
}: {
  view: PlanView;
  zone: NonNullable<SightLine["zone"]>;
  units: Units;
}) {
  const draw = (points: number[][]): string =>
    `M${points
      .map((p) =>
        toScreen(view, p)
          .map((c) => c.toFixed(1))
          .join(" "),
      )
      .join("L")}`;
  const ends = [zone.path[0], zone.path[zone.path.length - 1]].map((p) => p && toScreen(view, p));
  const [from, to] = ends;
  return (
    <g className="lane-zone" data-testid="lane-zone" aria-hidden="true">
      <path d={draw(zone.path)} className="lane-reads" />
      {zone.serves_path.length > 1 && <path d={draw(zone.serves_path)} className="lane-serves" />}
      {from && to && (
        <>
          <circle cx={from[0]} cy={from[1]} r={3} className="lane-end" />
          <circle cx={to[0]} cy={to[1]} r={3} className="lane-end" />
          <text x={from[0] - 12} y={from[1] + 4} textAnchor="end">
            reads {formatLength(zone.to - zone.from, units, 1)}
          </text>
        </>
      )}
    </g>
  );
}
