/** How far a head that is turned from afar reaches zoomed in, wherever it is turned: a ring for each task. */
import { memo } from "react";
import { useCalm } from "../../core/hand";
import type { Camera, CameraHead, HeadRef, Point, SiteFile, Units } from "../../core/types";
import { useTour } from "../../core/useTours";
import { cameraOf, headOf } from "../../model/lookups";
import { type PlanView, toScreen } from "../../plan/view";
import { formatLength } from "../../ui/length";
import { TASK_WORDS } from "../../ui/words";

/** The tasks that have a ring, if it is on the sheet. */
const RINGS = ["inspect", "identify", "recognise"];
/** Where a ring's label may stand, as directions from its middle: above it first. */
const LABELS: Point[] = [0, 45, -45, 90, -90, 135, -135, 180].map((deg) => [
  Math.sin((deg * Math.PI) / 180),
  -Math.cos((deg * Math.PI) / 180),
]);

/** Of the head in hand, if it is such a one. */
export function SweepReach({
  view,
  site,
  inHand,
  units,
}: {
  view: PlanView;
  site: SiteFile;
  inHand: HeadRef | null;
  units: Units;
}) {
  const camera = inHand ? cameraOf(site, inHand.camera) : undefined;
  const head = inHand ? headOf(site, inHand.camera, inHand.head) : undefined;
  if (!camera || !head || camera.model.form !== "ptz") return null;
  return <Rings view={view} site={site} camera={camera} head={head} units={units} />;
}

interface Props {
  view: PlanView;
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  units: Units;
}

const Rings = memo(function Rings({ view, site, camera, head, units }: Props) {
  const { tour, settled } = useTour(useCalm(site), camera.id, head.id, 0);
  const [u, v] = toScreen(view, camera.position);
  return (
    <g className="sweep told" aria-hidden="true" data-testid="sweep-reach" data-settled={settled}>
      {tour?.reach
        .filter(({ task, slant_m }) => RINGS.includes(task) && slant_m > camera.height_m)
        .map(({ task, slant_m }) => {
          // Along the ground: the reach itself is slant.
          const radius = Math.sqrt(slant_m ** 2 - camera.height_m ** 2) * view.scale;
          const label = LABELS.map(([east, south]): Point => [u + east * radius, v + south * radius - 4]).find(
            ([x, y]) => x > 90 && x < view.size[0] - 90 && y > 50 && y < view.size[1] - 60,
          );
          return (
            <g key={task}>
              <circle cx={u} cy={v} r={radius} className="sweep-ring" />
              {label && (
                <text x={label[0]} y={label[1]} textAnchor="middle">
                  {TASK_WORDS[task]} to {formatLength(slant_m, units, 0)}, zoomed in
                </text>
              )}
            </g>
          );
        })}
    </g>
  );
});
