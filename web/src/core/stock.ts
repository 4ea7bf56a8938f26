/** The firm's own models as the workers have them: told to each once, not with every question. */
import { useSyncExternalStore } from "react";
import type { Model } from "./types";

/** The models as JSON, and a number that grows with every change; 0 is what a new worker has: none. */
let stock = { number: 0, models: "[]" };
const listeners = new Set<() => void>();

/** Tells which models the firm has of its own. */
export function tellStock(models: Model[]): void {
  const written = JSON.stringify(models);
  if (written === stock.models) return;
  stock = { number: stock.number + 1, models: written };
  for (const listener of listeners) listener();
}

export const stockNow = (): { number: number; models: string } => stock;

/** The number of what the firm has now: an answer to the one before is of another stock. */
export const useStock = (): number =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => stock.number,
  );
