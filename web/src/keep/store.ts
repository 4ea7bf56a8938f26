/**
 * The site in hand: its file, what was done to it (undo and redo), and how far it is saved.
 *
 * Every edit is saved as a revision a moment after it comes to rest, one save at a time. Until the server has it, it stands on this
 * device too, so a closed window or a lost connection loses nothing. What somebody else saved meanwhile is put together with it;
 * only what both changed is asked about.
 */
import { produce } from "immer";
import { create } from "zustand";
import { Refused } from "../core/errors";
import type { Choice, Fault, Merged, Revision, SiteFile } from "../core/types";
import { type Draft, dropDraft, heldDrafts, keepDraft, takenUp, writeWaiting } from "./draft";
import { back, backTo, begin, forth, lastStep, nextStep, step } from "./history";
import { Away, Gone, NotThere, Stale, request } from "./http";
import { merge, same } from "./merging";
import { keep, keptOn } from "./shelf";
import { onSavedElsewhere, tellWindows } from "./tabs";

export type Saving =
  /** The server has it. */
  | { kind: "saved" }
  | { kind: "waiting" }
  | { kind: "saving" }
  /** It stands on this device; why the server does not have it. */
  | { kind: "away"; why: string }
  | { kind: "refused"; faults: Fault[] }
  /** Somebody else changed the same things. */
  | { kind: "clash"; clash: Clash }
  /** The site was deleted meanwhile. */
  | { kind: "gone"; message: string }
  /** An old revision is looked at; it cannot be changed. */
  | { kind: "looking" };

export interface Clash {
  /** What both came from. */
  base: SiteFile;
  theirs: Revision;
  merged: Merged;
}

interface Open {
  id: string;
  /** Which opening it is: the same site may be left and opened again. */
  opening: number;
  /** The revision that the server has and the next one is based on; 0 while it knows nothing of the site. */
  revision: number;
  /** That revision's file. */
  base: SiteFile | null;
  savedAt: string;
  site: SiteFile;
  saving: Saving;
  /** What the edits since the last revision did. */
  says: string;
  /** Whether the server was away when the site was last asked for. */
  offline: boolean;
}

interface SiteStore {
  open: Open | null;
  /** Why the site could not be opened. */
  failed: Error | null;
  /** Said once: what was taken in from somebody else. */
  notice: string | null;
  /** Opens a site, or one of its revisions to look at; answers which opening it is. Another one that was begun since has its place. */
  load(id: string, looking?: number | null): Promise<number>;
  close(): void;
  /** Edits the site, by what to do to a draft of it or by the state to take; edits with the same `gesture` one after the other are one step to undo. */
  edit(says: string, change: ((site: SiteFile) => void) | SiteFile, gesture?: string): void;
  undo(): void;
  redo(): void;
  /** Takes the last step back for good, if it began with this state: a drag that is broken off. */
  takeBack(before: SiteFile): void;
  /** Ends a clash: thing by thing, or with one of the two as a whole. Answers what still has to be chosen, or null. */
  settle(choice: Choice[] | "mine" | "theirs"): Promise<Merged | null>;
  /** Tries to save now. */
  saveNow(): void;
}

const WAITING: Saving = { kind: "waiting" };

/** How long edits rest before they are saved, ms. */
const REST = 500;
/** How long to wait before a server that was away is tried again, ms; twice as long each time, up to the longest. */
const RETRY = 2000;
const LONGEST_RETRY = 8_000;

let timer: ReturnType<typeof setTimeout> | undefined;
let retry = RETRY;
/** What is on its way to the server, by site: one save at a time, whoever has the site open. */
const onTheWay = new Map<string, Promise<void>>();
/** What was in hand of sites that were left while something of them was not saved yet. */
const left = new Map<string, Open>();
/** Which opening is the newest: one that is overtaken shows nothing any more. */
let openings = 0;
/** Told of every revision that the server has. */
const listeners = new Set<(id: string, site: SiteFile) => void>();

/** Hears of every revision that is known to stand on the server. */
export function onRevision(listen: (id: string, site: SiteFile) => void): () => void {
  listeners.add(listen);
  return () => listeners.delete(listen);
}

/** The states that were sent and not answered, by site: any of them may stand on the server. */
const sent = new Map<string, SiteFile[]>();
const MOST_SENT = 3;

