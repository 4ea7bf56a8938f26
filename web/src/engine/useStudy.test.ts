import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Engine } from "./engine";
import { Away, Refused } from "./http";
import type { SiteFile, Study } from "./types";
import { type Shown, StudyRunner } from "./useStudy";

const site = (name: string): SiteFile => ({ format: "bright-angle/site", version: 1, name, obstacles: [], targets: [], cameras: [] });
const study = (name: string): Study => ({ evaluation: { heads: [], sight_lines: [], targets: [{ target: name, verdict: "kept", best: null, px_per_m: 1, needs_px_per_m: 1, basis: "" }] }, footprints: [], section: null });

/** An engine whose answers are let go by hand. */
function slowEngine() {
  const asked: { name: string; signal: AbortSignal; answer(result?: Study | Error): Promise<void> }[] = [];
  const engine = {
    study: (asking: SiteFile, _line: unknown, signal: AbortSignal) =>
      new Promise<Study>((resolve, reject) => {
        signal.addEventListener("abort", () => reject(new Error("aborted")));
        asked.push({
          name: asking.name, signal,
          answer: async (result = study(asking.name)) => {
            if (result instanceof Error) reject(result);
            else resolve(result);
            await vi.advanceTimersByTimeAsync(0);
          },
        });
      }),
  } as unknown as Engine;
  return { engine, asked };
}

describe("the study of a site that changes", () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  const start = () => {
    const { engine, asked } = slowEngine();
    const shown: Shown[] = [];
    vi.stubGlobal("window", globalThis);
    const runner = new StudyRunner(engine, (next) => shown.push(next));
    const want = (name: string): void => runner.want({ site: site(name), line: null });
    const last = (): [string | undefined, string | null] => {
      const now = shown.at(-1);
      return [now?.site.name, now?.study?.evaluation.targets[0]?.target ?? null];
    };
    return { runner, asked, shown, want, last };
  };

  it("asks one at a time and skips what is stale by then", async () => {
    const { asked, want, last } = start();
    want("a");
    want("b");
    want("c");
    expect(asked.map((a) => a.name)).toEqual(["a"]);
    await asked[0]?.answer();
    expect(asked.map((a) => a.name)).toEqual(["a", "c"]);
    expect(last()).toEqual(["a", "a"]);
    await asked[1]?.answer();
    expect(last()).toEqual(["c", "c"]);
  });

  it("never shows a study beside another site than its own", async () => {
    const { asked, shown, want } = start();
    for (const name of ["a", "b", "c", "d"]) {
      want(name);
      await asked.at(-1)?.answer();
    }
    for (const { site: of, study: found } of shown) {
      if (found) expect(found.evaluation.targets[0]?.target).toBe(of.name);
    }
  });

  it("shows the site without figures when an answer takes long, and cancels what is stale", async () => {
    const { asked, want, last } = start();
    want("a");
    await asked[0]?.answer();
    want("b");
    await vi.advanceTimersByTimeAsync(100);
    want("c");
    await vi.advanceTimersByTimeAsync(250);
    expect(last()).toEqual(["a", "a"]);
    await vi.advanceTimersByTimeAsync(100);
    expect(last()).toEqual(["c", null]);
    expect([asked[1]?.signal.aborted, asked[2]?.name]).toEqual([true, "c"]);
    await asked[2]?.answer();
    expect(last()).toEqual(["c", "c"]);
  });

  it("tries again while the server is away, and names what it refuses", async () => {
    const { asked, shown, want, last } = start();
    want("a");
    await asked[0]?.answer(new Away("away"));
    expect(shown.at(-1)).toMatchObject({ away: true, study: null });
    await vi.advanceTimersByTimeAsync(1600);
    await asked[1]?.answer();
    expect(last()).toEqual(["a", "a"]);
    want("b");
    await asked[2]?.answer(new Refused(422, [{ path: "cameras[0]", message: "is wrong" }]));
    expect(shown.at(-1)).toMatchObject({ away: false, study: null, faults: [{ path: "cameras[0]", message: "is wrong" }] });
  });

  it("says nothing more once it is stopped", async () => {
    const { runner, asked, shown, want } = start();
    want("a");
    runner.stop();
    const before = shown.length;
    await vi.advanceTimersByTimeAsync(5000);
    expect([asked[0]?.signal.aborted, shown.length]).toEqual([true, before]);
  });
});
