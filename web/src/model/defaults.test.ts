/** What the dials take for what a file does not say, against what the core takes for it. */
import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { Core, initSync } from "../core/made/core";
import type { Guide } from "../core/types";
import { APART } from "./cameras";
import { USUAL_SLEW, USUAL_ZOOM } from "./tours";

const ROOT = new URL("../../../", import.meta.url).pathname;

it("is the same in the dials as in the core", () => {
  initSync({ module: readFileSync(`${ROOT}web/src/core/made/core_bg.wasm`) });
  const core = Core.open(readFileSync(`${ROOT}demo/tern-quay.json`, "utf8"));
  const { defaults } = JSON.parse(core.ask(JSON.stringify({ ask: "guide" }))) as Guide;
  expect(defaults).toEqual({ slew_deg_s: USUAL_SLEW, zoom_s: USUAL_ZOOM, apart_deg: APART });
});
