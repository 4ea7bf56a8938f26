/** Private places on the plan: what no camera may show. */
import { memo, useRef } from "react";
import type { Point, PrivatePlace, SiteFile } from "../../core/types";
import { type Drag, Handle } from "../../ui/Handle";
import { type PlanView, toScreen } from "../view";

export interface PrivateActions {
  onTake(place: PrivatePlace): void;
  /** Moves it by metres east and north from how it was taken. */
  onMove(place: PrivatePlace, taken: PrivatePlace, by: Point, gesture: string): void;
  onRemove(place: PrivatePlace): void;
}

interface Props {
  view: PlanView;
  places: SiteFile["private"];
  /** The id of the one in hand. */
  inHand: string | null;
  actions: PrivateActions;
}

export const PrivatePlaces = memo(function PrivatePlaces({ view, places = [], inHand, actions }: Props) {
  return (
    <g className="private-places">
      {places.map((place) => (
        <PrivateMark key={place.id} view={view} place={place} inHand={place.id === inHand} actions={actions} />
      ))}
    </g>
  );
});

interface MarkProps {
  view: PlanView;
  place: PrivatePlace;
  inHand: boolean;
  actions: PrivateActions;
}

const PrivateMark = memo(function PrivateMark({ view, place, inHand, actions }: MarkProps) {
  const taken = useRef(place);
  const move = ({ moved: [u, v], first, gesture }: Drag): void => {
    if (first) taken.current = place;
    actions.onMove(place, taken.current, [u / view.scale, -v / view.scale], gesture);
  };
  const open = place.closed === false;
  const d = `M${place.outline.map((p) => toScreen(view, p).join(" ")).join("L")}${open ? "" : "Z"}`;
  return (
    <Handle
      label={`Private place ${place.name}`}
      testId={`private-${place.id}`}
      pressed={inHand}
      className={inHand ? "private-place private-in-hand" : "private-place"}
      onChoose={() => actions.onTake(place)}
      onRemove={() => actions.onRemove(place)}
      onDrag={inHand ? move : undefined}
    >
      <title>{place.name}</title>
      <path d={d} className="obstacle-reach" />
      <path d={d} className={open ? "private-upright" : "private-ground"} />
    </Handle>
  );
});
