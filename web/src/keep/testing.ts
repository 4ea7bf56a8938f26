/** What the tests of the keeping share: a server that is slow, loses answers and refuses; the core itself; windows that come and go. */
import { readFileSync } from "node:fs";
import { IDBFactory } from "fake-indexeddb";
import { afterEach, beforeEach, vi } from "vitest";
import { Core, initSync } from "../core/made/core";
import type { AnswerTo, Ask, Revision, SiteFile } from "../core/types";

initSync({ module: readFileSync(new URL("../core/made/core_bg.wasm", import.meta.url)) });

interface Thinking {
  /** How long it thinks about what comes of two states, ms. */
  merge: number;
  /** Whether it falls over. */
  refuse: boolean;
}
/** How the core does; the same for all windows, whose modules are their own. */
export const thinking = ((globalThis as { thinking?: Thinking }).thinking ??= { merge: 0, refuse: false });

/** The door of the core, without its workers. */
export async function ask<Question extends Ask>(site: SiteFile, question: Question): Promise<AnswerTo<Question>> {
  if (question.ask === "merge" && thinking.refuse) throw new Error("the core fell over");
  if (thinking.merge > 0) await new Promise((later) => setTimeout(later, thinking.merge));
  const core = Core.open(JSON.stringify(site));
  try {
    return JSON.parse(core.ask(JSON.stringify(question))) as AnswerTo<Question>;
  } finally {
    core.free();
  }
}

export const ID = "11111111-1111-4111-8111-111111111111";
export const spot = (id: string, name = id) => ({ id, name, position: [0, 0], height_m: 3, kind: "wall" }) as never;
export const yard = (name = "Yard", spots: string[] = []): SiteFile => ({
  format: "bright-angle/site",
  version: 1,
  name,
  spots: spots.map((id) => spot(id)),
  obstacles: [],
  targets: [],
  cameras: [],
});

export interface Call {
  method: string;
  path: string;
  body: { based_on?: number; id?: string; says: string; site: SiteFile } | null;
}

/** What goes wrong with a request: no answer, an answer that is lost after the work was done, or a refusal. */
export type Trouble = "away" | "lost" | number;

const json = (body: unknown, status = 200): Response =>
  new Response(status === 204 ? null : JSON.stringify(body), {
    status,
    headers: { "Content-Type": "application/json" },
  });

/** A server that keeps sites as the real one does: a chain of revisions each, repeated saves answered with what is there. */
export class Server {
  readonly sites = new Map<string, Revision[]>();
  readonly pictures = new Set<string>();
  readonly deleted = new Set<string>();
  readonly calls: Call[] = [];
  /** What goes wrong with the next requests of a method. */
  trouble: (call: Call) => Trouble | null = () => null;
  /** How long an answer takes, ms. */
  delay = 0;

  constructor(site: SiteFile | null = yard()) {
    if (site) this.sites.set(ID, [this.revision(ID, 1, null, site, "New site")]);
    vi.stubGlobal("fetch", (path: string, init: RequestInit) => this.answer(path, init));
  }

  private revision(site_id: string, number: number, based_on: number | null, site: SiteFile, says: string): Revision {
    // As the real one writes it: what was left out and what is nothing are the same.
    return { site_id, number, based_on, saved_at: "2026-11-24T12:00:00Z", says, site: structuredClone(site) };
  }

  private async answer(path: string, init: RequestInit): Promise<Response> {
    const body = typeof init.body === "string" ? (JSON.parse(init.body) as Call["body"]) : null;
    const call = { method: init.method ?? "GET", path, body };
    this.calls.push(call);
    const trouble = this.trouble(call);
    if (this.delay > 0) await new Promise((later) => setTimeout(later, this.delay));
    if (trouble === "away") throw new TypeError("failed to fetch");
    if (typeof trouble === "number") return json([{ path: "", message: `answer ${trouble}` }], trouble);
    const answer = this.work(call, init.body);
    if (trouble === "lost") throw new TypeError("the answer was lost");
    return answer;
  }

  private work({ method, path, body }: Call, sent: unknown): Response {
    if (path === "/api/pictures") {
      const name = String((sent as Blob).size).padStart(64, "a");
      this.pictures.add(name);
      return json({ name, width_px: 1, height_px: 1 }, 201);
    }
    const [, , , id = body?.id ?? "", , number] = path.split("/");
    if (this.deleted.has(id)) return json([{ path: "", message: "the site was deleted" }], 410);
    const chain = this.sites.get(id) ?? [];
    const newest = chain.at(-1);
    if (number) return json(chain.find((one) => one.number === Number(number)) ?? [], newest ? 200 : 404);
    const same = (one: Revision | undefined): boolean => JSON.stringify(one?.site) === JSON.stringify(body?.site);
    if (method === "POST" && body) {
      if (newest) return same(chain[0]) ? json(chain[0], 201) : json([{ path: "", message: "taken" }], 409);
      const made = this.revision(id, 1, null, body.site, body.says);
      this.sites.set(id, [made]);
      return json(made, 201);
    }
    if (!newest) return json([{ path: "", message: "there is no such site" }], 404);
    if (method === "GET") return json(newest);
    const based = body?.based_on ?? 0;
    if (body && based === newest.number) {
      chain.push(this.revision(id, based + 1, based, body.site, body.says));
      return json(chain.at(-1));
    }
    const next = chain.find((one) => one.number === based + 1);
    if (same(next)) return json(next);
    return json({ message: "stale", based_on: based, yours: body?.site, theirs: newest }, 409);
  }

