/** The keyboard path: everything on the Aim screen without a mouse. */
import { useEffect, useRef } from "react";
import type { Shown } from "../engine/useStudy";
import { useSettings } from "../shell/settings";
import { cameraOf, headOf, rounded } from "../site/edits";
import { useSite } from "../site/store";
import { lengthStep } from "../units/length";
import { useInHand } from "./inHand";
import { useKeysHelp } from "./KeysHelp";

const typing = (event: KeyboardEvent): boolean =>
  event.target instanceof HTMLElement && event.target.closest("input, textarea, select, [contenteditable], .ant-modal, .ant-drawer, .ant-select") !== null;

export function useKeys(shown: Shown): void {
  const order = useRef<string[]>([]);
  useEffect(() => {
    order.current = shown.site.targets.map((target) => target.id);
  }, [shown.site]);
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (typing(event)) return;
      const handled = event.ctrlKey || event.metaKey ? history(event) : plainKey(event, order.current);
      if (handled) event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, []);
}

function history(event: KeyboardEvent): boolean {
  const { undo, redo } = useSite.getState();
  const key = event.key.toLowerCase();
  if (key === "z" && event.shiftKey) redo();
  else if (key === "z") undo();
  else if (key === "y") redo();
  else return false;
  return true;
}

function plainKey(event: KeyboardEvent, targets: string[]): boolean {
  const scale = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
  const inHand = useInHand.getState();
  switch (event.key) {
    case "ArrowLeft": return turn(-scale, 0);
    case "ArrowRight": return turn(scale, 0);
    case "ArrowUp": return turn(0, -scale);
    case "ArrowDown": return turn(0, scale);
    case "[": return zoom(-0.1);
    case "]": return zoom(0.1);
    case "PageUp": return raise(1);
    case "PageDown": return raise(-1);
    case "j": case "J": return step(targets, 1);
    case "k": case "K": return step(targets, -1);
    case "t": case "T": inHand.place("target"); return true;
    case "c": case "C": inHand.place("camera"); return true;
    case "o": case "O": inHand.place("obstacle"); return true;
    case "Escape": inHand.place(null); return true;
    case "?": useKeysHelp.getState().show(true); return true;
    default: return false;
  }
}

/** Changes the head in hand, if there is one. */
function turn(pan: number, tilt: number): boolean {
  const { head } = useInHand.getState();
  if (!head) return false;
  useSite.getState().edit("Aim", (site) => {
    const aimed = headOf(site, head.camera, head.head);
    if (!aimed) return;
    aimed.pan_deg = rounded((aimed.pan_deg + pan + 360) % 360, 2);
    aimed.tilt_deg = rounded(Math.min(Math.max(aimed.tilt_deg + tilt, -90), 90), 2);
  }, `keys-aim-${head.camera}-${head.head}`);
  return true;
}

function zoom(by: number): boolean {
  const { head } = useInHand.getState();
  if (!head) return false;
  useSite.getState().edit("Change the focal length", (site) => {
    const lens = cameraOf(site, head.camera)?.model.lens;
    const zoomed = headOf(site, head.camera, head.head);
    if (!lens || !zoomed) return;
    zoomed.focal_mm = rounded(Math.min(Math.max(zoomed.focal_mm + by, lens.focal_min_mm), lens.focal_max_mm), 2);
  }, `keys-focal-${head.camera}-${head.head}`);
  return true;
}

function raise(by: number): boolean {
  const { head } = useInHand.getState();
  if (!head) return false;
  const step = lengthStep(useSettings.getState().units);
  useSite.getState().edit("Change the height", (site) => {
    const camera = cameraOf(site, head.camera);
    if (camera) camera.height_m = rounded(Math.max(camera.height_m + by * step, 0.05), 4);
  }, `keys-height-${head.camera}`);
  return true;
}

function step(targets: string[], by: number): boolean {
  const { target, takeTarget } = useInHand.getState();
  const place = target ? targets.indexOf(target) : -1;
  const next = targets[(place + by + targets.length) % targets.length];
  if (next) takeTarget(next);
  return true;
}
