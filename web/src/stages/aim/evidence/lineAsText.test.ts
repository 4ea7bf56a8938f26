/** A sight line as text: what stands in it is what the core tells of that line, in the units in use. */
import { expect, test } from "vitest";
import { readFileSync } from "node:fs";
import type { SiteFile } from "../../../core/types";
import { answerTo } from "../../../testing/door";
import { lineAsText } from "./lineAsText";

const site = JSON.parse(readFileSync("../demo/tern-quay.json", "utf8")) as SiteFile;

function lineOf(id: string) {
  const target = site.targets.find((held) => held.id === id);
  const best = answerTo(site, { ask: "sights", target: id, head: null }).summary.targets.find((t) => t.target === id);
  if (!target || !best?.best) throw new Error(`a camera sees ${id}`);
  const { line } = answerTo(site, { ask: "sights", target: id, head: best.best });
  if (!line) throw new Error("there is a line");
  return { target, best, line };
}

test("a line that is not kept says by which rules, each with its figure and limit", () => {
  const { target, best, line } = lineOf("t1");
  const text = lineAsText(site, target, line, {
    needs: best.needs_px_per_m,
    leavesOut: best.leaves_out,
    units: "metres",
  });
  const lines = text.split("\n");
  expect(lines[0]).toBe("Tern Quay Boatyard: Fuel berth till, identify");
  expect(text).toContain(`Verdict: ${line.verdict}`);
  expect(text).toContain("needs 250 px/m");
  expect(text).toContain(`Distance: ${line.slant_m.toFixed(2)} m straight`);
  const not = line.rules.filter(({ verdict }) => verdict !== "kept");
  expect(lines.filter((one) => one.startsWith("- "))).toHaveLength(not.length);
  expect(lines.at(-1)).toBe("Computed from the survey, not evidence.");
  expect(text).toContain(best.leaves_out);
});

test("in feet, lengths are in feet and inches, and px/ft stands beside px/m", () => {
  const { target, best, line } = lineOf("t1");
  const text = lineAsText(site, target, line, { needs: best.needs_px_per_m, leavesOut: "", units: "feet" });
  expect(text).toMatch(/Distance: \d+' \d+" straight/);
  expect(text).toContain("needs 250 px/m · 76.2 px/ft");
});

test("a kept line names no rule", () => {
  const kept = site.targets
    .map(({ id }) => lineOf(id))
    .find(({ line }) => line.rules.every(({ verdict }) => verdict === "kept"));
  if (!kept) throw new Error("the demo keeps a promise");
  const text = lineAsText(site, kept.target, kept.line, { needs: null, leavesOut: "", units: "metres" });
  expect(text).toContain("Verdict: kept");
  expect(text).not.toContain("\n- ");
});
