/** A camera on the plan: drag it to move it, drag its saffron grip to aim it. */
import { memo } from "react";
import type { Camera, CameraHead, HeadRef, Point } from "../../core/types";
import { viewOf } from "../../model/views";
import { Handle } from "../../ui/Handle";
import { turned } from "./turned";
import { type PlanView, toScreen, toSite } from "../view";

/** How far the aiming grip sits from the camera, px. */
const GRIP = 46;

export interface CameraActions {
  onTake(camera: Camera, head: CameraHead): void;
  onMove(camera: Camera, to: Point, gesture: string): void;
  onAim(camera: Camera, head: HeadRef, at: Point, gesture: string): void;
}

interface Props {
  view: PlanView;
  camera: Camera;
  /** Its head in hand, with the view of it, if one is. */
  inHand: HeadRef | null;
  actions: CameraActions;
}

const LENS: Point[][] = [
  [
    [-4.6, -6.5],
    [-6.8, -14],
    [6.8, -14],
    [4.6, -6.5],
  ],
];

export const CameraMark = memo(function CameraMark({ view, camera, inHand, actions }: Props) {
  const [u, v] = toScreen(view, camera.position);
  const first = camera.heads[0];
  // The name stands behind the camera, where it looks least.
  const back = (((first?.pan_deg ?? 0) + 180) * Math.PI) / 180;
  const name = [Math.sin(back) * 20, -Math.cos(back) * 17] as const;
  return (
    <g>
      {camera.heads.map((head) => (
        <HeadGrips key={head.id} view={view} camera={camera} head={head} inHand={inHand} actions={actions} />
      ))}
      <Handle
        label={`Camera ${camera.name}`}
        testId={`camera-${camera.id}`}
        pressed={inHand !== null}
        className={inHand ? "camera camera-in-hand" : "camera"}
        onChoose={() => first && !inHand && actions.onTake(camera, first)}
        onDrag={({ at, first: begins, gesture }) => {
          if (begins && first && !inHand) actions.onTake(camera, first);
          actions.onMove(camera, toSite(view, at), gesture);
        }}
      >
        <circle cx={u} cy={v} r={22} className="reach" />
        {camera.heads.map((head) => (
          <path key={head.id} d={turned(LENS, [u, v], head.pan_deg, true)} className="camera-lens" />
        ))}
        <circle cx={u} cy={v} r={7} className="camera-body" />
        <text x={u + name[0]} y={v + name[1] + 4} textAnchor="middle" className="camera-name">
          {camera.name}
        </text>
      </Handle>
    </g>
  );
});

/** The grips of a head: of the one in hand, and small ones of its sisters, so that each can be taken and turned on the plan. */
function HeadGrips({
  view,
  camera,
  head,
  inHand,
  actions,
}: {
  view: PlanView;
  camera: Camera;
  head: CameraHead;
  inHand: HeadRef | null;
  actions: CameraActions;
}) {
  if (!inHand) return null;
  const mine = inHand.head === head.id;
  const aimed = (mine && viewOf(head, inHand.view)) || head;
  const ref = mine ? inHand : { camera: camera.id, head: head.id };
  const [u, v] = toScreen(view, camera.position);
  const others = [...(head.presets ?? []), ...(head.flattened ?? [])].filter((held) => held !== aimed);
  return (
    <>
      {others.map((held) => (
        <path
          key={held.id}
          transform={`translate(${u} ${v}) rotate(${held.pan_deg})`}
          d="M0 -17V-34"
          className="view-tick"
        />
      ))}
      <AimGrip view={view} camera={camera} head={ref} pan={aimed.pan_deg} sister={!mine} actions={actions} />
    </>
  );
}

function AimGrip({
  view,
  camera,
  head,
  pan,
  sister,
  actions,
}: {
  view: PlanView;
  camera: Camera;
  head: HeadRef;
  pan: number;
  /** Whether another head of the camera is in hand. */
  sister: boolean;
  actions: CameraActions;
}) {
  const [u, v] = toScreen(view, camera.position);
  const turn = (pan * Math.PI) / 180;
  const [gu, gv] = [u + Math.sin(turn) * GRIP, v - Math.cos(turn) * GRIP];
  return (
    <Handle
      label={`Aim of ${camera.name}${sister ? ` ${head.head}` : ""}`}
      testId={sister ? `aim-${camera.id}-${head.head}` : `aim-${camera.id}`}
      className={sister ? "grip grip-sister" : "grip"}
      onChoose={() => {
        const held = camera.heads.find((h) => h.id === head.head);
        if (sister && held) actions.onTake(camera, held);
      }}
      onDrag={({ at, gesture }) => actions.onAim(camera, head, toSite(view, at), gesture)}
    >
      <line x1={u} y1={v} x2={gu} y2={gv} className="grip-arm" />
      <circle cx={gu} cy={gv} r={22} className="reach" />
      <circle cx={gu} cy={gv} r={6.5} className="grip-knob" />
    </Handle>
  );
}
