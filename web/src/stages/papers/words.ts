/** Words and figures of the papers. */
import type { Bill, Fewest, SiteFile } from "../../core/types";

/** An amount as somebody types it: decimals, not negative. */
export const isAmount = (text: string): boolean => /^\d{1,12}(\.\d{1,6})?$/.test(text);
export const NOT_AN_AMOUNT = "an amount such as 12.50, not negative";
export const isCurrency = (text: string): boolean => /^[A-Z]{3}$/.test(text);
export const isDay = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text));

/** What something costs, with its money. What is unknown is never nothing. */
export function costs(bill: Bill): string {
  if (bill.nothing_known) return "not priced yet";
  const money = bill.currency ? `${bill.currency} ` : "";
  return bill.unknown.length > 0 ? `${money}${bill.total} and what is not priced yet` : `${money}${bill.total}`;
}

export const cameras = (count: number): string => `${count} ${count === 1 ? "camera" : "cameras"}`;

export const FEWEST: Record<Fewest["by"], { title: string; says: string }> = {
  count: { title: "Fewest cameras", says: "as few as keep every promise that can be kept" },
  price: { title: "Cheapest", says: "what is bought costs least" },
  trips: { title: "Fewest trips up the ladder", says: "as little as can be is put up anew" },
  back_up: { title: "Best back-up", says: "as many promises as can be are kept twice" },
};

export const nameOfTarget = (site: SiteFile, id: string): string =>
  site.targets.find((target) => target.id === id)?.name ?? id;
export const nameOfCamera = (site: SiteFile, id: string): string =>
  site.cameras.find((camera) => camera.id === id)?.name ?? id.toUpperCase();

/** Today, as it is written in the file. */
export const today = (): string => new Date().toISOString().slice(0, 10);
