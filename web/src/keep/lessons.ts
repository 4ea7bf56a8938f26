/** What somebody answered the trainer: on this device alone. */
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { LessonKind } from "../core/types";

export const KINDS: LessonKind[] = ["lens", "height", "reach", "night"];

interface Score {
  right: number;
  wrong: number;
  /** How many of the last in a row were wrong: what is missed often comes again. */
  missed: number;
}

interface Lessons {
  scores: Partial<Record<LessonKind, Score>>;
  /** The number of the next question. */
  next: number;
  noted(kind: LessonKind, right: boolean): void;
  forget(): void;
}

const NONE: Score = { right: 0, wrong: 0, missed: 0 };

export const useLessons = create<Lessons>()(
  persist(
    (set) => ({
      scores: {},
      next: 1,
      noted: (kind, right) =>
        set(({ scores, next }) => {
          const held = scores[kind] ?? NONE;
          const score = {
            right: held.right + (right ? 1 : 0),
            wrong: held.wrong + (right ? 0 : 1),
            missed: right ? Math.max(0, held.missed - 1) : held.missed + 1,
          };
          return { scores: { ...scores, [kind]: score }, next: next + 1 };
        }),
      forget: () => set({ scores: {}, next: 1 }),
    }),
    { name: "bright-angle/lessons" },
  ),
);

/** The kind of a question by its number: in turn, but what was missed comes in between, the most missed first. */
export function kindOf(number: number, scores: Lessons["scores"]): LessonKind {
  const missed = KINDS.filter((kind) => (scores[kind]?.missed ?? 0) > 0).sort(
    (a, b) => (scores[b]?.missed ?? 0) - (scores[a]?.missed ?? 0),
  );
  // Every second question while something was missed.
  const again = missed[0];
  if (again !== undefined && number % 2 === 0) return again;
  return KINDS[Math.floor(number / (again === undefined ? 1 : 2)) % KINDS.length] ?? "lens";
}
