/** A spot's mark: a plate with its number in the walk. */
import type { Point } from "../../core/types";

export function SpotShape({ at: [u, v], place }: { at: Point; place: number }) {
  return (
    <>
      <path d={`M${u - 9} ${v - 9}H${u + 9}V${v + 9}H${u - 9}Z`} className="spot-plate" />
      <text x={u} y={v + 4.5} textAnchor="middle" className="spot-number">
        {place + 1}
      </text>
    </>
  );
}
