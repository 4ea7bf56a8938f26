import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Revision, SiteFile } from "../core/types";
import { useHistory } from "./history";
import { useSite } from "./store";

const ID = "11111111-1111-4111-8111-111111111111";
const yard = (name = "Yard"): SiteFile => ({
  format: "bright-angle/site",
  version: 1,
  name,
  obstacles: [],
  targets: [],
  cameras: [],
});
const revision = (number: number, site: SiteFile): Revision => ({
  site_id: ID,
  number,
  based_on: number > 1 ? number - 1 : null,
  saved_at: "2026-11-24T12:00:00Z",
  says: "x",
  site,
});

interface Call {
  method: string;
  body: { based_on: number; says: string; site: SiteFile } | null;
}

/** A server that keeps one site; `fail` says what it answers next instead. */
function server() {
  let newest = revision(1, yard());
  const calls: Call[] = [];
  const state: { fail: (() => Response | Error) | null } = { fail: null };
  const json = (body: unknown, status = 200): Response =>
    new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
  vi.stubGlobal("fetch", (_path: string, init: RequestInit) => {
    const body = init.body ? (JSON.parse(init.body as string) as Call["body"]) : null;
    calls.push({ method: init.method ?? "GET", body });
    const failed = state.fail?.();
    if (failed instanceof Error) return Promise.reject(failed);
    if (failed) return Promise.resolve(failed);
    if (init.method === "PUT" && body) newest = revision(body.based_on + 1, body.site);
    return Promise.resolve(json(newest));
  });
  return { calls, state, json, puts: () => calls.filter((call) => call.method === "PUT") };
}

const kept = new Map<string, string>();

describe("the site in hand", () => {
  beforeEach(() => {
    vi.useFakeTimers();
    kept.clear();
    vi.stubGlobal("localStorage", {
      getItem: (k: string) => kept.get(k) ?? null,
      setItem: (k: string, v: string) => void kept.set(k, v),
      removeItem: (k: string) => void kept.delete(k),
    });
  });
  afterEach(() => {
    useSite.getState().close();
    vi.useRealTimers();
  });
  const open = async (): Promise<void> => useSite.getState().load(ID);
  const rename = (name: string, gesture = ""): void =>
    useSite.getState().edit(
      `Rename to ${name}`,
      (site) => {
        site.name = name;
      },
      gesture,
    );
  const now = () => useSite.getState().open;
  const rest = async (): Promise<void> => {
    await vi.advanceTimersByTimeAsync(600);
  };

  it("saves what came to rest, once, based on the revision before", async () => {
    const { puts } = server();
    await open();
    rename("A");
    rename("B");
    expect(now()?.saving.kind).toBe("waiting");
    await rest();
    expect(puts().map((put) => [put.body?.based_on, put.body?.says, put.body?.site.name])).toEqual([
      [1, "Rename to B", "B"],
    ]);
    expect([now()?.saving.kind, now()?.revision, kept.size]).toEqual(["kept", 2, 0]);
  });

  it("undoes and redoes step by step; one gesture is one step", async () => {
    server();
    await open();
    rename("A");
    for (const letter of ["B", "C", "D"]) rename(letter, "drag-1");
    rename("E", "drag-2");
    const { undo, redo } = useSite.getState();
    const names = ["undo", "undo", "undo", "redo", "redo", "redo", "redo"].map((what) => {
      if (what === "undo") undo();
      else redo();
      return now()?.site.name;
    });
    expect(names).toEqual(["D", "A", "Yard", "A", "D", "E", "E"]);
    undo();
    rename("F");
    redo();
    expect(now()?.site.name).toBe("F");
  });

  it("does not count what changes nothing", async () => {
    server();
    await open();
    rename("Yard");
    expect([useHistory.temporal.getState().pastStates.length, now()?.saving.kind]).toEqual([0, "kept"]);
  });

  it("holds a draft while the server is away, and sends it when it is back", async () => {
    const { state, puts } = server();
    await open();
    state.fail = () => new TypeError("failed to fetch");
    rename("A");
    await rest();
    expect([now()?.saving.kind, kept.size]).toEqual(["away", 1]);
    state.fail = null;
    await vi.advanceTimersByTimeAsync(2500);
    expect([now()?.saving.kind, kept.size, puts().at(-1)?.body?.site.name]).toEqual(["kept", 0, "A"]);
  });

  it("takes a draft up again that never reached the server, and it can be undone", async () => {
    const { puts } = server();
    kept.set(`bright-angle/draft/${ID}`, JSON.stringify({ basedOn: 1, says: "Rename to A", site: yard("A") }));
    await open();
    expect(now()?.site.name).toBe("A");
    await rest();
    expect(puts()[0]?.body).toMatchObject({ based_on: 1, says: "Rename to A" });
    useSite.getState().undo();
    expect(now()?.site.name).toBe("Yard");
  });

  it("shows both when somebody saved in between, and keeps either as the user says", async () => {
    const { state, json, puts } = server();
    await open();
    const theirs = revision(2, yard("Theirs"));
    state.fail = () => json({ message: "stale", based_on: 1, yours: yard("Mine"), theirs }, 409);
    rename("Mine");
    await rest();
    expect(now()?.saving.kind).toBe("stale");
    // Work goes on meanwhile and nothing is sent.
    rename("Mine too");
    await rest();
    expect(puts().length).toBe(1);
    state.fail = null;
    useSite.getState().settle("mine");
    await rest();
    expect(puts().at(-1)?.body).toMatchObject({ based_on: 2, site: { name: "Mine too" } });
    expect(now()?.saving.kind).toBe("kept");
  });

  it("takes theirs and can go back to mine", async () => {
    const { state, json } = server();
    await open();
    state.fail = () =>
      json({ message: "stale", based_on: 1, yours: yard("Mine"), theirs: revision(2, yard("Theirs")) }, 409);
    rename("Mine");
    await rest();
    state.fail = null;
    useSite.getState().settle("theirs");
    expect([now()?.site.name, now()?.revision, now()?.saving.kind]).toEqual(["Theirs", 2, "kept"]);
    useSite.getState().undo();
    expect(now()?.site.name).toBe("Mine");
  });

  it("says what the server refuses and sends nothing until it is changed", async () => {
    const { state, json, puts } = server();
    await open();
    state.fail = () => json([{ path: "name", message: "must not be empty" }], 422);
    rename(" ");
    await vi.advanceTimersByTimeAsync(10_000);
    expect([now()?.saving, puts().length]).toEqual([
      { kind: "refused", faults: [{ path: "name", message: "must not be empty" }] },
      1,
    ]);
    state.fail = null;
    rename("Good");
    await rest();
    expect(now()?.saving.kind).toBe("kept");
  });

  it("says why a site cannot be opened", async () => {
    const { state } = server();
    state.fail = () => new TypeError("failed to fetch");
    await open();
    expect([now(), useSite.getState().failed?.message]).toEqual([null, "the server does not answer"]);
  });
});