/** Keeps on this device what the server has. */
const shelve = (revision: Revision, opened: { openedAt?: string } = {}): Promise<boolean> =>
  keep({
    id: revision.site_id,
    number: revision.number,
    savedAt: revision.saved_at,
    says: revision.says,
    site: revision.site,
    ...opened,
  });

/**
 * What a state and the server's newest both came from: the revision that the state is based on, or, if one of those that were sent
 * has arrived though no answer came, that one.
 */
async function origin(basedOn: number, base: SiteFile, tried: SiteFile[], theirs: Revision): Promise<SiteFile> {
  if (tried.length === 0 || theirs.number <= basedOn) return base;
  const path = `/api/sites/${theirs.site_id}/revisions/${basedOn + 1}`;
  const next = theirs.number === basedOn + 1 ? theirs : await request<Revision>("GET", path).catch(() => null);
  for (const one of tried) if (next && (await same(one, next.site))) return one;
  return base;
}

/** A site as the server has it; null if it has none. */
async function found(id: string): Promise<Revision | null> {
  try {
    return await request<Revision>("GET", `/api/sites/${id}`);
  } catch (error) {
    if (error instanceof NotThere) return null;
    throw error;
  }
}

export const useSite = create<SiteStore>((set, get) => {
  const change = (update: Partial<Open>): void => {
    const open = get().open;
    if (open) set({ open: { ...open, ...update } });
  };

  /** Changes a site, if it is still the one that is open. */
  const changeOf = (id: string, update: Partial<Open>): void => {
    if (get().open?.id === id) change(update);
  };

  const noteDraft = (open = get().open): void => {
    if (open) {
      const { id, revision, base, says, site } = open;
      keepDraft({ id, basedOn: revision, base, sent: sent.get(id) ?? [], says: says || "Change", site });
    }
  };

  /** Whether edits are held back: nothing is sent before something is settled. */
  const held = (saving: Saving | undefined): boolean => saving?.kind === "clash" || saving?.kind === "gone";

  /** Takes a new state of the file and sees that it is saved. */
  const take = (update: Partial<Open> & { says: string }): void => {
    const saving = get().open?.saving;
    // The same object while it stays the same: who looks at it only is not told at every move of a hand.
    const waiting = saving?.kind === "waiting" ? {} : { saving: WAITING };
    change(held(saving) ? update : { ...update, ...waiting });
    noteDraft();
    if (!held(saving)) saveIn(REST);
  };

  const saveIn = (wait: number): void => {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), wait);
  };

  const again = (): void => {
    saveIn(retry);
    retry = Math.min(retry * 2, LONGEST_RETRY);
  };

  /** Saves what is in hand, unless something is on its way: then what moved meanwhile goes after it. */
  const save = (): Promise<void> => {
    const open = get().open;
    if (!open || held(open.saving) || open.saving.kind === "looking") return Promise.resolve();
    const going = onTheWay.get(open.id);
    if (going) return going;
    const done = send(open).finally(() => onTheWay.delete(open.id));
    onTheWay.set(open.id, done);
    return done.then(() => {
      if (get().open?.id === open.id && get().open?.saving.kind === "waiting") saveIn(REST);
    });
  };

  const send = async (open: Open): Promise<void> => {
    const { id, site, revision } = open;
    const says = open.says || "Change";
    changeOf(id, { saving: { kind: "saving" } });
    const tried = sent.get(id) ?? [];
    if (!tried.includes(site)) sent.set(id, [...tried, site].slice(-MOST_SENT));
    noteDraft(get().open?.id === id ? get().open : (left.get(id) ?? open));
    try {
      // A new site whose answer was lost may be there already, and not be what it is now.
      const there = revision === 0 && tried.length > 0 ? await found(id) : null;
      if (there) return await stale(open, there);
      const kept =
        revision === 0
          ? await request<Revision>("POST", "/api/sites", { id, says, site })
          : await request<Revision>("PUT", `/api/sites/${id}`, { based_on: revision, says, site });
      await arrived(kept, site);
    } catch (error) {
      if (!(error instanceof Stale)) return notTaken(open, tried, error);
      // What cannot be put together is told like any other refusal: nobody waits for it.
      await stale(open, error.conflict.theirs).catch((refused: unknown) => notTaken(open, tried, refused));
    }
  };

  /** A state did not get to the server: why, and what comes next. */
  const notTaken = ({ id, site, revision }: Open, tried: SiteFile[], error: unknown): void => {
    if (error instanceof Away) {
      changeOf(id, { saving: { kind: "away", why: error.message }, offline: true });
      if (get().open?.id === id) again();
      return;
    }
    // An answer came: this state does not stand there.
    sent.set(
      id,
      tried.filter((one) => one !== site),
    );
    if (error instanceof Gone || (error instanceof NotThere && revision > 0))
      changeOf(id, { saving: { kind: "gone", message: error.message } });
    // What was changed meanwhile may be in order.
    else if (get().open?.site !== site) changeOf(id, { saving: WAITING });
    else {
      const faults = error instanceof Refused ? error.faults : [{ path: "", message: (error as Error).message }];
      changeOf(id, { saving: { kind: "refused", faults } });
    }
  };

  /** The server has a state: what is in hand is based on it now, and no draft is needed for it. */
  const arrived = async (kept: Revision, site: SiteFile): Promise<void> => {
    const id = kept.site_id;
    sent.delete(id);
    retry = RETRY;
    const open = get().open;
    const based = { revision: kept.number, base: kept.site, savedAt: kept.saved_at };
    if (open?.id === id) {
      const moved = open.site !== site;
      const saving: Saving = moved ? WAITING : { kind: "saved" };
      change({ ...based, saving, offline: false });
      if (moved) noteDraft();
    }
    await dropDraft(id, site);
    await shelve(kept);
    tellWindows({ site: id, revision: kept.number });
    for (const listen of listeners) listen(id, kept.site);
    await sendLeft(id, based, site);
  };

  /** Sends what was in hand when a site was left, and has not arrived with `site`. */
  const sendLeft = async (id: string, based: Pick<Open, "revision" | "base" | "savedAt">, site: SiteFile) => {
    const last = left.get(id);
    if (!last) return;
    if (last.site === site || get().open?.id === id) {
      left.delete(id);
      return;
    }
    await send({ ...last, ...based });
  };

  /** Somebody saved in between: another person, another window, or this one, whose answer was lost. */
  const stale = async ({ id, revision, base }: Open, theirs: Revision): Promise<void> => {
    const from = await origin(revision, base ?? theirs.site, sent.get(id) ?? [], theirs);
    sent.delete(id);
    for (;;) {
      const now = get().open?.id === id ? get().open : left.get(id);
      if (!now) return;
      const mine = now.site;
      const merged = await merge(from, mine, theirs.site);
      const still = get().open?.id === id ? get().open : left.get(id);
      if (!still) return;
      // The hand went on meanwhile: what it did belongs in.
      if (still.site !== mine) continue;
      const whole = merged.clashes.length === 0 ? merged.site : null;
      if (get().open?.id !== id) {
        // Left: what both did goes out; what is to be chosen waits on this device for whoever opens the site.
        if (!whole) return;
        const next = { ...still, site: whole, revision: theirs.number, base: theirs.site, savedAt: theirs.saved_at };
        left.set(id, next);
        return send(next);
      }
      if (!whole) {
        change({ saving: { kind: "clash", clash: { base: from, theirs, merged } } });
        return noteDraft();
      }
      if (await takeIn(whole, theirs, mine)) return;
    }
  };

  /**
   * Goes on with a state that holds what both did, where `mine` is what was in hand when they were put together. Answers false, and
   * does nothing, if the hand went on since: then it has to be put together again.
   */
  const takeIn = async (site: SiteFile, theirs: Revision, mine: SiteFile): Promise<boolean> => {
    const open = get().open;
    if (!open) return true;
    const nothingOfMine = await same(site, theirs.site);
    const foreign = open.base === null || !(await same(open.base, theirs.site));
    const now = get().open;
    if (now?.id !== open.id) return true;
    if (now.site !== mine) return false;
    const taken = nothingOfMine ? theirs.site : site;
    // What was done before would take back what the others did: undo begins anew.
    begin(taken);
    const based = { revision: theirs.number, base: theirs.site, savedAt: theirs.saved_at, offline: false };
    change({ site: taken, ...based, saving: nothingOfMine ? { kind: "saved" } : WAITING });
    if (foreign) set({ notice: `Revision ${theirs.number} was saved elsewhere (“${theirs.says}”) and is taken in.` });
    if (!nothingOfMine) {
      noteDraft();
      saveIn(0);
    }
    await shelve(theirs);
    if (nothingOfMine) {
      await dropDraft(open.id, mine);
      for (const listen of listeners) listen(open.id, theirs.site);
    }
    return true;
  };

  /** The site as the server has it, or as this device has it while the server is away. */
  const fetched = async (id: string): Promise<{ newest: Revision | null; away: Away | null }> => {
    try {
      const newest = await request<Revision>("GET", `/api/sites/${id}`);
      await shelve(newest, { openedAt: new Date().toISOString() });
      return { newest, away: null };
    } catch (error) {
      if (!(error instanceof Away)) throw error;
      const kept = await keptOn(id);
      const newest = kept && {
        site_id: id,
        number: kept.number,
        based_on: null,
        saved_at: kept.savedAt,
        says: kept.says,
        site: kept.site,
      };
      return { newest, away: error };
    }
  };

  /** Opens a site with what windows of this device did to it and the server does not have. */
  const openWith = async (id: string, newest: Revision | null, drafts: Draft[], away: Away | null): Promise<void> => {
    const opening = openings;
    const [first] = drafts;
    const site = newest?.site ?? first?.site;
    if (!site) throw away ?? new NotThere([]);
    begin(site);
    set({
      open: {
        id,
        opening,
        revision: newest?.number ?? 0,
        base: newest?.site ?? null,
        savedAt: newest?.saved_at ?? new Date().toISOString(),
        site,
        saving: { kind: "saved" },
        says: "",
        offline: away !== null,
      },
    });
    for (const draft of drafts) {
      const open = get().open;
      if (open?.id !== id || opening !== openings || held(open.saving)) return;
      await takeUp(open, draft, newest);
    }
    if (get().open?.id !== id || opening !== openings) return;
    if (!held(get().open?.saving)) await takenUp(id, drafts);
    if (away && get().open?.saving.kind === "saved") lookAgain();
  };

  /** Takes a draft up: on top of what it was based on, or put together with what came since. */
  const takeUp = async (open: Open, draft: Draft, newest: Revision | null): Promise<void> => {
    if (draft.sent.length > 0) sent.set(open.id, draft.sent);
    if (await same(draft.site, open.site)) {
      if (!newest) take({ site: draft.site, says: draft.says });
      return;
    }
    const at = get().open;
    if (at?.id !== open.id) return;
    if (at.site !== open.site) return takeUp(at, draft, newest);
    if ((draft.basedOn === open.revision && open.site === open.base) || !newest || !draft.base) {
      step(draft.site, draft.says);
      take({ site: draft.site, says: draft.says });
      return;
    }
    const others: Revision = open.site === newest.site ? newest : { ...newest, says: open.says, site: open.site };
    const from = await origin(draft.basedOn, draft.base, draft.sent, newest);
    const merged = await merge(from, draft.site, others.site);
    const whole = merged.clashes.length === 0 ? merged.site : null;
    const nothing = whole !== null && (await same(whole, open.site));
    const now = get().open;
    if (now?.id !== open.id) return;
    // The hand goes on as soon as the site stands there: what it did belongs in.
    if (now.site !== open.site) return takeUp(now, draft, newest);
    if (whole) {
      if (!nothing) {
        step(whole, draft.says);
        take({ site: whole, says: draft.says });
      }
    } else {
      step(draft.site, draft.says);
      change({
        site: draft.site,
        says: draft.says,
        saving: { kind: "clash", clash: { base: from, theirs: others, merged } },
      });
      noteDraft();
    }
  };

  /** Asks again for a site that is saved here and may be newer there. */
  const lookAgain = (wait = retry): void => {
    clearTimeout(timer);
    timer = setTimeout(() => {
      const open = get().open;
      if (open?.saving.kind !== "saved") return;
      void fetched(open.id)
        .then(async ({ newest, away }) => {
          const now = get().open;
          if (now?.id !== open.id || now.saving.kind !== "saved") return;
          if (away || !newest) {
            change({ offline: true });
            retry = Math.min(retry * 2, LONGEST_RETRY);
            return lookAgain();
          }
          retry = RETRY;
          change({ offline: false });
          // If the hand goes on meanwhile, its own save finds out.
          if (newest.number > now.revision) await takeIn(newest.site, newest, now.site);
        })
        .catch((error: unknown) => {
          if (error instanceof Gone && get().open?.id === open.id)
            change({ saving: { kind: "gone", message: error.message } });
        });
    }, wait);
  };

  // Another window of this browser saved: what it did is here before the hand does the same thing otherwise. Whoever has something
  // unsaved hears of it from the server.
  onSavedElsewhere(({ site, revision }) => {
    const open = get().open;
    if (open?.id === site && open.saving.kind === "saved" && revision > open.revision) lookAgain(0);
  });

  if (typeof window !== "undefined") {
    window.addEventListener("online", () => {
      retry = RETRY;
      const open = get().open;
      const kind = open?.saving.kind;
      // What waits to be sent goes out now: to look for something newer takes its turn, and only where all is saved.
      if (kind === "away" || kind === "waiting") saveIn(0);
      else if (kind === "saved" && open?.offline) lookAgain();
    });
  }

  return {
    open: null,
    failed: null,
    notice: null,

    async load(id, looking = null) {
      clearTimeout(timer);
      const opening = ++openings;
      set({ open: null, failed: null, notice: null });
      try {
        if (looking !== null) {
          const old = await request<Revision>("GET", `/api/sites/${id}/revisions/${looking}`);
          if (opening !== openings) return opening;
          begin(old.site);
          set({
            open: {
              id,
              opening,
              revision: old.number,
              base: old.site,
              savedAt: old.saved_at,
              site: old.site,
              saving: { kind: "looking" },
              says: old.says,
              offline: false,
            },
          });
          return opening;
        }
        // What this window sent a moment ago is answered first.
        for (let going = onTheWay.get(id); going; going = onTheWay.get(id)) await going;
        left.delete(id);
        const drafts = await heldDrafts(id);
        // What the server does not know, or not any more (it may have been brought back from a backup), stands here all the same.
        const here = drafts.length > 0;
        const { newest, away } = await fetched(id).catch((error: unknown) => {
          if (error instanceof NotThere && !(error instanceof Gone) && here) return { newest: null, away: null };
          throw error;
        });
        if (opening === openings) await openWith(id, newest, drafts, away);
      } catch (error) {
        if (opening === openings) set({ failed: error as Error });
      }
      return opening;
    },

    close() {
      // What is still waiting stands on this device, and goes out now if it can.
      const open = get().open;
      writeWaiting();
      openings++;
      if (open?.saving.kind === "waiting" || open?.saving.kind === "saving") {
        left.set(open.id, open);
        void save();
      }
      set({ open: null, failed: null, notice: null });
    },

    edit(says, change, gesture = "") {
      const open = get().open;
      if (!open) return;
      if (open.saving.kind === "looking") {
        set({ notice: "Nothing was changed: an old revision is to look at. Bring it back to go on from it." });
        return;
      }
      const site = typeof change === "function" ? produce(open.site, change) : change;
      if (site === open.site) return;
      step(site, says, gesture);
      take({ site, says });
    },

    undo() {
      if (get().open?.saving.kind === "looking") return;
      const did = lastStep();
      const site = did === null ? null : back();
      if (site) take({ site, says: `Undo: ${did ?? ""}`.slice(0, 200) });
    },

    takeBack(before) {
      const open = get().open;
      if (open && open.site !== before && backTo(before)) take({ site: before, says: "Break a drag off" });
    },

    redo() {
      if (get().open?.saving.kind === "looking") return;
      const says = nextStep();
      const site = says === null ? null : forth();
      if (site && says !== null) take({ site, says });
    },

    async settle(choice) {
      const open = get().open;
      if (open?.saving.kind !== "clash") return null;
      const { base, theirs } = open.saving.clash;
      if (choice === "mine" || choice === "theirs") {
        change({ saving: WAITING });
        const mine = open.site;
        if (!(await takeIn(choice === "mine" ? mine : theirs.site, theirs, mine))) {
          // The hand went on meanwhile: what it did goes the way of every change.
          saveIn(0);
          return null;
        }
        if (choice === "theirs" && get().open?.site === theirs.site) {
          // That was a step of one's own, and can be taken back as a whole.
          begin(mine);
          step(theirs.site, "Take the other version");
        }
        return null;
      }
      for (;;) {
        const mine = get().open?.site;
        if (!mine) return null;
        const merged = await merge(base, mine, theirs.site, choice);
        const now = get().open;
        if (now?.id !== open.id || now.saving.kind !== "clash") return null;
        if (now.site !== mine) continue;
        if (!merged.site || merged.clashes.length > 0) return merged;
        if (await takeIn(merged.site, theirs, mine)) return null;
      }
    },

    saveNow() {
      saveIn(0);
    },
  };
});
