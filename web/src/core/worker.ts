/** The worker: holds one session of the core and answers about it. */
import init, { Core } from "./made/core";
import { hold } from "./life";
import { overheadOf } from "./overhead";
import type { FromWorker, Reply, Request, Start } from "./messages";
import type { ReliefWish } from "./types";

let core: Core | null = null;
/** The overhead picture that the session has, by its name. */
let laid: string | null = null;
/** The firm's own models, which each session is told. */
let stock: string | null = null;
/** The state that the session is in. */
let state = 0;
/** Questions may come before the module does: they wait for it. */
let begin: (start: Start) => void = () => undefined;
const ready = new Promise<Start>((resolve) => {
  begin = resolve;
}).then(async ({ module, life }) => {
  await init({ module_or_path: module });
  warmUp();
  self.postMessage({ ready: await hold(life) } satisfies FromWorker);
});
ready.catch((thrown: unknown) => self.postMessage({ failed: String(thrown) } satisfies FromWorker));

/** The newest wish for a relief; one that is not the newest any more ends. */
let newest = 0;

/** How long a relief is worked on before new messages are looked at, ms. */
const SLICE = 6;
const pause = new MessageChannel();
const resume: (() => void)[] = [];
pause.port1.onmessage = () => resume.shift()?.();
const nextTurn = (): Promise<void> =>
  new Promise((done) => {
    resume.push(done);
    pause.port2.postMessage(null);
  });

self.onmessage = ({ data }: MessageEvent<Start | Request>): void => {
  if ("module" in data) begin(data);
  // Who waits for what never came is told by `failed`.
  else
    void ready.then(
      () => answer(data),
      () => undefined,
    );
};

async function answer(request: Request): Promise<void> {
  const reply: Reply = { id: request.id };
  try {
    if (request.stock !== undefined) {
      stock = request.stock;
      core?.stock(stock);
    }
    if (request.open !== undefined) {
      const opened = Core.open(request.open);
      if (stock !== null) opened.stock(stock);
      core?.free();
      core = opened;
      laid = null;
    } else if (request.base !== state) {
      return post({ ...reply, outOfStep: true });
    }
    if (request.change !== undefined) core?.change(request.change);
    state = request.state;
    if (request.ask !== undefined) reply.answer = core?.ask(request.ask) ?? "null";
    if (request.counts !== undefined) reply.counts = core?.ground_counts(request.counts) ?? new Uint8Array();
    if (request.relief) await workOutRelief(request, request.relief, reply);
    if (request.picture) await workOutPicture(request, request.picture, reply);
  } catch (thrown) {
    // What the core refuses it says as JSON; anything else is a fault of its own.
    reply.broken = typeof thrown !== "string";
    reply.refused = typeof thrown === "string" ? thrown : JSON.stringify([{ path: "", message: String(thrown) }]);
  }
  post(reply);
}

/** Works step by step and looks at new messages meanwhile; `false` when something newer was wished for. */
async function inSlices(id: number, step: () => boolean): Promise<boolean> {
  let began = performance.now();
  while (step()) {
    if (performance.now() - began < SLICE) continue;
    await nextTurn();
    if (newest !== id) return false;
    began = performance.now();
  }
  return true;
}

async function workOutPicture(
  request: Request,
  { head, wish, overhead }: NonNullable<Request["picture"]>,
  reply: Reply,
): Promise<void> {
  newest = request.id;
  if (overhead !== null && overhead !== laid) {
    const picture = await overheadOf(overhead);
    if (newest !== request.id) {
      reply.dropped = true;
      return;
    }
    if (picture) core?.take_overhead(picture.width, picture.height, picture.rgba);
    laid = picture ? overhead : null;
  }
  core?.want_picture(head, wish);
  if (!(await inSlices(request.id, () => core?.step_picture() ?? false))) {
    reply.dropped = true;
    return;
  }
  reply.told = core?.picture_told() ?? "null";
  reply.rgba = core?.picture() ?? new Uint8Array();
}

async function workOutRelief(
  request: Request,
  { wish, slot, hand, hands }: NonNullable<Request["relief"]>,
  reply: Reply,
): Promise<void> {
  newest = request.id;
  core?.want_relief(JSON.stringify(wish), slot, hand, hands);
  if (!(await inSlices(request.id, () => core?.step_relief(slot) ?? false))) {
    reply.dropped = true;
    return;
  }
  reply.best = core?.relief(slot) ?? new Float32Array();
}

function post(reply: Reply): void {
  const floats = reply.best ? [reply.best.buffer as ArrayBuffer] : [];
  const bytes = reply.counts ? [reply.counts.buffer as ArrayBuffer] : [];
  const pixels = reply.rgba ? [reply.rgba.buffer as ArrayBuffer] : [];
  self.postMessage(reply, { transfer: [...floats, ...bytes, ...pixels] });
}

/** Runs what will be asked for once, so that the first question of a hand finds compiled code. */
function warmUp(): void {
  const site = {
    format: "bright-angle/site",
    version: 1,
    name: "Warm-up",
    obstacles: [
      {
        id: "o1",
        name: "O",
        kind: "building",
        outline: [
          [3, 3],
          [5, 3],
          [5, 5],
          [3, 5],
        ],
        top_m: 3,
      },
    ],
    targets: [
      {
        id: "t1",
        name: "T",
        subject: "face",
        task: "identify",
        shape: { kind: "point", points: [[1, 12]] },
        height_m: 1.6,
      },
    ],
    cameras: [
      {
        id: "c1",
        name: "C",
        position: [0, 0],
        height_m: 3,
        model: {
          name: "M",
          form: "bullet",
          sensor: { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04 },
          lens: { focal_min_mm: 2.8, focal_max_mm: 2.8, hfov_at_min_deg: 103 },
        },
        heads: [{ id: "h1", pan_deg: 0, tilt_deg: 10, focal_mm: 2.8 }],
      },
    ],
  };
  const warm = Core.open(JSON.stringify(site));
  const head = { camera: "c1", head: "h1" };
  for (let turn = 0; turn < 12; turn++) {
    for (const camera of site.cameras) for (const head of camera.heads) head.pan_deg = turn;
    warm.change(JSON.stringify({ cameras: { put: site.cameras } }));
    warm.ask(JSON.stringify({ ask: "sights", target: "t1", head }));
  }
  const around: ReliefWish = { west: -20, south: -20, east: 20, north: 20, cell: 0.5, height: 1.6 };
  warm.want_relief(JSON.stringify(around), 0, 0, 1);
  while (warm.step_relief(0));
  warm.free();
}