  /** Somebody else saves. */
  other(change: (site: SiteFile) => void): void {
    const chain = this.sites.get(ID) ?? [];
    const newest = chain.at(-1);
    if (!newest) return;
    const site = structuredClone(newest.site);
    change(site);
    chain.push(this.revision(ID, newest.number + 1, newest.number, site, "Theirs"));
  }

  newest(id = ID): Revision {
    const newest = this.sites.get(id)?.at(-1);
    if (!newest) throw new Error("there is no such site");
    return newest;
  }

  saves = (): Call[] => this.calls.filter((call) => call.method === "PUT" || call.path === "/api/sites");
}

/** A window with the application: modules of its own, a name of its own, on the device's one storage. */
export async function openWindow() {
  vi.resetModules();
  const store = await import("./store");
  const [shelf, tabs, outbox, sites, history, held] = await Promise.all([
    import("./shelf"),
    import("./tabs"),
    import("./photoOutbox"),
    import("./sites"),
    import("./history"),
    import("./sendHeld"),
  ]);
  locks.living.add(tabs.TAB);
  const site = store.useSite;
  return {
    store,
    shelf,
    outbox,
    sites,
    history,
    sendHeld: () => held.sendHeld(new AbortController().signal),
    stuck: () => held.useHeld.getState().stuck,
    tab: tabs.TAB,
    load: (id = ID) => through(site.getState().load(id)),
    now: () => site.getState().open,
    rename: (name: string, gesture = "") =>
      site.getState().edit(
        `Rename to ${name}`,
        (file) => {
          file.name = name;
        },
        gesture,
      ),
    addSpot: (id: string) =>
      site.getState().edit(`Add ${id}`, (file) => {
        file.spots = [...(file.spots ?? []), spot(id)];
      }),
    moveSpot: (id: string, height: number) =>
      site.getState().edit(`Raise ${id}`, (file) => {
        for (const one of file.spots ?? []) if (one.id === id) one.height_m = height;
      }),
    close: () => site.getState().close(),
    /** The window is gone, with whatever it had under way. */
    kill: () => {
      locks.living.delete(tabs.TAB);
      site.setState({ open: null });
    },
  };
}

/** The browser's lock manager, as far as it is used. */
export const locks = {
  living: new Set<string>(),
  query: () =>
    Promise.resolve({ held: [...locks.living].map((tab) => ({ name: `bright-angle/tab/${tab}` })), pending: [] }),
  request: (_name: string, _options: unknown, work: (lock: unknown) => Promise<unknown>) => work(true),
};

/** Lets the database, which knows no made-up clock, come to rest. */
export async function quiet(): Promise<void> {
  for (let turn = 0; turn < 40; turn++) await new Promise((done) => setImmediate(done));
}

/** Lets time pass, in small steps, so that what waits for the database and what waits for the clock both come. */
export async function pass(ms: number): Promise<void> {
  for (let gone = 0; gone < ms; gone += 100) {
    await quiet();
    await vi.advanceTimersByTimeAsync(Math.min(100, ms - gone));
  }
  await quiet();
}

/** Waits for something while time passes. */
export async function through<T>(work: Promise<T>): Promise<T> {
  const state = { done: false };
  const finished = work.finally(() => {
    state.done = true;
  });
  for (let turn = 0; !state.done && turn < 200; turn++) await pass(100);
  return finished;
}

/** Gives each test of a file a device, a clock and a browser of its own. */
export function aloneInTheWorld(): void {
  const local = new Map<string, string>();
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "setInterval", "clearInterval", "Date"] });
    vi.stubGlobal("indexedDB", new IDBFactory());
    vi.stubGlobal("navigator", { locks });
    local.clear();
    locks.living.clear();
    Object.assign(thinking, { merge: 0, refuse: false });
    vi.stubGlobal("localStorage", {
      getItem: (k: string) => local.get(k) ?? null,
      setItem: (k: string, v: string) => void local.set(k, v),
      removeItem: (k: string) => void local.delete(k),
      key: (place: number) => [...local.keys()][place] ?? null,
      get length() {
        return local.size;
      },
    });
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
}

/** A server with one site, and a window that has it open. */
export async function opened(site = yard()) {
  const server = new Server(site);
  const window = await openWindow();
  await window.load();
  return { server, window };
}
