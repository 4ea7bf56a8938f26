/** The door of the core as tests of panels have it: the core itself, without its workers. It imports nothing that asks at that door.
 * Tests are run from the front end's folder. */
import { readFileSync } from "node:fs";
import { Core, initSync } from "../core/made/core";
import type { AnswerTo, Ask, SiteFile } from "../core/types";

initSync({ module: readFileSync("src/core/made/core_bg.wasm") });

export const door = {
  ask<Question extends Ask>(site: SiteFile, question: Question): Promise<AnswerTo<Question>> {
    return Promise.resolve().then(() => answerTo(site, question));
  },
  callOff: (): void => undefined,
};

export function answerTo<Question extends Ask>(site: SiteFile, question: Question): AnswerTo<Question> {
  const core = Core.open(JSON.stringify(site));
  try {
    return JSON.parse(core.ask(JSON.stringify(question))) as AnswerTo<Question>;
  } finally {
    core.free();
  }
}
