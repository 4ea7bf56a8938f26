/** What the server does not have yet, kept in this browser. */
import type { SiteFile } from "../core/types";

export interface Draft {
  basedOn: number;
  says: string;
  site: SiteFile;
}

const key = (id: string): string => `bright-angle/draft/${id}`;

/** A hand that drags makes sixty states a second, and a large site takes milliseconds to write: written is at most so often, ms. */
const AT_MOST = 250;

let waiting: { id: string; draft: Draft } | null = null;
let timer: ReturnType<typeof setTimeout> | undefined;
let written = 0;

/** Keeps a draft: at once if none was kept for a moment, else with the next that is written. */
export function keepDraft(id: string, draft: Draft): void {
  if (waiting && waiting.id !== id) writeWaiting();
  waiting = { id, draft };
  const wait = written + AT_MOST - Date.now();
  if (wait <= 0) writeWaiting();
  else timer ??= setTimeout(writeWaiting, wait);
}

/** Writes what waits, as when the page is left. */
export function writeWaiting(): void {
  clearTimeout(timer);
  timer = undefined;
  if (!waiting) return;
  const { id, draft } = waiting;
  waiting = null;
  written = Date.now();
  try {
    localStorage.setItem(key(id), JSON.stringify(draft));
  } catch {
    // A full or forbidden storage costs only the safety net: the save itself is under way.
  }
}

if (typeof window !== "undefined") {
  window.addEventListener("pagehide", writeWaiting);
  document.addEventListener("visibilitychange", writeWaiting);
}

export function dropDraft(id: string): void {
  if (waiting?.id === id) waiting = null;
  localStorage.removeItem(key(id));
}

export function readDraft(id: string): Draft | null {
  if (waiting?.id === id) writeWaiting();
  const text = localStorage.getItem(key(id));
  if (!text) return null;
  try {
    return JSON.parse(text) as Draft;
  } catch {
    dropDraft(id);
    return null;
  }
}
