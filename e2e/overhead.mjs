/** Draws the demo's overhead picture out of its site file: `node e2e/overhead.mjs`. Ten pixels a metre, with its world file. */
import { readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { chromium } from "@playwright/test";

const [WIDTH_M, HEIGHT_M, SCALE] = [120, 84, 10];
const root = fileURLToPath(import.meta.resolve("../"));
const site = JSON.parse(readFileSync(`${root}demo/tern-quay.json`, "utf8"));

const at = ([x, y]) => `${(x * SCALE).toFixed(1)} ${((HEIGHT_M - y) * SCALE).toFixed(1)}`;
const path = (points, closed = true) => `M${points.map(at).join("L")}${closed ? "Z" : ""}`;
const ROOF = {
  building: "#8d867b",
  vehicle: "#b9c4c8",
  tree: "#5f7a4c",
  other: "#9b917f",
  wall: "#6d675e",
  fence: "#77716a",
  glass: "#9db3b8",
};

const shadow = (o) => o.outline.map(([x, y]) => [x + o.top_m * 0.25, y - o.top_m * 0.2]);
const solids = site.obstacles.map((o) =>
  o.closed === false
    ? `<path d="${path(o.outline, false)}" fill="none" stroke="${ROOF[o.kind]}" stroke-width="3"/>`
    : `<path d="${path(shadow(o))}" fill="#0003"/><path d="${path(o.outline)}" fill="${ROOF[o.kind]}" stroke="#0004"/>`,
);
const boats = [
  [8, 6],
  [19, 9],
  [31, 5],
  [97, 7],
  [108, 10],
].map(
  ([x, y]) =>
    `<path transform="translate(${x * SCALE} ${(HEIGHT_M - y) * SCALE}) rotate(${x * 7})" d="M-14 -34Q0 -52 14 -34V34H-14Z" fill="#dfe3e0" stroke="#0003"/>`,
);
const markings = [78, 82, 86].map(
  (y) => `<rect x="${90 * SCALE}" y="${(HEIGHT_M - y) * SCALE}" width="4" height="24" fill="#efe9d8"/>`,
);
const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH_M * SCALE}" height="${HEIGHT_M * SCALE}">
  <rect width="100%" height="100%" fill="#a9a395"/>
  <path d="${path([
    [0, 0],
    [120, 0],
    [120, 16],
    [88, 16],
    [88, 13],
    [84, 13],
    [84, 16],
    [60, 16],
    [58, 22],
    [48, 22],
    [46, 16],
    [0, 14],
  ])}" fill="#5d7f8a"/>
  <path d="${path([
    [84, 2],
    [88, 2],
    [88, 18],
    [84, 18],
  ])}" fill="#a38f6f"/>
  <path d="${path([
    [85, 84],
    [100, 84],
    [100, 46],
    [85, 46],
  ])}" fill="#8f8a80"/>
  <path d="${path([
    [47, 20],
    [59, 20],
    [57, 30],
    [49, 30],
  ])}" fill="#bdb6a6"/>
  <path d="${path([
    [0, 70],
    [84, 70],
    [84, 84],
    [0, 84],
  ])}" fill="#83936a"/>
  ${markings.join("")}${boats.join("")}${solids.join("")}
</svg>`;

const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
const page = await browser.newPage({ viewport: { width: WIDTH_M * SCALE, height: HEIGHT_M * SCALE } });
await page.setContent(`<style>body{margin:0}</style>${svg}`);
writeFileSync(`${root}demo/tern-quay.png`, await page.screenshot());
await browser.close();
writeFileSync(
  `${root}demo/tern-quay.pgw`,
  [1 / SCALE, 0, 0, -1 / SCALE, 0.5 / SCALE, HEIGHT_M - 0.5 / SCALE].join("\n") + "\n",
);
