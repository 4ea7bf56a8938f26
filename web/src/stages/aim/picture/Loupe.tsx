/** The sensor's own pixels around a promise. */
import type { Slot } from "../../../core/hands";
import type { PictureShown } from "../../../core/pictures";
import type { HeadRef, Light, PictureTold, SiteFile } from "../../../core/types";
import { type Pace, type PictureState, usePicture } from "../../../core/usePicture";
import { targetOf } from "../../../model/lookups";
import { TASK_WORDS, density } from "../../../ui/words";
import { shownBox } from "./Overlays";
import { Pixels } from "../../../ui/Pixels";

/** A loupe's room, px. */
export type Room = [number, number];

export interface LoupeSize {
  across: number;
  down: number;
  /** Pixels shown for one of the sensor. */
  times: number;
}

/** How many pixels around a subject whose bracket is so large, as large as they fit a room. Steps of eight, so that it does not jump with each move. */
export function loupeSize(bracket: number[] | null | undefined, [wide, tall]: Room): LoupeSize {
  const [left = 0, top = 0, right = 32, bottom = 32] = bracket ?? [];
  const steps = (px: number, most: number): number => Math.min(Math.max(Math.ceil((px * 1.35) / 8) * 8, 24), most);
  const across = steps(right - left, wide);
  const down = steps(bottom - top, tall);
  return { across, down, times: Math.max(1, Math.floor(Math.min(wide / across, tall / down))) };
}

/** The loupe of a promise; `shutter` is the so many-th part of a second. */
export function useLoupe(
  site: SiteFile,
  head: HeadRef | null,
  target: string | null,
  size: LoupeSize,
  look: { light: Light; shutter: number },
  slot: Slot,
  pace: Pace,
): ReturnType<typeof usePicture> {
  const moves = target ? (targetOf(site, target)?.speed_mps ?? 0) > 0 : false;
  const wish = target && {
    window: { loupe: { target, across: size.across, down: size.down } },
    light: look.light,
    grid: false,
    shutter_s: moves ? 1 / look.shutter : 0,
  };
  return usePicture(site, head, wish ? JSON.stringify(wish) : null, slot, pace);
}

export function LoupePixels({ shown, target, times }: { shown: PictureShown; target: string; times: number }) {
  const mark = markOf(shown.told, target);
  if (mark?.px_per_m == null) return null;
  return (
    <Pixels
      shown={shown}
      className="loupe-pixels"
      width={shown.told.frame.width * times}
      label={`Its own pixels, ${times === 1 ? "one to one" : `${times} times as large`}`}
    />
  );
}

export const markOf = (told: PictureTold, target: string): PictureTold["marks"][number] | undefined =>
  told.marks.find((held) => held.target === target);

/** What is told of a promise: by its loupe, which knows how it moves, while that is of the same site as the whole picture. */
export function toldBy(whole: PictureState, loupe: PictureState | null): PictureTold {
  return loupe && loupe.of.site === whole.of.site ? loupe.told : whole.told;
}

/** What so many pixels are good for, and how the promise stands. */
export function loupeSays(told: PictureTold, site: SiteFile, target: string): string {
  const mark = markOf(told, target);
  const held = targetOf(site, target);
  if (mark?.px_per_m == null || !held) return "The selected promise is out of the picture.";
  const good = held.subject === "plate" ? null : mark.good_for;
  const enough =
    held.subject === "plate"
      ? ""
      : good
        ? `, by the standard enough to ${TASK_WORDS[good]}`
        : ", by the standard too few for any task";
  const blur = mark.blur_px >= 0.05 ? `, drawn out over ${mark.blur_px.toFixed(1)} px` : "";
  return `${density(mark.px_per_m)} px/m to ${TASK_WORDS[held.task]}: ${mark.verdict}${mark.clear ? "" : ", hidden"}${enough}${blur}.`;
}

const CORNERS = ["bottom-right", "bottom-left", "top-right", "top-left"] as const;
type LoupeCorner = (typeof CORNERS)[number];

/** The corner of a picture in which a loupe of a size hides the fewest promises, that in hand least of all. */
export function loupeCorner(told: PictureTold, target: string, size: [number, number], loupe: LoupeSize): LoupeCorner {
  const scale = (told.sensor_px[0] ?? 1) / size[0];
  const [wide, tall] = [loupe.across * loupe.times, loupe.down * loupe.times];
  const hides = (corner: LoupeCorner): number => {
    const left = corner.endsWith("left") ? 0 : size[0] - wide;
    const top = corner.startsWith("top") ? 0 : size[1] - tall;
    return told.marks.reduce((sum, mark) => {
      const box = mark.clear ? shownBox(mark.bracket, scale, size) : null;
      const under = box && box[0] < left + wide && box[2] > left && box[1] < top + tall && box[3] > top;
      return sum + (under ? (mark.target === target ? 100 : 1) : 0);
    }, 0);
  };
  return CORNERS.reduce((best, corner) => (hides(corner) < hides(best) ? corner : best));
}
