/** The plan of Fit: each camera with how far it is, and its place in the order of the ladders. */
import { useCallback } from "react";
import type { Days, FitState, SiteFile, Steps } from "../../core/types";
import { useSettings } from "../../keep/settings";
import { useSite } from "../../keep/store";
import { Sheet } from "../../plan/Sheet";
import { Solids } from "../../plan/layers/Solids";
import { type PlanView, toScreen } from "../../plan/view";
import { Handle } from "../../ui/Handle";
import { useFitView } from "./fitView";
import { STATES, STATE_WORDS } from "./words";

export function FitPlan({ site, steps, days }: { site: SiteFile; steps: Steps[] | null; days: Days | null }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const units = useSettings((settings) => settings.units);
  const { obstacles } = site;
  const solids = useCallback(
    (view: PlanView) => <Solids view={view} obstacles={obstacles} units={units} />,
    [obstacles, units],
  );
  return (
    <Sheet
      site={site}
      id={id}
      units={units}
      className="fit-plan"
      label="Plan"
      layers={[
        { still: true, draw: solids },
        { draw: (view) => <Cameras view={view} site={site} steps={steps} days={days} /> },
      ]}
    />
  );
}

/** The cameras in the order in which ladders and lifts stand. */
const orderOf = (days: Days | null): string[] =>
  days?.visits
    .filter(({ trade }) => trade === "ladder" || trade === "lift")
    .flatMap((visit) => visit.stops.map((stop) => stop.id)) ?? [];

function Cameras({
  view,
  site,
  steps,
  days,
}: {
  view: PlanView;
  site: SiteFile;
  steps: Steps[] | null;
  days: Days | null;
}) {
  const { camera: inHand, set } = useFitView();
  const order = orderOf(days);
  const places = order.flatMap((id) => {
    const found = site.cameras.find((camera) => camera.id === id);
    return found ? [toScreen(view, found.position)] : [];
  });
  return (
    <>
      {places.length > 1 && (
        <path className="fit-walk" d={places.map(([u, v], at) => `${at === 0 ? "M" : "L"}${u} ${v}`).join("")} />
      )}
      {site.cameras.map((camera) => {
        if (camera.existing === "goes") return null;
        const [u, v] = toScreen(view, camera.position);
        const state: FitState = steps?.find((one) => one.camera === camera.id)?.state ?? "on_the_bench";
        const place = order.indexOf(camera.id);
        return (
          <Handle
            key={camera.id}
            label={`${camera.name}, ${STATE_WORDS[state].toLowerCase()}${place < 0 ? "" : `, ladder ${place + 1}`}`}
            testId={`camera-${camera.id}`}
            pressed={camera.id === inHand}
            className={camera.id === inHand ? "fit-mark fit-mark-in-hand" : "fit-mark"}
            onChoose={() => set({ camera: camera.id })}
          >
            <circle cx={u} cy={v} r={22} className="reach" />
            <rect x={u - 13} y={v - 13} width={26} height={26} rx={5} className="fit-mark-face" />
            {/* How far it is: the share of its edge that is drawn strong. */}
            <rect
              x={u - 13}
              y={v + 15}
              width={(26 * STATES.indexOf(state)) / (STATES.length - 1)}
              height={4}
              className="fit-mark-done"
            />
            <text x={u} y={v + 5} textAnchor="middle" className="fit-mark-place">
              {place < 0 ? "·" : place + 1}
            </text>
            <text x={u} y={v - 18} textAnchor="middle" className="camera-name">
              {camera.name}
            </text>
          </Handle>
        );
      })}
    </>
  );
}
