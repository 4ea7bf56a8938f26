/** The workers that hold the core: which there are, and what each is for. */
import { makeWorker } from "./coreWorker";
import { Follower } from "./follower";

/** How many workers share a relief: one core is left for the hand and the screen. */
const RELIEF_HANDS = Math.min(
  Math.max((typeof navigator === "undefined" ? 2 : navigator.hardwareConcurrency) - 1, 1),
  3,
);

/** Those that answer questions. */
export const hands = {
  /** Follows the hand: what is answered within a frame. */
  hand: new Follower(makeWorker),
  /** Tells about the ground, pictures and designs: what may take a blink longer than the hand waits. */
  surveyor: new Follower(makeWorker),
  /** Knows the sun's year; started when somebody asks about it. */
  almanac: new Follower(makeWorker),
  /** Thinks long, about one thing: whatever is asked next ends what it was about. */
  thinker: new Follower(makeWorker),
};
export type Hand = keyof typeof hands;

/** Those that share the relief of a sheet. The second sheet's, where two designs lie side by side, is started when it is first asked. */
export const reliefHands = {
  0: Array.from({ length: RELIEF_HANDS }, () => new Follower(makeWorker)),
  1: [new Follower(makeWorker)],
};

/**
 * Work out pictures, each started when one of its is first looked at: the view and its loupe, those beside them, and what is
 * made to be kept.
 */
export const viewers = {
  view: new Follower(makeWorker),
  loupe: new Follower(makeWorker),
  left: new Follower(makeWorker),
  leftLoupe: new Follower(makeWorker),
  right: new Follower(makeWorker),
  rightLoupe: new Follower(makeWorker),
  keep: new Follower(makeWorker),
  keepMore: new Follower(makeWorker),
  sheet: new Follower(makeWorker),
};
/** Which of them works on what. */
export type Slot = keyof typeof viewers;

/** Gets the core ready before it is needed. */
export function startCore(): void {
  hands.hand.start();
  for (const relief of reliefHands[0]) relief.start();
  hands.thinker.start();
}
