/** What a site file is made of: lists of things with ids, and the heading. A field that is in neither does not compile. */
import type { SiteFile, SiteHeading } from "./types";

/** The lists of a site file, with what is in each. */
export type Lists = {
  [
    List in keyof SiteFile as Required<SiteFile>[List] extends { id: string }[] ? List : never
  ]-?: Required<SiteFile>[List] extends (infer One)[] ? One : never;
};
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
};
export const LISTS = Object.keys(EVERY_LIST) as ListName[];

/** The rest but what never changes. */
type Heading = Exclude<keyof SiteFile, ListName | "format" | "version">;

/** The heading of a site, as a change tells it: all of it. */
export const headingOf = (site: SiteFile): SiteHeading & Record<Heading, unknown> => ({
  name: site.name,
  rules: site.rules,
  conditions: site.conditions,
  place: site.place ?? null,
  design: site.design ?? null,
  brief: site.brief ?? null,
  drawing: site.drawing ?? null,
  network: site.network ?? null,
});

/** Whether two states have the same heading, by identity: states share what did not change. */
export function sameHeading(a: SiteFile, b: SiteFile): boolean {
  const [one, other] = [headingOf(a), headingOf(b)];
  return (Object.keys(one) as Heading[]).every((part) => one[part] === other[part]);
}

/** A list of a site by its name; one that is left out is empty. */
export const listOf = <List extends ListName>(site: SiteFile, list: List): Lists[List][] =>
  (site[list] ?? []) as Lists[List][];
