/** A camera on the plan: drag it to move it, drag its saffron grip to aim it. */
import type { Camera } from "../engine/types";
import { bearing, cameraOf, headOf, roundPoint, rounded } from "../site/edits";
import { useSite } from "../site/store";
import { useInHand } from "../aim/inHand";
import { Handle } from "./Handle";
import { type PlanView, toScreen, toSite, usePlanView } from "./planView";

/** How far the aiming grip sits from the camera, px. */
const GRIP = 46;

interface Props {
  view: PlanView;
  camera: Camera;
  /** The id of its head in hand, if one is. */
  inHand: string | null;
}

export function CameraMark({ view, camera, inHand }: Props) {
  const takeHead = useInHand((state) => state.takeHead);
  const edit = useSite((state) => state.edit);
  const [u, v] = toScreen(view, camera.position);
  const first = camera.heads[0];
  // The name stands behind the camera, where it looks least.
  const back = (((first?.pan_deg ?? 0) + 180) * Math.PI) / 180;
  const name = [Math.sin(back) * 20, -Math.cos(back) * 17] as const;
  return (
    <g>
      {camera.heads.map((head) => (
        <AimGrip key={head.id} view={view} camera={camera} head={head.id} pan={head.pan_deg} shown={inHand === head.id} />
      ))}
      <Handle
        label={`Camera ${camera.name}`} testId={`camera-${camera.id}`} pressed={inHand !== null}
        className={inHand ? "camera camera-in-hand" : "camera"}
        onChoose={() => first && takeHead({ camera: camera.id, head: inHand ?? first.id })}
        onDrag={({ at, first: begins, gesture }) => {
          if (begins && first && !inHand) takeHead({ camera: camera.id, head: first.id });
          edit(`Move ${camera.name}`, (site) => {
            const moved = cameraOf(site, camera.id);
            if (!moved) return;
            moved.position = roundPoint(toSite(usePlanView.getState(), at));
            // It no longer sits where it was measured from.
            delete moved.spot;
          }, gesture);
        }}
      >
        <circle cx={u} cy={v} r={22} className="reach" />
        {camera.heads.map((head) => (
          <path key={head.id} transform={`translate(${u} ${v}) rotate(${head.pan_deg})`} d="M-4.6 -6.5L-6.8 -14H6.8L4.6 -6.5Z" className="camera-lens" />
        ))}
        <circle cx={u} cy={v} r={7} className="camera-body" />
        <text x={u + name[0]} y={v + name[1] + 4} textAnchor="middle" className="camera-name">{camera.name}</text>
      </Handle>
    </g>
  );
}

function AimGrip({ view, camera, head, pan, shown }: { view: PlanView; camera: Camera; head: string; pan: number; shown: boolean }) {
  const edit = useSite((state) => state.edit);
  if (!shown) return null;
  const [u, v] = toScreen(view, camera.position);
  const turn = (pan * Math.PI) / 180;
  const [gu, gv] = [u + Math.sin(turn) * GRIP, v - Math.cos(turn) * GRIP];
  return (
    <Handle
      label={`Aim of ${camera.name}`} testId={`aim-${camera.id}`} className="grip"
      onDrag={({ at, gesture }) =>
        edit(`Aim ${camera.name}`, (site) => {
          const aimed = headOf(site, camera.id, head);
          const place = cameraOf(site, camera.id)?.position;
          if (!aimed || !place) return;
          aimed.pan_deg = rounded(bearing([place[0] ?? 0, place[1] ?? 0], toSite(usePlanView.getState(), at)), 1);
        }, gesture)
      }
    >
      <line x1={u} y1={v} x2={gu} y2={gv} className="grip-arm" />
      <circle cx={gu} cy={gv} r={22} className="reach" />
      <circle cx={gu} cy={gv} r={6.5} className="grip-knob" />
    </Handle>
  );
}
