/** Whoever installs the service worker, and tries again: one asset that does not come, and a browser drops the whole of it until the next visit. */

/** Waited before the first of the next tries; each further one waits twice as long, and no longer than the last. */
const FIRST_MS = 2_000;
const LONGEST_MS = 60_000;

export interface Installing {
  workers: Pick<ServiceWorkerContainer, "register">;
  /** The worker's own address. */
  url: string;
  /** The browser refuses it for good, as one does that does not trust the server's certificate. */
  onRefused: () => void;
  /** Calls later. */
  later?: (act: () => void, ms: number) => unknown;
}

/** Follows a first installing until a worker stands; every other outcome is tried again. */
export function keepInstalling(installing: Installing): {
  /** What came of a registering. */
  registered: (registration: ServiceWorkerRegistration | undefined) => void;
  failed: (error: unknown) => void;
} {
  const { workers, url, onRefused, later = setTimeout } = installing;
  let wait = FIRST_MS;
  const again = (): void => {
    later(() => void workers.register(url).then(registered, failed), wait);
    wait = Math.min(2 * wait, LONGEST_MS);
  };
  const failed = (error: unknown): void => {
    // Anything else is a server that did not answer, or not with the worker.
    if (error instanceof DOMException && error.name === "SecurityError") onRefused();
    else again();
  };
  const registered = (registration: ServiceWorkerRegistration | undefined): void => {
    // One that stands goes on standing, whatever becomes of a newer one. Where workers are blocked there is none, and never will be.
    if (!registration || registration.active) return;
    const worker = registration.installing;
    if (!worker) {
      if (!registration.waiting) again();
      return;
    }
    worker.addEventListener("statechange", () => {
      if (worker.state === "redundant" && !registration.active && !registration.waiting) again();
    });
  };
  return { registered, failed };
}
