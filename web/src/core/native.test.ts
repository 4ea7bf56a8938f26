/** The core in this engine, which is the browser's, against the same core on the machine itself. */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { beforeAll, describe, expect, it } from "vitest";
import { Core, initSync } from "./made/core";
import type { SightLine, Sights, SiteFile, TargetResult } from "./types";

const ROOT = new URL("../../../", import.meta.url).pathname;
const DEMO = `${ROOT}demo/tern-quay.json`;
const native = (...args: string[]): string =>
  execFileSync(`${ROOT}target/debug/bright-angle`, args, { encoding: "utf8", maxBuffer: 1 << 28 });

let core: Core;
beforeAll(() => {
  initSync({ module: readFileSync(`${ROOT}web/src/core/made/core_bg.wasm`) });
  core = Core.open(readFileSync(DEMO, "utf8"));
});

/** The greatest difference of two figures, relative. */
function apart(a: number, b: number): number {
  return a === b ? 0 : Math.abs(a - b) / Math.max(Math.abs(a), Math.abs(b), 1e-3);
}

describe("the core in the browser", () => {
  it("gives every promise the verdict and, to the last digits, the figures that it gets natively", () => {
    const found = JSON.parse(native("evaluate", DEMO)) as { targets: TargetResult[]; sight_lines: SightLine[] };
    const { summary } = JSON.parse(core.ask(JSON.stringify({ ask: "sights" }))) as Sights;
    expect(summary.targets.map(({ target, verdict, best }) => [target, verdict, best])).toEqual(
      found.targets.map(({ target, verdict, best }) => [target, verdict, best]),
    );
    for (const [i, result] of summary.targets.entries())
      expect(apart(result.px_per_m, found.targets[i]?.px_per_m ?? 0)).toBeLessThan(1e-12);
    for (const line of found.sight_lines) {
      const head = { camera: line.camera, head: line.head };
      const here = (JSON.parse(core.ask(JSON.stringify({ ask: "sights", target: line.target, head }))) as Sights).line;
      expect([here?.verdict, here?.blocked_by, here?.rules.map((rule) => rule.verdict)]).toEqual([
        line.verdict,
        line.blocked_by,
        line.rules.map((rule) => rule.verdict),
      ]);
      // Another library's sine and tangent: the last digits differ, no more.
      for (const field of ["px_per_m", "slant_m", "depression_deg", "aim_slack_deg"] as const)
        expect(
          apart(here?.[field] ?? NaN, line[field] ?? NaN) < 1e-9 || (here?.[field] === null && line[field] === null),
        ).toBe(true);
    }
  });

  it("has the native relief, cell by cell", () => {
    const [cell, bounds] = [0.5, [-10, -5, 110, 85]] as const;
    const lines = native("relief", DEMO, "--cell-m", String(cell), "--bounds", bounds.join(","))
      .trim()
      .split("\n")
      .slice(6);
    const grid = lines.reverse().flatMap((line) => line.split(" ").map(Number));
    const [west, south, east, north] = bounds;
    core.want_relief(JSON.stringify({ west, south, east, north, cell, height: 1.6 }), 1, 0, 1);
    while (core.step_relief(1));
    const here = core.relief(1);
    expect(here.length).toBe(grid.length);
    let equal = 0;
    for (const [i, value] of here.entries()) {
      const there = grid[i] ?? NaN;
      expect(value > 0).toBe(there > 0);
      if (value > 0) expect(apart(value, there)).toBeLessThan(1e-6);
      equal += Number(Math.fround(there) === value || value === 0);
    }
    // Figures are kept in single precision: all but a few are the same to the last bit.
    expect(equal / grid.length).toBeGreaterThan(0.999);
  });

  it("follows changes and refuses what makes no sense, naming the place", () => {
    const site = JSON.parse(readFileSync(DEMO, "utf8")) as SiteFile;
    const camera = site.cameras[3];
    if (!camera) throw new Error("the demo has a fourth camera");
    core.change(JSON.stringify({ cameras: { put: [{ ...camera, height_m: 2.4 }] } }));
    const head = { camera: camera.id, head: camera.heads[0]?.id };
    const { line } = JSON.parse(core.ask(JSON.stringify({ ask: "sights", target: "t1", head }))) as Sights;
    expect(line?.depression_deg).toBeCloseTo((Math.atan2(2.4 - 1.6, line?.ground_m ?? 0) * 180) / Math.PI, 9);
    const refused = (): unknown => core.change(JSON.stringify({ cameras: { put: [{ ...camera, height_m: -1 }] } }));
    expect(refused).toThrow();
    try {
      refused();
    } catch (thrown) {
      expect(JSON.parse(thrown as string)).toEqual([
        { path: "cameras[3].height_m", message: "-1 is outside 0.05 to 500 m", code: "out_of_range" },
      ]);
    }
    core.change(JSON.stringify({ cameras: { put: [camera] } }));
  });
});
