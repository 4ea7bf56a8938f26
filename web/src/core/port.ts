/**
 * The one door to the computation: a question goes to the core, which runs in workers of its own, and has the type of its answer as
 * the core declares it. Only pixels go another way (`pictures`, `reliefs`).
 */
import { Dropped, Fallen } from "./errors";
import { type Hand, hands } from "./hands";
import type { Job } from "./follower";
import type { Reply } from "./messages";
import type { AnswerTo, Ask, SiteFile } from "./types";

/** What the core wrote is of the type that its schema says: the types here are made from it, and this is the one place where that is believed. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters
export const told: <Told>(json: string) => Told = JSON.parse;

/**
 * Asks about a state of a site. Rejects with `Refused` for a site, or a question, that makes no sense; with `Fallen` if the worker
 * fell over twice; with `Dropped` if something else was asked of a worker that thinks about one thing at a time.
 */
export async function ask<Question extends Ask>(
  site: SiteFile,
  question: Question,
  by: Hand = "hand",
): Promise<AnswerTo<Question>> {
  const { answer } = await run(site, { ask: question }, by);
  return told(answer ?? "null");
}

/** What goes to a worker that answers questions. */
export async function run(site: SiteFile, job: Job, by: Hand): Promise<Reply> {
  const follower = hands[by];
  if (by === "thinker" && follower.busy) follower.stop();
  // What fell over is started anew and asked once more at once; who goes on asking after that waits in between.
  const reply = await follower.run(site, job).catch((error: unknown) => {
    if (error instanceof Fallen) return follower.run(site, job);
    throw error;
  });
  if (reply.dropped) throw new Dropped();
  return reply;
}

/** Nobody waits any more for what a worker thinks about. */
export function callOff(by: Hand): void {
  if (by === "thinker" && hands[by].busy) hands[by].stop();
}

/** A site of nothing, for questions that are about none. */
const NO_SITE: SiteFile = {
  format: "bright-angle/site",
  version: 1,
  name: "No site",
  obstacles: [],
  targets: [],
  cameras: [],
};

/** Asks what is the same for every site: a worker that follows one already is not told of another. */
export function askAnywhere<Question extends Ask>(question: Question): Promise<AnswerTo<Question>> {
  return ask(hands.hand.site ?? NO_SITE, question);
}
