/** What the server does not have yet, kept in this browser. */
import type { SiteFile } from "../engine/types";

export interface Draft {
  basedOn: number;
  says: string;
  site: SiteFile;
}

const key = (id: string): string => `bright-angle/draft/${id}`;

export function keepDraft(id: string, draft: Draft): void {
  try {
    localStorage.setItem(key(id), JSON.stringify(draft));
  } catch {
    // A full or forbidden storage costs only the safety net: the save itself is under way.
  }
}

export function dropDraft(id: string): void {
  localStorage.removeItem(key(id));
}

export function readDraft(id: string): Draft | null {
  const text = localStorage.getItem(key(id));
  if (!text) return null;
  try {
    return JSON.parse(text) as Draft;
  } catch {
    dropDraft(id);
    return null;
  }
}
