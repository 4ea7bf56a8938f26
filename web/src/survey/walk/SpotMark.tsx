/** A spot on the plan: a bracket mark that is dragged. */
import type { Spot } from "../../engine/types";
import { Handle } from "../../plan/Handle";
import { type PlanView, toScreen, toSite, usePlanView } from "../../plan/planView";
import { SpotShape } from "../../plan/SpotShape";
import { forgetSpot, roundPoint } from "../../site/edits";
import { useSite } from "../../site/store";

interface Props {
  view: PlanView;
  spot: Spot;
  place: number;
  inHand: boolean;
  onChoose(): void;
}

export function SpotMark({ view, spot, place, inHand, onChoose }: Props) {
  const edit = useSite((state) => state.edit);
  const [u, v] = toScreen(view, spot.position);
  return (
    <Handle
      label={`Spot ${spot.name}`} testId={`spot-${spot.id}`} pressed={inHand} className={inHand ? "spot spot-in-hand" : "spot"} onChoose={onChoose}
      onDrag={({ at, gesture }) =>
        edit(`Move ${spot.name}`, (site) => {
          const moved = site.spots?.find((s) => s.id === spot.id);
          if (!moved) return;
          moved.position = roundPoint(toSite(usePlanView.getState(), at));
          forgetSpot(site, spot.id);
          for (const camera of site.cameras) if (camera.spot === spot.id) camera.position = moved.position;
        }, gesture)
      }
    >
      <circle cx={u} cy={v} r={22} className="reach" />
      <SpotShape at={[u, v]} place={place} />
    </Handle>
  );
}
