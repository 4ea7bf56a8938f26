/** Edits of readings. */
import type { Reading, SiteFile } from "../core/types";

/** Puts a reading that the core made into the site, in place of the one with its id. */
export function putReading(site: SiteFile, reading: Reading): void {
  site.readings ??= [];
  const place = site.readings.findIndex((held) => held.id === reading.id);
  if (place < 0) site.readings.push(reading);
  else site.readings[place] = reading;
}

export function removeReading(site: SiteFile, id: string): void {
  site.readings = (site.readings ?? []).filter((reading) => reading.id !== id);
}

/** What a spot or target is called. */
export const nameOf = (site: SiteFile, id: string): string =>
  site.spots?.find((spot) => spot.id === id)?.name ?? site.targets.find((target) => target.id === id)?.name ?? id;
