/** The service worker that opens the application without a network, and the news that a newer version is there. */
import { registerSW } from "virtual:pwa-register";
import { create } from "zustand";
import { useDoor } from "./door";
import { keepInstalling } from "./installing";

interface Offline {
  /** Whether the application itself stands on this device. */
  ready: boolean;
  /** Takes the newer version that has come; null while there is none. */
  renew: (() => void) | null;
}

export const useOffline = create<Offline>(() => ({
  ready:
    typeof navigator !== "undefined" && "serviceWorker" in navigator && navigator.serviceWorker.controller !== null,
  renew: null,
}));

/** Installs it. A newer version waits until somebody takes it: what is open must not lose its parts under the hand. */
export function workOffline(): void {
  if (!("serviceWorker" in navigator)) return;
  const installing = keepInstalling({
    workers: navigator.serviceWorker,
    url: "/sw.js",
    // A browser that does not trust the certificate keeps nothing for when the network is gone.
    onRefused: () => useDoor.setState({ trusted: location.protocol !== "https:" }),
  });
  const renew = registerSW({
    onOfflineReady: () => useOffline.setState({ ready: true }),
    onRegisteredSW: (_, registration) => installing.registered(registration),
    onRegisterError: installing.failed,
    onNeedRefresh: () => useOffline.setState({ renew: () => void renew(true) }),
  });
  void navigator.serviceWorker.ready.then(() => useOffline.setState({ ready: true }));
}
