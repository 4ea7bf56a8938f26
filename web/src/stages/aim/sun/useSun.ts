/** The sun's calendar of a head, the ways out of the sun, and the hours of all heads, which come a few at a time. */
import { ask } from "../../../core/port";
import type { HeadRef, Mends, SiteFile, SunCalendar, SunHours, Units } from "../../../core/types";
import { type Asked, useAnswer, useAsked } from "../../../core/useAsked";

export function useSun(
  site: SiteFile,
  head: HeadRef | null,
  target: string | null,
  year: number,
  units: Units,
): { calendar: Asked<SunCalendar>; mends: Asked<Mends> } {
  const wanted = site.place == null ? null : head;
  const calendar = useAnswer(site, wanted && { ask: "sun_calendar", head: wanted, target, year }, { by: "almanac" });
  // The ways take longer: the calendar is not kept waiting for them.
  const then = calendar.settled ? wanted : null;
  const mends = useAnswer(site, then && { ask: "sun_ways", head: then, year, units }, { by: "almanac" });
  return { calendar, mends };
}

export interface HoursTold {
  hours: SunHours[];
  done: boolean;
}

/** Hours a year with the sun in each head's picture, and whether all heads are done. */
export function useSunHours(site: SiteFile, year: number): Asked<HoursTold> {
  return useAsked<HoursTold>(site, site.place == null ? null : `hours/${year}`, async (of, soFar) => {
    const hours: SunHours[] = [];
    for (let place = 0; ; place++) {
      const { of_head, heads } = await ask(of, { ask: "sun_hours", year, place }, "almanac");
      if (of_head) hours.push(of_head);
      const told = { hours: [...hours], done: hours.length >= heads };
      // Who is overtaken ends: going on he would take the worker back to the state before.
      if (told.done || !soFar(told)) return told;
    }
  });
}
