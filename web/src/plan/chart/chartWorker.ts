/** Makes charts of rasters and draws them, beside the thread that follows the hand. */
import labels from "@fontsource/barlow-semi-condensed/files/barlow-semi-condensed-latin-600-normal.woff2?url";
import figures from "@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff2?url";
import { hold } from "../../core/life";
import type { Raster } from "../../core/reliefs";
import { drawChart } from "./draw";
import { contoursAt, shoreOf, soundingsOf } from "./lines";
import type { Chart, ChartRequest, ChartView, FromChart, Inks, ToChart } from "./messages";

/** The tint goes from the palest to the deepest between these densities, px/m, by equal ratios. */
const PALEST = 12.5;
const DEEPEST = 800;
/** Soundings and strokes along the shore stand so far apart, px. */
const SOUNDINGS_PX = 62;
const STROKES_PX = 7;

const canvas = new OffscreenCanvas(1, 1);
let shown: ChartView | null = null;
let held: { request: ChartRequest; chart: Chart } | null = null;

/** Workers have no fonts of the page: they load their own. */
const faces = [
  new FontFace("Barlow Semi Condensed", `url(${labels})`, { weight: "600" }),
  new FontFace("IBM Plex Mono", `url(${figures})`),
];
for (const face of faces) {
  (self as unknown as { fonts: FontFaceSet }).fonts.add(face);
  void face.load().then(
    () => answer(null),
    () => undefined,
  );
}

self.onmessage = ({ data }: MessageEvent<ToChart>): void => {
  if ("life" in data) {
    void hold(data.life).then((ready) => self.postMessage({ ready } satisfies FromChart));
  } else if ("show" in data) {
    const before = shown;
    shown = data.show;
    if (held && before?.inks !== shown.inks) held = { ...held, chart: made(held.request, shown.inks) };
    answer(data.id);
  } else {
    if (shown) held = { request: data.make, chart: made(data.make, shown.inks) };
    answer(data.make.id);
  }
};

/** Draws what there is, and hands it over with the view that it is of: both come to the screen in one step. */
function answer(drawn: number | null): void {
  if (!shown || !held) return self.postMessage({ drawn, picture: null } satisfies FromChart);
  drawChart(canvas, held.chart, shown);
  const picture = { bitmap: canvas.transferToImageBitmap(), view: shown.view };
  self.postMessage({ drawn, picture } satisfies FromChart, { transfer: [picture.bitmap] });
}

function made({ wish, columns, rows, values, needs, scale }: ChartRequest, inks: Inks): Chart {
  const raster: Raster = { wish, columns, rows, values };
  return {
    wish,
    tint: tinted(raster, inks),
    contours: contoursAt(raster, needs),
    hachures: shoreOf(raster, STROKES_PX / scale),
    soundings: soundingsOf(raster, rounded(SOUNDINGS_PX / scale)),
  };
}

/** A lattice keeps its steps over a range of scales: they are powers of √2, m. */
const rounded = (metres: number): number => 2 ** (Math.ceil(Math.log2(metres) * 2) / 2);

/** How deep the tint is, 0 to 1. */
const depth = (value: number): number =>
  Math.min(Math.max(Math.log(value / PALEST) / Math.log(DEEPEST / PALEST), 0), 1);

function tinted({ columns, rows, values }: Raster, { pale, deep }: Inks): OffscreenCanvas {
  const sheet = new OffscreenCanvas(columns, rows);
  const context = sheet.getContext("2d");
  const image = new ImageData(columns, rows);
  const pixels = new Uint32Array(image.data.buffer);
  // Alpha, blue, green, red, as the memory of all usual machines has it.
  const ramp = Array.from({ length: 256 }, (_, i) => {
    const [r = 0, g = 0, b = 0] = pale.map((from, c) => Math.round(from + ((deep[c] ?? 0) - from) * (i / 255)));
    return ((255 << 24) | (b << 16) | (g << 8) | r) >>> 0;
  });
  for (let row = 0; row < rows; row++) {
    // Pictures begin in the north.
    const to = (rows - 1 - row) * columns;
    for (let column = 0; column < columns; column++) {
      const value = values[row * columns + column] ?? 0;
      if (value > 0) pixels[to + column] = ramp[Math.round(depth(value) * 255)] ?? 0;
    }
  }
  context?.putImageData(image, 0, 0);
  return sheet;
}
