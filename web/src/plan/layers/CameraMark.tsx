/** A camera on the plan: drag it to move it, drag its saffron grip to aim it. */
import { memo } from "react";
import type { Camera, Point } from "../../core/types";
import { Handle } from "../../ui/Handle";
import { type PlanView, toScreen, toSite } from "../view";

/** How far the aiming grip sits from the camera, px. */
const GRIP = 46;

export interface CameraActions {
  onTake(camera: Camera, head: string): void;
  onMove(camera: Camera, to: Point, gesture: string): void;
  onAim(camera: Camera, head: string, at: Point, gesture: string): void;
}

interface Props {
  view: PlanView;
  camera: Camera;
  /** The id of its head in hand, if one is. */
  inHand: string | null;
  actions: CameraActions;
}

export const CameraMark = memo(function CameraMark({ view, camera, inHand, actions }: Props) {
  const [u, v] = toScreen(view, camera.position);
  const first = camera.heads[0];
  // The name stands behind the camera, where it looks least.
  const back = (((first?.pan_deg ?? 0) + 180) * Math.PI) / 180;
  const name = [Math.sin(back) * 20, -Math.cos(back) * 17] as const;
  return (
    <g>
      {camera.heads.map(
        (head) =>
          inHand === head.id && (
            <AimGrip key={head.id} view={view} camera={camera} head={head.id} pan={head.pan_deg} actions={actions} />
          ),
      )}
      <Handle
        label={`Camera ${camera.name}`}
        testId={`camera-${camera.id}`}
        pressed={inHand !== null}
        className={inHand ? "camera camera-in-hand" : "camera"}
        onChoose={() => first && actions.onTake(camera, inHand ?? first.id)}
        onDrag={({ at, first: begins, gesture }) => {
          if (begins && first && !inHand) actions.onTake(camera, first.id);
          actions.onMove(camera, toSite(view, at), gesture);
        }}
      >
        <circle cx={u} cy={v} r={22} className="reach" />
        {camera.heads.map((head) => (
          <path
            key={head.id}
            transform={`translate(${u} ${v}) rotate(${head.pan_deg})`}
            d="M-4.6 -6.5L-6.8 -14H6.8L4.6 -6.5Z"
            className="camera-lens"
          />
        ))}
        <circle cx={u} cy={v} r={7} className="camera-body" />
        <text x={u + name[0]} y={v + name[1] + 4} textAnchor="middle" className="camera-name">
          {camera.name}
        </text>
      </Handle>
    </g>
  );
});

function AimGrip({
  view,
  camera,
  head,
  pan,
  actions,
}: {
  view: PlanView;
  camera: Camera;
  head: string;
  pan: number;
  actions: CameraActions;
}) {
  const [u, v] = toScreen(view, camera.position);
  const turn = (pan * Math.PI) / 180;
  const [gu, gv] = [u + Math.sin(turn) * GRIP, v - Math.cos(turn) * GRIP];
  return (
    <Handle
      label={`Aim of ${camera.name}`}
      testId={`aim-${camera.id}`}
      className="grip"
      onDrag={({ at, gesture }) => actions.onAim(camera, head, toSite(view, at), gesture)}
    >
      <line x1={u} y1={v} x2={gu} y2={gv} className="grip-arm" />
      <circle cx={gu} cy={gv} r={22} className="reach" />
      <circle cx={gu} cy={gv} r={6.5} className="grip-knob" />
    </Handle>
  );
}
