/**
 * What is typed and not taken yet. A field that takes its text with Enter or when the hand leaves it also takes it when the field
 * itself goes: another thing, another page, a reload.
 */
import { useLayoutEffect, useRef } from "react";

const fields = new Set<() => void>();

function takeAll(): void {
  for (const take of fields) take();
}

if (typeof window !== "undefined") {
  // Before anybody else hears of it: what is kept on the device then holds what was typed.
  window.addEventListener("pagehide", takeAll, { capture: true });
  window.addEventListener(
    "visibilitychange",
    () => {
      if (document.visibilityState === "hidden") takeAll();
    },
    { capture: true },
  );
}

/** Takes what is typed when the field goes. `take` does nothing where nothing is typed. */
export function useTakenWhenLeft(take: () => void): void {
  const latest = useRef(take);
  useLayoutEffect(() => {
    latest.current = take;
  });
  useLayoutEffect(() => {
    const now = (): void => latest.current();
    fields.add(now);
    return () => {
      fields.delete(now);
      now();
    };
  }, []);
}
