/** What a site file is made of: lists of things with ids, and the heading. A field that is in neither does not compile. */
import type { SiteFile, SiteHeading } from "./types";

/** The lists of some fields, with what is in each. */
type ListsOf<Fields> = {
  [
    List in keyof Fields as Required<Fields>[List] extends { id: string }[] ? List : never
  ]-?: Required<Fields>[List] extends (infer One)[] ? One : never;
};
type Wired = ListsOf<NonNullable<SiteFile["network"]>>;
/** The lists of a site file and of its network, with what is in each. */
export type Lists = ListsOf<SiteFile> & Wired;
export type ListName = keyof Lists;

const EVERY_LIST: Record<ListName, true> = {
  obstacles: true,
  lamps: true,
  private: true,
  targets: true,
  cameras: true,
  spots: true,
  readings: true,
  variants: true,
  agreements: true,
  proofs: true,
  snapshots: true,
  visits: true,
  nodes: true,
  cables: true,
  ways: true,
};
/** Those that stand within the network. */
const WIRED: Record<keyof Wired, true> = { nodes: true, cables: true, ways: true };
const isWired = (list: ListName): list is keyof Wired => list in WIRED;
export const LISTS = Object.keys(EVERY_LIST) as ListName[];

/** The rest but what never changes. */
type Heading = Exclude<keyof SiteFile, ListName | "format" | "version" | "network">;

/** The heading of a site, as a change tells it: all of it. */
export const headingOf = (site: SiteFile): SiteHeading & Record<Heading, unknown> => ({
  name: site.name,
  rules: site.rules,
  conditions: site.conditions,
  place: site.place ?? null,
  design: site.design ?? null,
  brief: site.brief ?? null,
  drawing: site.drawing ?? null,
  prices: site.prices ?? null,
});

/** Whether two states have the same heading, by identity: states share what did not change. */
export function sameHeading(a: SiteFile, b: SiteFile): boolean {
  const [one, other] = [headingOf(a), headingOf(b)];
  return (Object.keys(one) as Heading[]).every((part) => one[part] === other[part]);
}

/** A list of a site by its name; one that is left out is empty. */
export function listOf<List extends ListName>(site: SiteFile, list: List): Lists[List][] {
  const of = isWired(list) ? site.network : site;
  return ((of as Partial<Record<ListName, unknown>> | null | undefined)?.[list] ?? []) as Lists[List][];
}
