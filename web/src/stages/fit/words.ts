/** The words of Fit. */
import type { FitState, Phase, Surface } from "../../core/types";

export const STATES: FitState[] = ["on_the_bench", "ready", "hung", "aimed", "closed"];
export const STATE_WORDS: Record<FitState, string> = {
  on_the_bench: "On the bench",
  ready: "Ready to go up",
  hung: "Hung",
  aimed: "Aimed",
  closed: "Closed",
};

export const PHASES: Phase[] = ["bench", "put_up", "aim", "close"];
export const PHASE_WORDS: Record<Phase, string> = {
  bench: "On the bench",
  put_up: "Put it up",
  aim: "Aim it",
  close: "Close it",
};

export const SURFACE_WORDS: Record<Surface, string> = {
  wood: "Wood",
  brick: "Brick",
  block: "Hollow block",
  concrete: "Concrete",
  stucco: "Render",
  plasterboard: "Plasterboard",
  ceiling_tile: "Ceiling tile",
  sheet_metal: "Sheet metal",
  steel: "Steel",
};

/** Hours as they are said: a quarter is as fine as it gets. */
export const hours = (value: number): string =>
  `${(Math.ceil(value * 4) / 4).toLocaleString("en", { maximumFractionDigits: 2 })} h`;
