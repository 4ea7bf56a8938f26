/** What is being drawn, the hand's next side with its length and bearing, and the box that selects. */
import type { Point, SiteFile, Units } from "../../../core/types";
import { bearingOf } from "../../../model/snap";
import { type PlanView, toScreen } from "../../../plan/view";
import { formatLength } from "../../../ui/length";
import { useDraw } from "./drawView";

export function DrawLayer({ view, units, box }: { view: PlanView; units: Units; box: boolean }) {
  const { points, hand, closed, corner } = useDraw();
  if (box) return corner && <Box view={view} from={corner} to={hand?.at ?? view.centre} />;
  const drawn = points.map((p) => toScreen(view, p));
  const last = points.at(-1);
  const at = hand && toScreen(view, hand.at);
  const first = drawn[0];
  return (
    <g className="drawn" data-testid="drawn">
      {drawn.length > 1 && <path d={`M${drawn.map((p) => p.join(" ")).join("L")}`} className="drawn-line" />}
      {drawn.map(([u, v], place) => (
        <rect key={place} x={u - 3.5} y={v - 3.5} width={7} height={7} className="drawn-point" />
      ))}
      {last && hand && at && (
        <>
          <path d={`M${toScreen(view, last).join(" ")}L${at.join(" ")}`} className="drawn-next" />
          {closed && first && drawn.length > 1 && (
            <path d={`M${at.join(" ")}L${first.join(" ")}`} className="drawn-closing" />
          )}
          <text x={at[0] + 14} y={at[1] - 10}>
            {formatLength(Math.hypot(hand.at[0] - last[0], hand.at[1] - last[1]), units)} ·{" "}
            {((bearingOf(last, hand.at) + 360) % 360).toFixed(1)}°
          </text>
        </>
      )}
      {hand?.to && at && (
        <>
          <circle cx={at[0]} cy={at[1]} r={7} className="drawn-snap" />
          <text x={at[0] + 14} y={at[1] + 8} className="drawn-says">
            {hand.to === "first" ? "close it" : hand.to}
          </text>
        </>
      )}
    </g>
  );
}

function Box({ view, from, to }: { view: PlanView; from: Point; to: Point }) {
  const [a, b] = [toScreen(view, from), toScreen(view, to)];
  const [x, y] = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
  return <rect x={x} y={y} width={Math.abs(a[0] - b[0])} height={Math.abs(a[1] - b[1])} className="drawn-box" />;
}

/** The obstacles that were selected together. */
export function Chosen({ view, site }: { view: PlanView; site: SiteFile }) {
  const chosen = useDraw((state) => state.chosen);
  const held = (site.obstacles ?? []).filter((obstacle) => chosen.includes(obstacle.id));
  return (
    <g className="chosen" data-testid="chosen">
      {held.map((obstacle) => (
        <path
          key={obstacle.id}
          d={`M${obstacle.outline.map((p) => toScreen(view, p).join(" ")).join("L")}${obstacle.closed === false ? "" : "Z"}`}
        />
      ))}
    </g>
  );
}
