/** How pictures are looked at: by day or by night, exposed how, with which lines over them, and beside what. */
import { create } from "zustand";
import { perSite } from "../../../model/perSite";
import { GUIDE } from "../../../core/guide";
import type { HeadRef, Light, Point, SiteFile } from "../../../core/types";
import { cameraOf } from "../../../model/lookups";
import { aimedOf } from "../../../model/views";
import type { Quantity } from "../../../ui/Measure";

interface PictureLook {
  night: boolean;
  /** Whether a fixed shutter is left aside, and its automatic shown. */
  exposed: "automatic" | null;
  /** Stops lighter than it is exposed. */
  stops: number;
  grid: boolean;
  /** Horizon, and a level line through the middle. */
  lines: boolean;
  /** The shutter is open for the so many-th part of a second, while something moves. */
  shutter: number;
  /** Whether a hand drags the picture itself. */
  dragged: boolean;
  set(change: Partial<PictureLook>): void;
}

export const usePictureLook = perSite(
  create<PictureLook>((set) => ({
    night: false,
    exposed: null,
    stops: 0,
    grid: false,
    lines: true,
    shutter: Math.round(1 / GUIDE.shutter_s),
    dragged: false,
    set,
  })),
);

export const lightOf = ({ night, stops, exposed }: Pick<PictureLook, "night" | "stops" | "exposed">): Light =>
  night ? { night: { stops, exposed } } : "day";

/** Size of the picture of a head, px. */
export function sensorOf(site: SiteFile, head: HeadRef): Point | null {
  const aimed = aimedOf(site, head);
  const camera = cameraOf(site, head.camera);
  if (!aimed || !camera) return null;
  return "hfov_deg" in aimed
    ? [aimed.width_px, aimed.height_px]
    : [camera.model.sensor.width_px, camera.model.sensor.height_px];
}

/** Width, px, at which a picture of a sensor fits a room. */
export const widthIn = ([across, down]: Point, width: number, height: number): number =>
  Math.floor(Math.min((height * across) / down, width));

/** A shutter time as a photographer writes it: `1/500 s`. */
export const SHUTTER_TIME: Quantity = {
  format: (part) => `1/${Math.round(part)} s`,
  parse: (text) => {
    const part = /^\s*(?:1\s*\/\s*)?(\d+)\s*s?\s*$/.exec(text)?.[1];
    return part === undefined ? null : Number(part);
  },
  step: 50,
  decimals: 0,
};
