/** Where in the application one is, kept in the address after the `#`. */
import { useMemo, useSyncExternalStore } from "react";

const listen = (changed: () => void): (() => void) => {
  window.addEventListener("hashchange", changed);
  return () => window.removeEventListener("hashchange", changed);
};

export type Stage = "survey" | "aim";
export const STEPS = ["brief", "drawing", "spots", "targets", "readings", "sheet"] as const;
export type Step = (typeof STEPS)[number];

export interface Place {
  site: string;
  stage: Stage;
  /** Of the survey. */
  step: Step;
  /** The spot, target or reading that it is about. */
  item: string | null;
}

const PLACE = /^#\/site\/([0-9a-f-]{36})(?:\/survey(?:\/([a-z]+)(?:\/([\w.-]+))?)?)?$/;

/** Where one is, or null for the list of sites. */
export function usePlaceInAddress(): Place | null {
  const hash = useSyncExternalStore(listen, () => window.location.hash);
  return useMemo(() => {
    const match = PLACE.exec(hash);
    if (!match?.[1]) return null;
    const step = STEPS.find((known) => known === match[2]) ?? "brief";
    return { site: match[1], stage: hash.includes("/survey") ? "survey" : "aim", step, item: match[3] ?? null };
  }, [hash]);
}

export const siteAddress = (id: string): string => `#/site/${id}`;
export const stageAddress = (id: string, stage: Stage): string => (stage === "aim" ? siteAddress(id) : `${siteAddress(id)}/survey`);
export const stepAddress = (id: string, step: Step, item?: string | null): string => `${siteAddress(id)}/survey/${step}${item ? `/${item}` : ""}`;

export function goTo(address: string): void {
  window.location.hash = address;
}
