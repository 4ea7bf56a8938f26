import { describe, expect, it, vi } from "vitest";
import { Latest } from "./latest";
import { Fallen, Refused } from "./errors";
import { cellsOver } from "./useRelief";

/** A worker whose answers come when the test says so. */
function slow() {
  const asked: { wish: number; answer(value: string): void }[] = [];
  const told: [number, string][] = [];
  const latest = new Latest<number, string>(
    (wish) => new Promise((answer) => asked.push({ wish, answer })),
    (wish, answer) => told.push([wish, answer]),
  );
  return { asked, told, latest };
}

const turn = (): Promise<void> => new Promise((done) => setTimeout(done, 0));

describe("the latest wish", () => {
  it("goes next, those between are never worked on, and every answer is told with its own wish", async () => {
    const { asked, told, latest } = slow();
    for (const wish of [1, 2, 3, 4]) latest.want(wish);
    expect(asked.map((job) => job.wish)).toEqual([1]);
    asked[0]?.answer("one");
    await turn();
    expect(asked.map((job) => job.wish)).toEqual([1, 4]);
    asked[1]?.answer("four");
    await turn();
    expect([told, latest.idle]).toEqual([
      [
        [1, "one"],
        [4, "four"],
      ],
      true,
    ]);
  });

  it("is told before the pause after it, and what comes in the pause is worked on when that is over, the newest only", async () => {
    const [asked, told] = [[] as number[], [] as number[]];
    let paused = (): void => undefined;
    const pause = vi.spyOn(globalThis, "setTimeout").mockImplementation(((run: () => void) => {
      paused = run;
    }) as never);
    const latest = new Latest<number, number>(
      (wish) => Promise.resolve(asked.push(wish)),
      (wish) => told.push(wish),
      () => 50,
    );
    latest.want(1);
    for (let i = 0; i < 5; i++) await Promise.resolve();
    latest.want(2);
    latest.want(3);
    for (let i = 0; i < 5; i++) await Promise.resolve();
    expect([told, asked]).toEqual([[1], [1]]);
    pause.mockRestore();
    paused();
    await turn();
    expect(asked).toEqual([1, 3]);
  });

  it("tells nothing after it was stopped", async () => {
    const { asked, told, latest } = slow();
    latest.want(1);
    latest.want(2);
    latest.stop();
    asked[0]?.answer("one");
    await turn();
    expect([told, asked.length]).toEqual([[], 1]);
  });
});

describe("the cells over a plan", () => {
  it("cover it with a margin and keep their places when it moves by whole cells", () => {
    const at = (x: number): ReturnType<typeof cellsOver> =>
      cellsOver({ centre: [x, 40], scale: 10, size: [600, 400] }, 5, 1.6);
    const [one, other] = [at(60), at(60.5)];
    expect([one.cell, one.west <= 30, one.east >= 90, one.south <= 20, one.north >= 60]).toEqual([
      0.5,
      true,
      true,
      true,
      true,
    ]);
    expect(other.west - one.west).toBeCloseTo(0.5, 9);
    expect((((one.west / one.cell) % 1) + 1) % 1).toBeCloseTo(0, 9);
    expect(Math.round((one.east - one.west) / one.cell)).toBe(Math.round((other.east - other.west) / other.cell));
  });
});

describe("what fell over", () => {
  const noted = (work: (wish: number) => Promise<string>) => {
    const told: [number, string][] = [];
    const failed: [number, unknown][] = [];
    const latest = new Latest<number, string>(
      work,
      (wish, answer) => told.push([wish, answer]),
      () => 0,
      (wish, error) => failed.push([wish, error]),
    );
    return { latest, told, failed };
  };

  it("is wished for again by itself, later and later, and a newer wish takes its place", async () => {
    vi.useFakeTimers();
    const asked: number[] = [];
    const { latest, told, failed } = noted((wish) => {
      asked.push(wish);
      return asked.length < 4 ? Promise.reject(new Fallen("gone")) : Promise.resolve("there");
    });
    latest.want(1);
    await vi.advanceTimersByTimeAsync(600);
    expect(asked).toEqual([1, 1]);
    latest.want(2);
    await vi.advanceTimersByTimeAsync(700);
    expect(asked).toEqual([1, 1]);
    await vi.advanceTimersByTimeAsync(3000);
    expect([asked, told, failed.length, latest.idle]).toEqual([[1, 1, 2, 2], [[2, "there"]], 3, true]);
    vi.useRealTimers();
  });

  it("is not a refusal: that is told once, and the next wish is worked on", async () => {
    const { latest, told, failed } = noted((wish) =>
      wish === 1 ? Promise.reject(new Refused([])) : Promise.resolve("fine"),
    );
    latest.want(1);
    await turn();
    latest.want(2);
    await turn();
    expect([told, failed.map(([wish]) => wish)]).toEqual([[[2, "fine"]], [1]]);
  });
});
