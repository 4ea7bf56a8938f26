/** Whether a worker lives: it holds a lock as long as it does, however it ends, and a page that waits for that lock hears of it. */

const PAGE = [...crypto.getRandomValues(new Uint8Array(8))].map((byte) => byte.toString(16)).join("");
let lives = 0;

/** The name of a lock for another worker. */
export const nextLife = (): string => `bright-angle/worker/${PAGE}/${++lives}`;

/** In the worker: takes the lock for good; answers false where there are no locks. */
export function hold(life: string): Promise<boolean> {
  const locks = (navigator as { locks?: LockManager }).locks;
  if (!locks) return Promise.resolve(false);
  return new Promise((held) => {
    void locks.request(life, () => {
      held(true);
      return new Promise(() => undefined);
    });
  });
}

/** On the page, once the worker holds it: does something when the worker ends, unless it is called off before. */
export function onEnd(life: string, callOff: AbortSignal, ended: () => void): void {
  navigator.locks
    .request(life, { signal: callOff }, () => undefined)
    .then(
      () => callOff.aborted || ended(),
      () => undefined,
    );
}
