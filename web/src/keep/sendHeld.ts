/**
 * Sends what stands on this device alone, of every site: edits and photos that were made while the server was away go out without
 * their site being opened again. What has to be chosen about waits for somebody who opens the site.
 */
import { create } from "zustand";
import { sendPending } from "./photoOutbox";
import { allDrafts, allPhotos } from "./shelf";
import { type Saving, useSite } from "./store";
import { TAB, alone, livingTabs } from "./tabs";

interface Held {
  /** Sites that somebody has to open, by id, and why. */
  stuck: Record<string, string>;
}

export const useHeld = create<Held>(() => ({ stuck: {} }));

/** The sites of which this device has something that no other window is at. */
export async function sitesHeld(): Promise<string[]> {
  const living = await livingTabs();
  const drafts = (await allDrafts()).filter(({ tab }) => tab === TAB || !living.has(tab));
  const photos = await allPhotos();
  return [...new Set([...drafts.map(({ id }) => id), ...photos.map(({ site }) => site)])];
}

/** Sends all of it, one window at a time, until it is called off: a site that somebody opens goes first. Answers whether something was sent. */
export async function sendHeld(callOff: AbortSignal): Promise<boolean> {
  let sent = false;
  await alone("send-held", async () => {
    for (const id of await sitesHeld()) {
      if (callOff.aborted) return;
      const came = await sendSite(id);
      if (came === "away") return;
      sent ||= came === "sent";
    }
  });
  return sent;
}

/** Why somebody has to look at a site that stands so; null if nobody has to. */
function stuckBy(saving: Saving): string | null {
  switch (saving.kind) {
    case "clash":
      return "somebody else changed the same things: open it and choose";
    case "refused":
      return saving.faults[0]?.message ?? "the server does not take it";
    case "gone":
      return "it is not on the server any more: open it and choose";
    default:
      return null;
  }
}

async function sendSite(id: string): Promise<"sent" | "stuck" | "away"> {
  const site = useSite.getState();
  const opening = await site.load(id);
  // Somebody may open a site meanwhile, this one too.
  const mine = (): boolean => useSite.getState().open?.opening === opening;
  if (!mine()) {
    const { failed } = useSite.getState();
    if (failed) tell(id, failed.message);
    return "stuck";
  }
  let saving = await atRest(opening);
  if (mine() && saving?.kind === "saved") {
    await sendPending(id);
    saving = await atRest(opening);
  }
  if (!mine() || !saving) return "stuck";
  const away = saving.kind === "away" || useSite.getState().open?.offline === true;
  site.close();
  tell(id, stuckBy(saving));
  return away ? "away" : saving.kind === "saved" ? "sent" : "stuck";
}

function tell(id: string, why: string | null): void {
  const others = Object.fromEntries(Object.entries(useHeld.getState().stuck).filter(([held]) => held !== id));
  useHeld.setState({ stuck: why === null ? others : { ...others, [id]: why } });
}

/** Waits until nothing of an opened site is on its way; null if it is closed before. */
function atRest(opening: number): Promise<Saving | null> {
  return new Promise((settle) => {
    const look = (): boolean => {
      const { open } = useSite.getState();
      const saving = open?.opening === opening ? open.saving : null;
      if (saving?.kind === "waiting" || saving?.kind === "saving") return false;
      settle(saving);
      return true;
    };
    if (look()) return;
    const leave = useSite.subscribe(() => {
      if (look()) leave();
    });
  });
}
