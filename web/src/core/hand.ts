/** Whether a hand holds something on a drawing: what nobody looks at meanwhile waits until it lets go, or stays where it is. */
import { useEffect, useRef, useState } from "react";
import { create } from "zustand";

export const useHand = create<{ holds: boolean }>(() => ({ holds: false }));

/** How long a hand that holds something must be still to be taken for one that rests, ms. */
const STILL = 600;

/** Runs something once nothing has happened for a while; a hand that holds something may hesitate longer. Answers how it is called off. */
export function onceAtRest(rest: number, run: () => void): () => void {
  const wait = (holds: boolean): ReturnType<typeof setTimeout> => setTimeout(done, holds ? STILL : rest);
  let timer = wait(useHand.getState().holds);
  const leave = useHand.subscribe(({ holds }) => {
    clearTimeout(timer);
    timer = wait(holds);
  });
  const callOff = (): void => {
    clearTimeout(timer);
    leave();
  };
  function done(): void {
    callOff();
    run();
  }
  return callOff;
}

/** Nobody reads figures faster under a moving hand, ms. */
const READ = 100;

/** A value as panels beside a drawing show it: as it is, and while a hand holds something ten times a second. */
export function useCalm<T>(value: T): T {
  const holds = useHand((hand) => hand.holds);
  const [calm, setCalm] = useState(value);
  const latest = useRef(value);
  useEffect(() => {
    latest.current = value;
  });
  useEffect(() => {
    if (!holds) return;
    const timer = setInterval(() => setCalm(() => latest.current), READ);
    return () => clearInterval(timer);
  }, [holds]);
  if (!holds && calm !== value) setCalm(() => value);
  return holds ? calm : value;
}
