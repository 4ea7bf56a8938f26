/** The sun's calendar of a head, the ways out of the sun, and the hours of all heads, which come a few at a time. */
import { core } from "../../../core/port";
import type { HeadRef, Mends, SiteFile, SunCalendar, SunHours, Units } from "../../../core/types";
import { type Asked, useAsked } from "../../../core/useAsked";

const NOBODY: HeadRef = { camera: "", head: "" };

export function useSun(
  site: SiteFile,
  head: HeadRef | null,
  target: string | null,
  year: number,
  units: Units,
): { calendar: Asked<SunCalendar>; mends: Asked<Mends> } {
  const wanted = site.place != null && head !== null;
  const calendar = useAsked(site, wanted ? JSON.stringify({ head, target, year }) : null, (of) =>
    core.sunCalendar(of, head ?? NOBODY, target, year),
  );
  // The ways take longer: the calendar is not kept waiting for them.
  const mends = useAsked(site, calendar.settled ? JSON.stringify({ head, year, units }) : null, (of) =>
    core.sunWays(of, head ?? NOBODY, year, units),
  );
  return { calendar, mends };
}

export interface HoursTold {
  hours: SunHours[];
  done: boolean;
}

/** Hours a year with the sun in each head's picture, and whether all heads are done. */
export function useSunHours(site: SiteFile, year: number): Asked<HoursTold> {
  return useAsked<HoursTold>(site, site.place == null ? null : `hours/${year}`, async (of, soFar) => {
    let told = await core.sunHours(of, year, true);
    // Who is overtaken ends: going on he would take the worker back to the state before.
    while (!told.done && soFar(told)) told = await core.sunHours(of, year, false);
    return told;
  });
}
