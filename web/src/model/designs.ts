/** Edits of the designs that a site keeps beside the one in hand. */
import type { SiteFile, Variant } from "../core/types";
import { freshId, plain } from "./points";

/** What the design in hand is called where nobody gave it a name. */
export const IN_HAND = "Option on the plan";

/** Keeps a copy of the design in hand aside. */
export function keepAside(site: SiteFile, name: string): string {
  site.variants ??= [];
  const id = freshId("v", site.variants);
  site.variants.push({ id, name, cameras: plain(site.cameras) });
  return id;
}

export function renameDesign(site: SiteFile, id: string | null, name: string): void {
  if (id === null) site.design = name;
  const variant = site.variants?.find((held) => held.id === id);
  if (variant) variant.name = name;
}

export function removeDesign(site: SiteFile, id: string): void {
  const left = (site.variants ?? []).filter((variant) => variant.id !== id);
  if (left.length > 0) site.variants = left;
  else delete site.variants;
}

/** All designs, the one in hand first. */
export function designsOf(site: SiteFile): { id: string | null; name: string }[] {
  const aside = (site.variants ?? []).map(({ id, name }: Variant) => ({ id, name }));
  return [{ id: null, name: site.design ?? IN_HAND }, ...aside];
}

/** The site with the cameras of one of its designs. */
export function siteWith(site: SiteFile, id: string | null): SiteFile {
  const variant = site.variants?.find((held) => held.id === id);
  return variant ? { ...site, cameras: variant.cameras } : site;
}
