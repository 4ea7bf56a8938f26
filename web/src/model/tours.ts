/** Edits of presets, tours and flattened views. */
import { GUIDE } from "../core/guide";
import type { Camera, CameraHead, Flattened, Preset } from "../core/types";
import { freshId, rounded } from "./points";

const viewIds = (head: CameraHead): { id: string }[] => [...(head.presets ?? []), ...(head.flattened ?? [])];

/** Adds a preset that looks where `from` does: the view in hand, or the head itself. */
export function addPreset(head: CameraHead, from: { pan_deg: number; tilt_deg: number; focal_mm?: number }): string {
  head.presets ??= [];
  const id = freshId("p", viewIds(head));
  const preset: Preset = {
    id,
    name: `Preset ${head.presets.length + 1}`,
    pan_deg: from.pan_deg,
    tilt_deg: from.tilt_deg,
    focal_mm: from.focal_mm ?? head.focal_mm,
    dwell_s: head.presets[0]?.dwell_s ?? GUIDE.begins.dwell_s,
  };
  head.presets.push(preset);
  return id;
}

/** Takes a preset out of the tour; without any the head looks where it is parked. */
export function removePreset(head: CameraHead, id: string): void {
  const left = (head.presets ?? []).filter((preset) => preset.id !== id);
  if (left.length > 0) head.presets = left;
  else delete head.presets;
}

/** Moves a preset by one place in the order of the tour. */
export function movePreset(head: CameraHead, id: string, by: 1 | -1): void {
  const presets = head.presets ?? [];
  const from = presets.findIndex((preset) => preset.id === id);
  const [moved, other] = [presets[from], presets[from + by]];
  if (!moved || !other) return;
  presets[from] = other;
  presets[from + by] = moved;
}

/** Adds a dewarped picture, a right angle on from the last one. */
export function addFlattened(camera: Camera, head: CameraHead): string {
  head.flattened ??= [];
  const id = freshId("f", viewIds(head));
  const last = head.flattened.at(-1);
  const view: Flattened = {
    id,
    name: `View ${head.flattened.length + 1}`,
    pan_deg: last ? (last.pan_deg + 90) % 360 : head.pan_deg,
    tilt_deg: last?.tilt_deg ?? Math.min(GUIDE.begins.flattened.tilt_deg, Math.max(head.tilt_deg, 0)),
    hfov_deg: GUIDE.begins.flattened.hfov_deg,
    // About as many pixels as the round picture has there.
    width_px: Math.round(Math.min(camera.model.sensor.width_px, camera.model.sensor.height_px) / 2),
    height_px: Math.round((Math.min(camera.model.sensor.width_px, camera.model.sensor.height_px) * 9) / 32),
  };
  head.flattened.push(view);
  return id;
}

export function removeFlattened(head: CameraHead, id: string): void {
  const left = (head.flattened ?? []).filter((view) => view.id !== id);
  if (left.length > 0) head.flattened = left;
  else delete head.flattened;
}

/** How a fisheye hangs. */
export type Hanging = "ceiling" | "wall" | "table";

const TILTS: Record<Hanging, number> = { ceiling: 90, wall: 0, table: -90 };

export function hangingOf(head: CameraHead): Hanging | null {
  const found = (Object.keys(TILTS) as Hanging[]).find((how) => Math.abs(TILTS[how] - head.tilt_deg) < 1);
  return found ?? null;
}

/** Hangs a fisheye up: on a wall its arrow points up, on a ceiling or table the way the head's bearing says. */
export function hang(head: CameraHead, how: Hanging): void {
  head.tilt_deg = TILTS[how];
  head.roll_deg = 0;
  head.pan_deg = rounded(head.pan_deg, 1);
}
