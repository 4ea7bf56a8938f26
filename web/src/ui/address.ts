/** Addresses of the places in the application, kept after the `#`. */

/** A stage of the work. */
export type Stage = "survey" | "aim" | "wire" | "fit" | "prove" | "papers";
/** A part of proving. */
export type ProveStep = "walk" | "pictures" | "upkeep" | "trainer";
/** A part of the papers. */
export type PaperStep = "options" | "fewest" | "prices" | "quote" | "agree" | "handover";
export const STEPS = ["brief", "drawing", "spots", "targets", "readings", "lines", "sheet"] as const;
export type Step = (typeof STEPS)[number];

export const siteAddress = (id: string): string => `#/site/${id}`;
export const stageAddress = (id: string, stage: Stage): string =>
  stage === "aim" ? siteAddress(id) : `${siteAddress(id)}/${stage}`;
export const stepAddress = (id: string, step: Step, item?: string | null): string =>
  `${siteAddress(id)}/survey/${step}${item ? `/${item}` : ""}`;

/** The sheet of all heads, or the aiming sheet of one by its key. */
export const cardsAddress = (id: string, head?: string): string =>
  `${siteAddress(id)}/cards${head ? `/${encodeURIComponent(head)}` : ""}`;

/** What a plate camera, by the key of its head, is set to on the first evening. */
export const settingsAddress = (id: string, head: string): string =>
  `${siteAddress(id)}/settings/${encodeURIComponent(head)}`;

/** The card of a camera on the stage Fit, or the page on which one of its heads is aimed by its picture. */
export const fitAddress = (id: string, camera?: string, head?: string): string =>
  [stageAddress(id, "fit"), camera, head]
    .filter((part) => part !== undefined)
    .map((part, at) => (at === 0 ? part : encodeURIComponent(part)))
    .join("/");

/** A part of proving, and the thing in hand there. */
export const proveAddress = (id: string, step: ProveStep, item?: string): string =>
  `${stageAddress(id, "prove")}/${step}${item === undefined ? "" : `/${encodeURIComponent(item)}`}`;

/** A part of the papers. */
export const paperAddress = (id: string, step: PaperStep): string => `${stageAddress(id, "papers")}/${step}`;

/** The cameras that the firm sells. */
export const OWN_CAMERAS = "#/cameras";

/** Phones that are paired, and how one is. */
export const PHONES = "#/phones";

export const revisionAddress = (id: string, number: number): string => `${siteAddress(id)}/revision/${number}`;

export function goTo(address: string): void {
  window.location.hash = address;
}
