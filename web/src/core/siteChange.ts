/** What is different between two states of a site, by identity: states share what did not change. */
import { LISTS, headingOf, listOf, sameHeading } from "./lists";
import type { SiteChange, SiteFile } from "./types";

interface Named {
  id: string;
}

/** The change that leads from one state to another; null if there is none. */
export function siteChange(from: SiteFile, to: SiteFile): SiteChange | null {
  if (from === to) return null;
  const change: SiteChange = {};
  if (!sameHeading(from, to)) change.head = headingOf(to);
  for (const list of LISTS) {
    const different = listChange<Named>(listOf(from, list), listOf(to, list));
    if (different) Object.assign(change, { [list]: different });
  }
  return Object.keys(change).length > 0 ? change : null;
}

function listChange<T extends Named>(from: T[], to: T[]): { order?: string[]; put: T[] } | null {
  if (from === to) return null;
  const held = new Map(from.map((item) => [item.id, item]));
  const put = to.filter((item) => held.get(item.id) !== item);
  const sameOrder = from.length === to.length && from.every((item, place) => item.id === to[place]?.id);
  if (sameOrder) return put.length > 0 ? { put } : null;
  return { order: to.map((item) => item.id), put };
}
