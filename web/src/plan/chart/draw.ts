/** Draws the chart on a canvas: tint, contours with their figures, soundings, and a hachured shore. */
import type { Point } from "../../core/types";
import { density } from "../../ui/words";
import { type PlanView, toScreen } from "../view";
import type { Chart, ChartLine, ChartView, Inks } from "./messages";

/** Figures in a contour stand so far apart, px. */
const FIGURES_PX = 190;
const STROKE_PX = 5;

export function drawChart(canvas: OffscreenCanvas, chart: Chart, { view, over, inks, over_m, ratio }: ChartView): void {
  const [width, height] = view.size;
  if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
    canvas.width = Math.round(width * ratio);
    canvas.height = Math.round(height * ratio);
  }
  const context = canvas.getContext("2d");
  if (!context) return;
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, width, height);
  const { west, south, east, north } = chart.wish;
  const [left, bottom] = toScreen(view, [west, south]);
  const [right, top] = toScreen(view, [east, north]);
  context.globalAlpha = over ? 0.72 : 1;
  context.imageSmoothingEnabled = false;
  context.drawImage(chart.tint, left, top, right - left, bottom - top);
  context.globalAlpha = 1;
  drawShore(context, chart, view, inks);
  const taken = drawContours(context, chart, view, inks, over_m);
  drawSoundings(context, chart, view, inks, over_m, taken);
}

function trace(context: OffscreenCanvasRenderingContext2D, line: ChartLine, view: PlanView): void {
  line.forEach((place, i) => {
    const [u, v] = toScreen(view, place);
    if (i === 0) context.moveTo(u, v);
    else context.lineTo(u, v);
  });
}

function drawShore(
  context: OffscreenCanvasRenderingContext2D,
  { hachures }: Chart,
  view: PlanView,
  { ink }: Inks,
): void {
  context.strokeStyle = ink;
  context.globalAlpha = 0.55;
  context.lineWidth = 0.8;
  context.beginPath();
  for (const { at, towards } of hachures) {
    const [u, v] = toScreen(view, at);
    context.moveTo(u, v);
    context.lineTo(u + towards[0] * STROKE_PX, v - towards[1] * STROKE_PX);
  }
  context.stroke();
  context.globalAlpha = 1;
}

/** Draws the contours and answers where their figures stand. */
function drawContours(
  context: OffscreenCanvasRenderingContext2D,
  { contours }: Chart,
  view: PlanView,
  { ink, paper }: Inks,
  over_m: number,
): Point[] {
  context.strokeStyle = ink;
  context.lineWidth = 1.3;
  context.lineJoin = "round";
  context.beginPath();
  for (const { lines } of contours) for (const line of lines) trace(context, line, view);
  context.stroke();
  context.font = '600 12px "Barlow Semi Condensed", sans-serif';
  context.textAlign = "center";
  context.textBaseline = "middle";
  const taken: Point[] = [];
  for (const { need, lines } of contours) {
    for (const line of lines) {
      for (const { at, angle } of figures(line, view)) {
        if (near(taken, at, 46)) continue;
        taken.push(at);
        context.save();
        context.translate(at[0], at[1]);
        context.rotate(angle);
        context.lineWidth = 4;
        context.strokeStyle = paper;
        context.strokeText(density(need * over_m), 0, 0);
        context.fillStyle = ink;
        context.fillText(density(need * over_m), 0, 0);
        context.restore();
      }
    }
  }
  return taken;
}

/** Where figures stand in a line: from its middle, so far apart, along the line and never upside down. */
function figures(line: ChartLine, view: PlanView): { at: Point; angle: number }[] {
  const points = line.map((place) => toScreen(view, place));
  const found: { at: Point; angle: number }[] = [];
  let length = 0;
  for (let i = 1; i < points.length; i++) length += apart(points[i - 1], points[i]);
  if (length < 50) return found;
  let next = Math.min(length / 2, FIGURES_PX / 2);
  let walked = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    if (!a || !b) continue;
    walked += apart(a, b);
    if (walked < next) continue;
    next += FIGURES_PX;
    // The direction over a few points: cells make single steps jump.
    const [from, to] = [points[Math.max(i - 4, 0)] ?? a, points[Math.min(i + 4, points.length - 1)] ?? b];
    let angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
    if (Math.abs(angle) > Math.PI / 2) angle += angle > 0 ? -Math.PI : Math.PI;
    const [u, v] = b;
    if (u > 8 && v > 8 && u < view.size[0] - 8 && v < view.size[1] - 8) found.push({ at: b, angle });
  }
  return found;
}

function drawSoundings(
  context: OffscreenCanvasRenderingContext2D,
  { soundings }: Chart,
  view: PlanView,
  { ink }: Inks,
  over_m: number,
  taken: Point[],
): void {
  context.fillStyle = ink;
  context.globalAlpha = 0.85;
  context.font = '400 10.5px "IBM Plex Mono", monospace';
  for (const { at, density: value } of soundings) {
    const place = toScreen(view, at);
    if (!near(taken, place, 24)) context.fillText(density(Math.round(value * over_m)), place[0], place[1]);
  }
  context.globalAlpha = 1;
}

const apart = (a: Point | undefined, b: Point | undefined): number =>
  a && b ? Math.hypot(b[0] - a[0], b[1] - a[1]) : 0;
const near = (places: Point[], at: Point, px: number): boolean => places.some((place) => apart(place, at) < px);
