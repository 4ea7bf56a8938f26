/** Where in the application one is, kept in the address after the `#`. */
import { useSyncExternalStore } from "react";

const listen = (changed: () => void): (() => void) => {
  window.addEventListener("hashchange", changed);
  return () => window.removeEventListener("hashchange", changed);
};

/** The id of the open site, or null for the list of sites. */
export function useSiteInAddress(): string | null {
  const hash = useSyncExternalStore(listen, () => window.location.hash);
  return /^#\/site\/([0-9a-f-]{36})$/.exec(hash)?.[1] ?? null;
}

export const siteAddress = (id: string): string => `#/site/${id}`;

export function goTo(address: string): void {
  window.location.hash = address;
}
