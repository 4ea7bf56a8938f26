/** Requests whose answer never comes, or never ends, are given up, so that whoever made them can try again. */
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Away, request } from "./http";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** A promise that only a signal ends. */
const never = (signal?: AbortSignal | null): Promise<never> =>
  new Promise((_, fail) => signal?.addEventListener("abort", () => fail(new DOMException("Aborted", "AbortError"))));

const serve = (answer: (init: RequestInit) => Promise<unknown>): void => {
  vi.stubGlobal("fetch", (_: string, init: RequestInit) => answer(init));
};

test("an answer that never comes is the server away", async () => {
  serve(({ signal }) => never(signal));
  const asked = request("GET", "/api/sites").catch((error: unknown) => error);
  await vi.advanceTimersByTimeAsync(19_000);
  expect(vi.getTimerCount()).toBe(1);
  await vi.advanceTimersByTimeAsync(1_500);
  expect(await asked).toBeInstanceOf(Away);
});

test("so is one that never ends, and what is large may take longer on its way", async () => {
  const headers = new Headers({ "Content-Type": "application/json" });
  serve(({ signal }) => Promise.resolve({ ok: true, status: 200, headers, json: () => never(signal) }));
  const asked = request("GET", "/api/sites").catch((error: unknown) => error);
  await vi.advanceTimersByTimeAsync(20_500);
  expect(await asked).toBeInstanceOf(Away);
  let ended = false;
  const photo = request("PUT", "/api/photo", new Blob([new Uint8Array(2 << 20)])).catch(() => (ended = true));
  await vi.advanceTimersByTimeAsync(100_000);
  expect(ended).toBe(false);
  await vi.advanceTimersByTimeAsync(30_000);
  await photo;
  expect(ended).toBe(true);
});

test("what is called off is not the server away, and an answer leaves no clock running", async () => {
  serve(({ signal }) => never(signal));
  const off = new AbortController();
  const asked = request("GET", "/api/sites", undefined, off.signal).catch((error: unknown) => error);
  off.abort();
  expect(await asked).toMatchObject({ name: "AbortError" });
  const headers = new Headers({ "Content-Type": "application/json" });
  serve(() => Promise.resolve({ ok: true, status: 200, headers, json: () => Promise.resolve({ fine: true }) }));
  expect(await request("GET", "/api/sites")).toEqual({ fine: true });
  expect(vi.getTimerCount()).toBe(0);
});
