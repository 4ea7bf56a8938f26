/**
 * What a hand feels, measured in a browser on a running application: `node e2e/measure.mjs [http://127.0.0.1:8017 [TOOL,TOOL]]`.
 * First load, then drags of a camera on the demo and on a made-up site of 64 cameras, 200 targets and 400 obstacles, with each
 * tool open, and the plan moved and zoomed: how long frames take, what of the main thread, and in how many of them the figures
 * were those of the site as it was; and what the core alone takes in the browser's engine (this one: V8). With tools named only
 * drags with these (an empty name: as it opens). Reported, never asserted.
 */
import { readFileSync } from "node:fs";
import { setTimeout as sleep } from "node:timers/promises";
import { chromium } from "@playwright/test";
import { Core, initSync } from "../web/src/core/made/core.js";

const at = process.argv[2] ?? "http://127.0.0.1:8017";
const MOVES = 300;
const CELLS = { west: 0, south: 0, east: 200, north: 200, cell: 0.25, height: 1.6 };
const args = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"];

/** Spreads numbers evenly over [0, 1): multiples of the golden ratio. */
const spread = (i, salt) => ((i + 1) * 0.618033988749895 + salt) % 1;

function bigSite(side = 200) {
  const range = (count) => Array.from({ length: count }, (_, i) => i);
  const sensor = { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04 };
  const lens = { focal_min_mm: 2.8, focal_max_mm: 12, hfov_at_min_deg: 104, hfov_at_max_deg: 27 };
  const shape = (i, x, y) =>
    i % 20 === 0
      ? { kind: "area", points: [[x, y], [x + 5, y], [x + 5, y + 5], [x, y + 5]] } // prettier-ignore
      : i % 20 < 3
        ? { kind: "line", points: [[x, y], [x + 10, y]] } // prettier-ignore
        : { kind: "point", points: [[x, y]] };
  return {
    format: "bright-angle/site",
    version: 1,
    name: `Measured yard ${Date.now()}`,
    obstacles: range(400).map((i) => {
      const [x, y] = [spread(i * 3, 0.45) * side, spread(i * 13, 0.15) * side];
      const [w, d] = [1 + 4 * spread(i, 0.9), 1 + 3 * spread(i, 0.35)];
      const outline = [[x, y], [x + w, y], [x + w, y + d], [x, y + d]]; // prettier-ignore
      return { id: `o${i}`, name: "O", kind: "other", top_m: 1 + 3 * spread(i, 0.05), outline };
    }),
    targets: range(200).map((i) => ({
      id: `t${i}`,
      name: `T${i}`,
      subject: "person",
      task: "observe",
      height_m: 1.6,
      shape: shape(i, spread(i, 0.25) * side, spread(i * 11, 0.8) * side),
    })),
    cameras: range(64).map((i) => ({
      id: `c${i}`,
      name: `C${i}`,
      position: [spread(i, 0.1) * side, spread(i * 7, 0.6) * side],
      height_m: 2.5 + 2 * spread(i, 0.3),
      model: { name: "M", form: "bullet", sensor, lens },
      heads: [
        {
          id: "h",
          pan_deg: 360 * spread(i, 0.7),
          tilt_deg: 5 + 15 * spread(i, 0.2),
          focal_mm: 2.8 + 9 * spread(i, 0.5),
        },
      ],
    })),
  };
}

async function firstLoad(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const began = performance.now();
  await page.goto(at);
  await page.getByText("Tern Quay Boatyard").first().waitFor();
  const shown = performance.now() - began;
  const bytes = await page.evaluate(() =>
    performance
      .getEntriesByType("resource")
      .filter((entry) => /\.(js|wasm)$/.test(entry.name))
      .reduce((sum, entry) => sum + entry.encodedBodySize, 0),
  );
  console.log(`first load: list shown after ${shown.toFixed(0)} ms; script and core ${(bytes / 1000).toFixed(0)} kB`);
  await page.close();
}

/** Counts frames, and what a hand sees of the expected picture, from now on. */
function watchFrames() {
  window.__pictures = [];
  const put = CanvasRenderingContext2D.prototype.putImageData;
  CanvasRenderingContext2D.prototype.putImageData = function (...what) {
    if (this.canvas.matches(".picture-pixels")) window.__pictures.push(performance.now());
    return put.apply(this, what);
  };
  const frames = [];
  const settled = [];
  let last = performance.now();
  const tick = (now) => {
    frames.push(now - last);
    settled.push(document.querySelector(".aim").dataset.settled === "true");
    last = now;
    window.__tick = requestAnimationFrame(tick);
  };
  Object.assign(window, { __frames: frames, __settled: settled, __tick: requestAnimationFrame(tick) });
}

