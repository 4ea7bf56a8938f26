/** A spot on the plan: a bracket mark that is dragged. */
import type { Point, Spot } from "../../core/types";
import { Handle } from "../../ui/Handle";
import { type PlanView, toScreen, toSite } from "../view";
import { SpotShape } from "./SpotShape";

interface Props {
  view: PlanView;
  spot: Spot;
  place: number;
  inHand: boolean;
  onChoose(): void;
  onMove(spot: Spot, to: Point, gesture: string): void;
}

export function SpotMark({ view, spot, place, inHand, onChoose, onMove }: Props) {
  const [u, v] = toScreen(view, spot.position);
  return (
    <Handle
      label={`Spot ${spot.name}`}
      testId={`spot-${spot.id}`}
      pressed={inHand}
      className={inHand ? "spot spot-in-hand" : "spot"}
      onChoose={onChoose}
      onDrag={({ at, gesture }) => onMove(spot, toSite(view, at), gesture)}
    >
      <circle cx={u} cy={v} r={22} className="reach" />
      <SpotShape at={[u, v]} place={place} />
    </Handle>
  );
}
