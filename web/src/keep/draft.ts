/** What the server does not have yet, kept on this device while it is worked on: at once, but not at every move of a hand. */
import { useHand } from "../core/hand";
import type { SiteFile } from "../core/types";
import { type Draft, draftsOf, putDraft, takeDraft } from "./shelf";
import { TAB, livingTabs } from "./tabs";

export type { Draft } from "./shelf";

/** A hand that drags makes sixty states a second, and a large site takes milliseconds to write: written is at most so often, ms. */
const AT_MOST = 250;
/** And under a hand that drags: its gesture is not done, and what it holds is said when the page goes. */
const UNDER_A_HAND = 2000;
/** Where the last state of a window stands that was closed before the database had it. */
const LAST = "bright-angle/last/";

type Unwritten = Omit<Draft, "tab" | "at">;

let waiting: Unwritten | null = null;
/** What the database was given and has not confirmed. */
let underWay: Draft | null = null;
/** The newest state of each site that a draft was kept of. */
const newest = new Map<string, SiteFile>();
let timer: ReturnType<typeof setTimeout> | undefined;
let written = 0;
let writing: Promise<unknown> = Promise.resolve();

/** Keeps a draft: at once if none was kept for a moment, else with the next that is written. */
export function keepDraft(draft: Unwritten): void {
  if (waiting && waiting.id !== draft.id) writeWaiting();
  waiting = draft;
  newest.set(draft.id, draft.site);
  const wait = written + (useHand.getState().holds ? UNDER_A_HAND : AT_MOST) - Date.now();
  if (wait <= 0) writeWaiting();
  else timer ??= setTimeout(writeWaiting, wait);
}

/** Writes what waits; one after the other, so that an older state never comes last. */
export function writeWaiting(): void {
  clearTimeout(timer);
  timer = undefined;
  if (!waiting) return;
  const draft = { ...waiting, tab: TAB, at: Date.now() };
  waiting = null;
  written = draft.at;
  underWay = draft;
  writing = writing
    .then(() => putDraft(draft))
    .then(() => {
      if (underWay === draft) underWay = null;
    });
}

/** The page may be gone before the database has answered: what it has not confirmed is said once more where it is heard at once. */
function lastWord(): void {
  const last = waiting ?? underWay;
  if (!last) return;
  try {
    localStorage.setItem(`${LAST}${last.id}/${TAB}`, JSON.stringify({ ...last, tab: TAB, at: Date.now() }));
  } catch {
    // There is no room, or no leave: the database is asked all the same.
  }
  writeWaiting();
}

// A hand that lets go leaves a state that stands.
useHand.subscribe(({ holds }) => {
  if (!holds) writeWaiting();
});

if (typeof window !== "undefined") {
  window.addEventListener("pagehide", lastWord);
  document.addEventListener("visibilitychange", () => {
    if (document.visibilityState === "hidden") lastWord();
  });
}

/** Forgets this window's draft of a site, now that `site` is on the server; not if it is of another state. */
export async function dropDraft(id: string, site: SiteFile): Promise<void> {
  if ((newest.get(id) ?? site) !== site) return;
  newest.delete(id);
  if (waiting?.id === id) waiting = null;
  writing = writing.then(() => takeDraft(id, TAB));
  forgetLast(id, TAB);
  await writing;
}

/** The drafts of a site that this window may take up: its own, and those of windows that are gone. The oldest first. */
export async function heldDrafts(id: string): Promise<Draft[]> {
  writeWaiting();
  await writing;
  const living = await livingTabs();
  const mayTake = (tab: string): boolean => tab === TAB || !living.has(tab);
  const drafts = new Map((await draftsOf(id)).filter(({ tab }) => mayTake(tab)).map((draft) => [draft.tab, draft]));
  for (const last of lastWords(id)) {
    const held = drafts.get(last.tab);
    if (mayTake(last.tab) && (!held || held.at < last.at)) drafts.set(last.tab, last);
  }
  return [...drafts.values()].sort((a, b) => a.at - b.at);
}

/** Forgets drafts of other windows that were taken up, once what became of them stands in this window's own. */
export async function takenUp(id: string, drafts: Draft[]): Promise<void> {
  writeWaiting();
  await writing;
  for (const { tab } of drafts) {
    if (tab !== TAB) await takeDraft(id, tab);
    forgetLast(id, tab);
  }
}

function forgetLast(id: string, tab: string): void {
  try {
    localStorage.removeItem(`${LAST}${id}/${tab}`);
  } catch {
    // Without leave nothing was said there.
  }
}

function lastWords(id: string): Draft[] {
  const found: Draft[] = [];
  try {
    for (let place = 0; place < localStorage.length; place++) {
      const key = localStorage.key(place) ?? "";
      if (key.startsWith(`${LAST}${id}/`)) found.push(JSON.parse(localStorage.getItem(key) ?? "null") as Draft);
    }
  } catch {
    // Unreadable, or no leave: the database has what it has.
  }
  return found.filter((draft) => draft as Draft | null);
}