/** What the main thread did, ms, from the browser's own counters. */
async function spent(hand) {
  const { metrics } = await hand.send("Performance.getMetrics");
  const of = (name) => metrics.find((one) => one.name === name).value * 1000;
  return {
    script: of("ScriptDuration"),
    layout: of("LayoutDuration"),
    style: of("RecalcStyleDuration"),
    all: of("TaskDuration"),
  };
}

/** Moves as a hand does, sixty times a second whether the page follows or not, and reports the frames. */
async function frames(page, name, send) {
  const hand = await page.context().newCDPSession(page);
  await hand.send("Performance.enable");
  await page.evaluate(watchFrames);
  const before = await spent(hand);
  const began = performance.now();
  const said = [];
  for (let i = 0; i < MOVES; i++) {
    said.push(send(hand, i));
    const due = began + ((i + 1) * 1000) / 60 - performance.now();
    if (due > 0) await sleep(due);
  }
  await Promise.all(said);
  const took = performance.now() - began;
  const after = await spent(hand);
  const [times, settled, pictures] = await page.evaluate(() => {
    cancelAnimationFrame(window.__tick);
    return [window.__frames.slice(1), window.__settled.slice(1), window.__pictures];
  });
  times.sort((a, b) => a - b);
  const at_ = (share) => times[Math.min(times.length - 1, Math.floor(share * times.length))].toFixed(1);
  const share = (settled.filter(Boolean).length / settled.length).toFixed(2);
  const each = Object.keys(before).map((what) => `${what} ${((after[what] - before[what]) / times.length).toFixed(1)}`);
  console.log(
    `${name}: ${took.toFixed(0)} ms; ${times.length} frames: median ${at_(0.5)}, 95 % ${at_(0.95)}, greatest ${at_(1)} ms, ${times.filter((ms) => ms > 100.5).length} over 100; a frame: ${each.join(", ")} ms; settled in ${share}; ${pictures.length} pictures`,
  );
}

async function opened(browser, id, tool) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${at}/#/site/${id}`);
  await page.locator('.aim[data-settled="true"]').waitFor();
  await page.locator('[data-testid="relief"][data-settled="true"]').waitFor();
  if (tool) await page.getByTestId(`tool-${tool}`).click();
  if (tool === "ground") await page.locator('[data-testid="ground-layers"][data-settled="true"]').waitFor();
  await page.evaluate(() => document.fonts.ready);
  return page;
}

async function drag(browser, name, id, camera, tool = null) {
  const page = await opened(browser, id, tool);
  const box = await page.getByTestId(camera).locator(".camera-body").boundingBox();
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await frames(page, `${name}, a camera dragged${tool ? `, ${tool} open` : ""}`, (hand, i) => {
    const place = { x: x + 60 * Math.sin(i / 40), y: y + 25 * Math.sin(i / 25) };
    return hand.send("Input.dispatchMouseEvent", { type: "mouseMoved", button: "left", buttons: 1, ...place });
  });
  await page.mouse.up();
  await page.close();
}

async function panAndZoom(browser, name, id) {
  const page = await opened(browser, id, null);
  const box = await page.locator(".plan-sheet").boundingBox();
  // A place on the sheet where nothing stands: what begins there moves the sheet.
  const [x, y] = await page.evaluate(({ x, y, width, height }) => {
    for (let i = 1; i < 40; i++)
      for (let j = 1; j < 40; j++) {
        const at = [x + (width * i) / 40, y + (height * j) / 40];
        if (document.elementFromPoint(...at)?.matches(".plan-sheet")) return at;
      }
    throw new Error("no free place on the plan");
  }, box);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await frames(page, `${name}, panned`, (hand, i) => {
    const place = { x: x + 90 * Math.sin(i / 40), y: y + 45 * Math.sin(i / 25) };
    return hand.send("Input.dispatchMouseEvent", { type: "mouseMoved", button: "left", buttons: 1, ...place });
  });
  await page.mouse.up();
  await frames(page, `${name}, zoomed`, (hand, i) =>
    hand.send("Input.dispatchMouseEvent", {
      type: "mouseWheel",
      x,
      y,
      deltaX: 0,
      deltaY: Math.floor(i / 50) % 2 ? 12 : -12,
    }),
  );
  await page.close();
}

