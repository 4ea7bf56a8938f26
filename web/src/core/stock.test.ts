/** The firm's own models in the core as the browser has it. */
import { readFileSync } from "node:fs";
import { expect, test } from "vitest";
import { Core, initSync } from "./made/core";
import type { FinishedLines, Model } from "./types";

initSync({ module: readFileSync("src/core/made/core_bg.wasm") });

const [turret] = (JSON.parse(readFileSync("../crates/core/data/catalogue.json", "utf8")) as Model[]).filter(
  ({ form }) => form === "turret",
);
const site = {
  format: "bright-angle/site",
  version: 1,
  name: "Home",
  targets: [
    {
      id: "t1",
      name: "Door",
      subject: "face",
      task: "identify",
      height_m: 1.6,
      shape: { kind: "point", points: [[0, 0]] },
    },
  ],
  spots: [{ id: "s1", name: "Soffit", position: [0, 3], height_m: 2.6 }],
  cameras: [],
};

const names = (core: Core): string[] => {
  const wish = { target: "t1", spot: "s1", near: false, usual: [], like: null };
  const told = core.ask(JSON.stringify({ ask: "finished_lines", wish, units: "metres" }));
  return (JSON.parse(told) as FinishedLines).lines.map(({ camera }) => camera.model.name);
};

test("lines are found among them, and what the core cannot read is left out", () => {
  const core = Core.open(JSON.stringify(site));
  const before = names(core);
  const ours = { ...turret, name: "House turret" };
  core.stock(JSON.stringify([{ name: "From tomorrow", warp_drive: true }, ours]));
  expect(names(core)[0]).toBe("House turret");
  core.stock("[]");
  expect(names(core)).toEqual(before);
  expect(() => core.stock("{}")).toThrow();
  core.free();
});
