/** How pictures are looked at: by day or by night, exposed how, with a grid of metres. */
import { create } from "zustand";
import type { Light } from "../../../core/types";

interface PictureLook {
  night: boolean;
  /** Stops over what lights the promises well. */
  stops: number;
  grid: boolean;
  set(change: Partial<PictureLook>): void;
}

export const usePictureLook = create<PictureLook>((set) => ({ night: false, stops: 0, grid: false, set }));

export const lightOf = ({ night, stops }: Pick<PictureLook, "night" | "stops">): Light =>
  night ? { night: { stops } } : "day";