/** The session and the relief by themselves, on the big site: medians. */
function coreAlone() {
  initSync({ module: readFileSync(new URL("../web/src/core/made/core_bg.wasm", import.meta.url)) });
  const site = bigSite();
  const core = Core.open(JSON.stringify(site));
  const median = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)].toFixed(2);
  const timed = (run) => {
    const began = performance.now();
    run();
    return performance.now() - began;
  };
  const moved = (i) => {
    const camera = structuredClone(site.cameras[7]);
    camera.position[0] += 0.05 * Math.sin(i);
    return JSON.stringify({ cameras: { put: [camera] } });
  };
  const relief = () => {
    core.want_relief(JSON.stringify(CELLS), 1, 0, 1);
    while (core.step_relief(1));
  };
  const moves = Array.from({ length: 60 }, (_, i) => timed(() => core.change(moved(i))));
  const whole = Array.from({ length: 5 }, () => {
    const fresh = Core.open(JSON.stringify(bigSite()));
    const took = timed(() => {
      fresh.want_relief(JSON.stringify(CELLS), 1, 0, 1);
      while (fresh.step_relief(1));
    });
    fresh.free();
    return took;
  });
  relief();
  const again = Array.from({ length: 20 }, (_, i) => {
    core.change(moved(i + 0.5));
    return timed(relief);
  });
  const wish = JSON.stringify({ ask: "ground", wish: { need_px_per_m: 62.5, height_m: 1.6, goal: [100, 100] } });
  core.ask(wish);
  const grounds = Array.from({ length: 20 }, (_, i) => {
    core.change(moved(i + 0.25));
    return timed(() => core.ask(wish));
  });
  const asked = (ask) => median(Array.from({ length: 10 }, () => timed(() => core.ask(JSON.stringify(ask)))));
  const why = asked({ ask: "why", at: [101, 97], height_m: 1.6, need_px_per_m: 62.5, units: "metres" });
  console.log(`core alone: ground and quiet path under a hand ${median(grounds)} ms; why a place is unseen ${why} ms`);
  console.log(
    `core alone: one camera moved ${median(moves)} ms; relief of 640 000 cells ${median(whole)} ms, one head again ${median(again)} ms`,
  );
}

/** Pictures by themselves, of the big site's densest head, one worker: medians. */
function picturesAlone() {
  const core = Core.open(JSON.stringify(bigSite()));
  const head = JSON.stringify({ camera: "c7", head: "h" });
  const median = (times) => times.sort((a, b) => a - b)[Math.floor(times.length / 2)].toFixed(1);
  const timed = (window, samples, count) =>
    median(
      Array.from({ length: count }, () => {
        const began = performance.now();
        core.want_picture(head, JSON.stringify({ window, light: "day", grid: false, samples, shutter_s: 0 }));
        while (core.step_picture());
        core.picture();
        return performance.now() - began;
      }),
    );
  const target = JSON.parse(core.ask(JSON.stringify({ ask: "card", head: JSON.parse(head) }))).promises[0]?.target;
  const [coarse, whole, largest] = [
    timed({ whole: { width: 320 } }, 1, 15),
    timed({ whole: { width: 640 } }, 1, 9),
    timed({ whole: { width: 3840 } }, 1, 1),
  ];
  const loupe = target ? timed({ loupe: { target, across: 80, down: 80 } }, 2, 15) : "none";
  console.log(
    `core alone: picture of 640 px ${whole} ms, of 320 ${coarse} ms, of 3840 ${largest} ms; loupe of 80 × 80, four samples each ${loupe} ms`,
  );
  core.free();
}

const only = process.argv[3];
if (only === undefined) {
  coreAlone();
  picturesAlone();
}
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args });
if (only === undefined) await firstLoad(browser);
const { sites } = await (await fetch(`${at}/api/sites`)).json();
const quay = sites.find((site) => site.name.startsWith("Tern Quay")).id;
const kept = await fetch(`${at}/api/sites`, {
  method: "POST",
  headers: { "Content-Type": "application/json" },
  body: JSON.stringify({ says: "To be measured", site: bigSite() }),
});
const big = (await kept.json()).site_id;
const tools = only !== undefined ? only.split(",") : ["", "section", "beside", "night", "sun", "ground", "designs"];
for (const tool of tools) {
  await drag(browser, "demo", quay, "camera-c4", tool || null);
  await drag(browser, "64 × 200 × 400", big, "camera-c7", tool || null);
}
await panAndZoom(browser, "demo", quay);
await panAndZoom(browser, "64 × 200 × 400", big);
await browser.close();
