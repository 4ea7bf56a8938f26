/** What goes to the worker that makes charts, and what comes back. */

import type { Point, ReliefWish } from "../../core/types";
import type { PlanView } from "../view";

/** The inks of the chart, as they stand in the stylesheet; workers and canvases do not read it. */
export interface Inks {
  pale: [number, number, number];
  deep: [number, number, number];
  ink: string;
  paper: string;
}

/** How the chart lies under the plan. */
export interface ChartView {
  view: PlanView;
  /** A picture lies beneath and shows through. */
  over: boolean;
  inks: Inks;
  /** What its figures are counted over, m: a metre or a foot. */
  over_m: number;
  /** Pixels of the device per pixel. */
  ratio: number;
}

/** A raster to make a chart of. */
export interface ChartRequest {
  id: number;
  wish: ReliefWish;
  columns: number;
  rows: number;
  values: Float32Array;
  /** The needs that get a contour, px/m. */
  needs: number[];
  /** Pixels per metre that it is drawn at. */
  scale: number;
}

/** First the lock that the worker holds as long as it lives; then views and rasters, each answered with its id once it is drawn. */
export type ToChart = { life: string } | { show: ChartView; id: number } | { make: ChartRequest };

/** A drawn chart, and the view that it was drawn at: the plan may have moved on meanwhile. */
export interface ChartPicture {
  bitmap: ImageBitmap;
  view: PlanView;
}

/** What comes back: that it is ready, and whether it holds its lock; what was asked for, drawn as far as there is something to draw. */
export type FromChart = { ready: boolean } | { drawn: number | null; picture: ChartPicture | null };

/** A line of the chart, m east and north. */
export type ChartLine = Point[];

export interface Contour {
  /** The need, px/m. */
  need: number;
  lines: ChartLine[];
}

/** A stroke across the shore: from the seen ground's edge towards what nothing sees. */
export interface Hachure {
  at: Point;
  /** Towards the unseen side, of length one, m east and north. */
  towards: Point;
}

/** A sounding: what the best head gives at a place, px/m. */
export interface Sounding {
  at: Point;
  density: number;
}

/** A raster made ready to be drawn at any view of about its scale. */
export interface Chart {
  wish: ReliefWish;
  /** The densities as they came, for the tint. */
  tint: OffscreenCanvas;
  contours: Contour[];
  hachures: Hachure[];
  soundings: Sounding[];
}
