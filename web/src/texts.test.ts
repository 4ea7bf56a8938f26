/** Plain words: none that was retired comes back on screen. The table of texts is made by tools/generate, which fails if it is stale. */
import { readFileSync } from "node:fs";
import { expect, test } from "vitest";

const TEXTS = readFileSync("../docs/texts.md", "utf8")
  .split("\n")
  .filter((line) => line.startsWith("| ") && !line.startsWith("| file |"))
  .map((line) => line.split(" | "));

/** What a word was, and what stands in its place. */
const RETIRED: [RegExp, string][] = [
  [/looked away/i, "PTZ elsewhere"],
  [/build takes/i, "tilt range of this camera"],
  [/\bbubbles?\b/i, "dome cover"],
  [/wash(es|ed)? out|burnt out|bleach/i, "overexposed"],
  [/quiet path/i, "least-seen route"],
  [/\brelief\b(?!\.)/i, "coverage map"],
  [/soundings?\b/i, "figures"],
  [/aim slack/i, "aim may be off by"],
  [/\bschools? of\b|(level|raised) school/i, "method"],
  [/start settings|settings card/i, "settings sheet"],
  [/aiming card/i, "aiming sheet"],
  [/no proof/i, "not evidence"],
  [/stated uncertaint/i, "tolerances"],
  [/keep a copy aside|\badopt/i, "save as option, use this option"],
  [/off the plan/i, "scaled from the plan"],
  [/flat (view|picture)/i, "dewarped"],
  [/heads wanted/i, "cameras that must see it"],
  [/\bsits on\b/i, "mounted on"],
  [/held against/i, "limit"],
  [/one lane wide$/i, "picture width at the lane"],
  [/end to end/i, "near against far"],
  [/let it go\b/i, "delete the copy here"],
  [/what stands there/i, "walls and objects"],
  [/(only|seen) in turns/i, "by PTZ tour"],
  [/hangs? on one camera/i, "lost if this camera fails"],
  [/shutter wanted|blur got/i, "shutter needed, motion blur"],
  [/know again|tell a car/i, "recognise"],
  [/drawing and tape/i, "plan against measurements"],
  [/in hand\b(?!")/i, "selected"],
];

test("the table holds the screen's texts, and the core's", () => {
  expect(TEXTS.length).toBeGreaterThan(1000);
  expect(TEXTS.some(([file]) => file?.startsWith("| core/src/"))).toBe(true);
  for (const [, text] of TEXTS) expect(text?.trim()).not.toBe("");
});

test.each(RETIRED)("%s is retired", (retired, instead) => {
  const found = TEXTS.filter(([file, text]) => retired.test(text ?? "") && !/relief\.rs/.test(file ?? ""))
    // A key of a list is no text.
    .filter(([, text]) => text !== "in hand |");
  expect(found, `say: ${instead}`).toEqual([]);
});
