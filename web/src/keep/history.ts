/** What was done to the site in hand, to be undone and done again: states that share what did not change. */
import { temporal } from "zundo";
import { create } from "zustand";
import type { SiteFile } from "../core/types";

interface State {
  site: SiteFile | null;
  /** What was done to come to this state. */
  did: string;
}

const MOST_STEPS = 200;

export const useHistory = create<State>()(temporal<State>(() => ({ site: null, did: "" }), { limit: MOST_STEPS }));

const steps = useHistory.temporal;
let gestureInHand = "";

/** Begins with a state that nothing led to. */
export function begin(site: SiteFile | null): void {
  gestureInHand = "";
  useHistory.setState({ site, did: "" });
  steps.getState().clear();
}

/** Takes a new state; those of one gesture, one after the other, are one step. */
export function step(site: SiteFile, did: string, gesture = ""): void {
  const goesOn = gesture !== "" && gesture === gestureInHand && steps.getState().pastStates.length > 0;
  gestureInHand = gesture;
  if (goesOn) steps.getState().pause();
  useHistory.setState({ site, did });
  if (goesOn) steps.getState().resume();
}

/** What would be undone; null if there is nothing. */
export const lastStep = (): string | null =>
  steps.getState().pastStates.length > 0 ? useHistory.getState().did : null;

/** What would be done again; null if there is nothing. */
export const nextStep = (): string | null => steps.getState().futureStates.at(-1)?.did ?? null;

/** Goes a step back; the state that is left then. */
export function back(): SiteFile | null {
  gestureInHand = "";
  steps.getState().undo();
  return useHistory.getState().site;
}

/** Goes a step forth again. */
export function forth(): SiteFile | null {
  gestureInHand = "";
  steps.getState().redo();
  return useHistory.getState().site;
}

/** Goes back to a state for good, if the last step led away from it; answers whether it did. */
export function backTo(site: SiteFile): boolean {
  if (steps.getState().pastStates.at(-1)?.site !== site) return false;
  back();
  steps.setState({ futureStates: [] });
  return true;
}
