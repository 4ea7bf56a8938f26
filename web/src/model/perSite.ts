/** What a hand holds, chose, drew or asked in one site, and what ends with it: nothing of it acts on the next one. */
import type { StoreApi } from "zustand";

const ends: (() => void)[] = [];

/** Sees that a store is as it began whenever a site is left. */
export function perSite<Store extends StoreApi<object>>(store: Store): Store {
  ends.push(() => store.setState(store.getInitialState(), true));
  return store;
}

/** A site is left. */
export function endSite(): void {
  for (const end of ends) end();
}
