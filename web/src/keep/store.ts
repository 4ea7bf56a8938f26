/**
 * The site in hand: its file, what was done to it (undo and redo), and how far it is kept.
 *
 * Every edit is saved as a revision a moment after it comes to rest. Until the server has it, it
 * stands in this browser's storage too, so a closed tab or a lost connection loses nothing.
 */
import { produce } from "immer";
import { create } from "zustand";
import { Refused } from "../core/errors";
import { Away, Stale, ask } from "./http";
import type { Conflict, Fault, Revision, SiteFile } from "../core/types";
import { dropDraft, keepDraft, readDraft, writeWaiting } from "./draft";
import { back, begin, forth, lastStep, nextStep, step } from "./history";

export type Saving =
  | { kind: "kept" }
  | { kind: "waiting" }
  | { kind: "keeping" }
  | { kind: "away" }
  | { kind: "refused"; faults: Fault[] }
  | { kind: "stale"; conflict: Conflict };

interface Open {
  id: string;
  /** The revision that the server has and the next one is based on. */
  revision: number;
  savedAt: string;
  site: SiteFile;
  saving: Saving;
  /** What the edits since the last revision did. */
  says: string;
}

interface SiteStore {
  open: Open | null;
  /** Why the site could not be opened. */
  failed: Error | null;
  load(id: string): Promise<void>;
  close(): void;
  /** Edits the site, by what to do to a draft of it or by the state to take; edits with the same `gesture` one after the other are one step to undo. */
  edit(says: string, change: ((site: SiteFile) => void) | SiteFile, gesture?: string): void;
  undo(): void;
  redo(): void;
  /** Ends a stale state: go on with mine as a new revision, or with theirs. */
  settle(choice: "mine" | "theirs"): void;
}

const WAITING: Saving = { kind: "waiting" };

/** How long edits rest before they are saved, ms. */
const REST = 500;
/** How long to wait before a server that was away is tried again, ms. */
const RETRY = 2000;

let timer: ReturnType<typeof setTimeout> | undefined;

export const useSite = create<SiteStore>((set, get) => {
  const change = (update: Partial<Open>): void => {
    const open = get().open;
    if (open) set({ open: { ...open, ...update } });
  };

  /** Takes a new state of the file and sees that it is saved. */
  const take = (update: Partial<Open> & { says: string }): void => {
    const stale = get().open?.saving.kind === "stale";
    // The same object while it stays the same: who looks at it only is not told at every move of a hand.
    const waiting = get().open?.saving.kind === "waiting" ? {} : { saving: WAITING };
    change(stale ? update : { ...update, ...waiting });
    const open = get().open;
    if (!open) return;
    keepDraft(open.id, { basedOn: open.revision, says: open.says, site: open.site });
    if (!stale) saveIn(REST);
  };

  const saveIn = (wait: number): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), wait);
  };

  const save = async (): Promise<void> => {
    const open = get().open;
    if (!open || open.saving.kind === "keeping" || open.saving.kind === "stale") return;
    const { id, site, says, revision } = open;
    change({ saving: { kind: "keeping" } });
    const still = (): boolean => get().open?.id === id;
    try {
      const kept = await ask<Revision>("PUT", `/api/sites/${id}`, { based_on: revision, says, site });
      if (!still()) return;
      const moved = get().open?.site !== site;
      change({ revision: kept.number, savedAt: kept.saved_at, saving: { kind: moved ? "waiting" : "kept" } });
      if (moved) saveIn(REST);
      else dropDraft(id);
    } catch (error) {
      if (!still()) return;
      if (error instanceof Stale) change({ saving: { kind: "stale", conflict: error.conflict } });
      else if (error instanceof Refused) change({ saving: { kind: "refused", faults: error.faults } });
      else if (error instanceof Away) {
        change({ saving: { kind: "away" } });
        saveIn(RETRY);
      } else throw error;
    }
  };

  return {
    open: null,
    failed: null,

    async load(id) {
      clearTimeout(timer);
      set({ open: null, failed: null });
      try {
        const newest = await ask<Revision>("GET", `/api/sites/${id}`);
        const opened: Open = {
          id,
          revision: newest.number,
          savedAt: newest.saved_at,
          site: newest.site,
          saving: { kind: "kept" },
          says: "",
        };
        begin(newest.site);
        set({ open: opened });
        const draft = readDraft(id);
        if (!draft) return;
        if (draft.basedOn === newest.number) {
          step(draft.site, draft.says);
          take({ site: draft.site, says: draft.says });
        } else {
          const message = "this browser holds changes that never reached the server";
          const conflict = { message, based_on: draft.basedOn, yours: draft.site, theirs: newest };
          step(draft.site, draft.says);
          change({ site: draft.site, says: draft.says, saving: { kind: "stale", conflict } });
        }
      } catch (error) {
        set({ failed: error as Error });
      }
    },

    close() {
      // What is still waiting stands in the browser's storage and goes out when the site is opened.
      const open = get().open;
      writeWaiting();
      if (open?.saving.kind === "waiting") void save();
      set({ open: null, failed: null });
    },

    edit(says, change, gesture = "") {
      const open = get().open;
      if (!open) return;
      const site = typeof change === "function" ? produce(open.site, change) : change;
      if (site === open.site) return;
      step(site, says, gesture);
      take({ site, says });
    },

    undo() {
      const did = lastStep();
      const site = did === null ? null : back();
      if (site) take({ site, says: `Undo: ${did ?? ""}`.slice(0, 200) });
    },

    redo() {
      const says = nextStep();
      const site = says === null ? null : forth();
      if (site && says !== null) take({ site, says });
    },

    settle(choice) {
      const open = get().open;
      if (open?.saving.kind !== "stale") return;
      const { theirs } = open.saving.conflict;
      if (choice === "theirs") {
        dropDraft(open.id);
        step(theirs.site, "Take the other version");
        change({
          site: theirs.site,
          revision: theirs.number,
          savedAt: theirs.saved_at,
          saving: { kind: "kept" },
        });
      } else {
        change({ revision: theirs.number, saving: { kind: "waiting" } });
        saveIn(0);
      }
    },
  };
});
