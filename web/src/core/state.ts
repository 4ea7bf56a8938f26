/** How the computation stands, for the screen as a whole. */
import { create } from "zustand";

interface CoreState {
  /** What happened to a part of it that is not back; null if all is well. */
  trouble: string | null;
}

export const useCoreState = create<CoreState>(() => ({ trouble: null }));

/** What happened, by the worker whose place it is. */
const troubles = new Map<object, string>();

const show = (): void => useCoreState.setState({ trouble: [...troubles.values()][0] ?? null });

export function tellTrouble(of: object, why: string): void {
  troubles.set(of, why);
  show();
}

export function tellWell(of: object): void {
  if (troubles.delete(of)) show();
}
