import { afterEach, expect, test, vi } from "vitest";
import { Comparer } from "./comparer";
import type { CompareAsked, CompareTold } from "./compareWorker";
import { Fallen, Refused } from "./errors";
import type { Compared } from "./types";

afterEach(() => vi.useRealTimers());

/** A worker whose answers the test gives. */
class FakeWorker {
  asked: CompareAsked[] = [];
  ended = false;
  onmessage: ((event: { data: CompareTold }) => void) | null = null;
  onerror: ((event: { message: string }) => void) | null = null;

  postMessage(asked: CompareAsked): void {
    this.asked.push(asked);
  }

  terminate(): void {
    this.ended = true;
  }

  tells(told: CompareTold): void {
    this.onmessage?.({ data: told });
  }
}

function set(): { comparer: Comparer; workers: FakeWorker[]; newest: () => FakeWorker } {
  const workers: FakeWorker[] = [];
  const start = (): Worker => {
    const worker = new FakeWorker();
    workers.push(worker);
    return worker as unknown as Worker;
  };
  const newest = (): FakeWorker => workers.at(-1) as FakeWorker;
  return { comparer: new Comparer(start, () => Promise.resolve({} as WebAssembly.Module)), workers, newest };
}

const reference = { name: "a".repeat(64), blob: new Blob(["before"]) };
const wish = { reference, later: new Blob(["after"]), hfovDeg: 90, limits: {} };
const found = { says: [] } as unknown as Compared;
const nobody = (): AbortSignal => new AbortController().signal;

test("one worker answers each picture of a series with its own answer", async () => {
  const { comparer, workers, newest } = set();
  comparer.ready(reference);
  const [first, second] = [comparer.compared(wish, nobody()), comparer.compared(wish, nobody())];
  await vi.waitFor(() => expect(workers[0]?.asked).toHaveLength(3));
  const other = { ...found, says: ["moved"] } as unknown as Compared;
  newest().tells({ number: 3, found: other });
  newest().tells({ number: 1, found: null });
  newest().tells({ number: 2, found });
  expect(await first).toBe(found);
  expect(await second).toBe(other);
  expect(workers).toHaveLength(1);
});

test("what is refused is refused with its place, and the worker stays", async () => {
  const { comparer, workers, newest } = set();
  const refused = comparer.compared(wish, nobody());
  await vi.waitFor(() => expect(workers).toHaveLength(1));
  newest().tells({ number: 1, refused: JSON.stringify([{ path: "later", message: "is no picture" }]) });
  await expect(refused).rejects.toEqual(new Refused([{ path: "later", message: "is no picture" }]));
  expect(newest().ended).toBe(false);
});

test("a worker that falls tells all who wait, and another one takes its place", async () => {
  const { comparer, workers, newest } = set();
  const both = [comparer.compared(wish, nobody()), comparer.compared(wish, nobody())];
  await vi.waitFor(() => expect(workers[0]?.asked).toHaveLength(2));
  newest().onerror?.({ message: "out of memory" });
  for (const one of both) await expect(one).rejects.toBeInstanceOf(Fallen);
  const next = comparer.compared(wish, nobody());
  await vi.waitFor(() => expect(workers).toHaveLength(2));
  newest().tells({ number: 3, found });
  expect(await next).toBe(found);
});

test("nobody waits for what was called off, and its late answer is nobody's", async () => {
  const { comparer, workers, newest } = set();
  const stop = new AbortController();
  const called = comparer.compared(wish, stop.signal);
  await vi.waitFor(() => expect(workers).toHaveLength(1));
  stop.abort();
  expect(await called).toBeNull();
  const next = comparer.compared(wish, nobody());
  await vi.waitFor(() => expect(newest().asked).toHaveLength(2));
  newest().tells({ number: 1, found: { says: ["moved"] } as unknown as Compared });
  newest().tells({ number: 2, found });
  expect(await next).toBe(found);
});

test("an answer that never comes ends the worker; one that has nothing to do leaves after a while", async () => {
  vi.useFakeTimers();
  const { comparer, workers, newest } = set();
  const never = comparer.compared(wish, nobody()).catch((error: unknown) => error);
  await vi.advanceTimersByTimeAsync(60_000);
  expect(await never).toBeInstanceOf(Fallen);
  expect(newest().ended).toBe(true);
  const next = comparer.compared(wish, nobody());
  await vi.advanceTimersByTimeAsync(0);
  newest().tells({ number: 2, found });
  await next;
  expect(newest().ended).toBe(false);
  await vi.advanceTimersByTimeAsync(60_000);
  expect(workers.map(({ ended }) => ended)).toEqual([true, true]);
});
