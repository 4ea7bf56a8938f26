/** The windows of this browser that have the application open: each has a name, and a lock that lasts as long as it lives. */

export const TAB: string = [...crypto.getRandomValues(new Uint8Array(8))]
  .map((byte) => byte.toString(16).padStart(2, "0"))
  .join("");

const PREFIX = "bright-angle/tab/";

/** The lock manager; without one (an old browser) each window knows itself only. */
const locks = (): LockManager | undefined => (typeof navigator === "undefined" ? undefined : navigator.locks);

/** Holds this window's lock until it is gone. */
export function liveAsTab(): void {
  void locks()?.request(PREFIX + TAB, () => new Promise(() => undefined));
}

/** The names of the windows that live. */
export async function livingTabs(): Promise<Set<string>> {
  const held = (await locks()?.query())?.held ?? [];
  const names = held.map(({ name }) => name ?? "").filter((name) => name.startsWith(PREFIX));
  return new Set([TAB, ...names.map((name) => name.slice(PREFIX.length))]);
}

/** Does something that one window at a time may do; not at all if another one is at it. */
export async function alone(what: string, work: () => Promise<void>): Promise<void> {
  const manager = locks();
  if (!manager) return work();
  await manager.request(`bright-angle/${what}`, { ifAvailable: true }, async (lock) => {
    if (lock) await work();
  });
}

/** A revision that a window got onto the server. */
export interface SavedElsewhere {
  site: string;
  revision: number;
}

/** What the windows of this browser say to each other. */
const channel = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("bright-angle/windows");
// Where windows are played by tests, listening keeps nothing running.
(channel as unknown as { unref?: () => void } | null)?.unref?.();

/** Tells the other windows that a revision stands on the server. */
export function tellWindows(saved: SavedElsewhere): void {
  channel?.postMessage(saved);
}

/** Hears of what other windows got onto the server. */
export function onSavedElsewhere(hear: (saved: SavedElsewhere) => void): void {
  channel?.addEventListener("message", (event) => hear((event as MessageEvent<SavedElsewhere>).data));
}
