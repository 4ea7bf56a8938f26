import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { onceAtRest, useHand } from "./hand";

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  useHand.setState({ holds: false });
  vi.useRealTimers();
});

describe("what waits for rest", () => {
  it("runs once nothing has happened for a while, and not when it was called off", () => {
    const [run, not] = [vi.fn(), vi.fn()];
    onceAtRest(100, run);
    onceAtRest(100, not)();
    vi.advanceTimersByTime(99);
    expect(run).not.toHaveBeenCalled();
    vi.advanceTimersByTime(1000);
    expect([run.mock.calls.length, not.mock.calls.length]).toEqual([1, 0]);
  });

  it("waits longer under a hand that holds something, and no longer once it has let go", () => {
    useHand.setState({ holds: true });
    const [still, moved] = [vi.fn(), vi.fn()];
    onceAtRest(100, still);
    vi.advanceTimersByTime(400);
    expect(still).not.toHaveBeenCalled();
    vi.advanceTimersByTime(400);
    expect(still).toHaveBeenCalledTimes(1);
    onceAtRest(100, moved);
    vi.advanceTimersByTime(200);
    useHand.setState({ holds: false });
    vi.advanceTimersByTime(101);
    expect(moved).toHaveBeenCalledTimes(1);
  });

  it("runs again for nobody: a hand that takes something later does not call it twice", () => {
    const run = vi.fn();
    onceAtRest(100, run);
    vi.advanceTimersByTime(150);
    useHand.setState({ holds: true });
    vi.advanceTimersByTime(2000);
    expect(run).toHaveBeenCalledTimes(1);
  });
});
