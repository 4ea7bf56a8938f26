/** The sun's calendar of a head, the ways out of the sun, and the hours of all heads, which come a few at a time. */
import { useEffect, useState } from "react";
import { onceAtRest } from "../../../core/hand";
import { core } from "../../../core/port";
import type { HeadRef, Mends, SiteFile, SunCalendar, SunHours, Units } from "../../../core/types";

/** How long the site must rest before it is asked, ms. */
const REST = 200;

export interface SunShown {
  site: SiteFile;
  /** The head that it is of, as JSON. */
  of: string;
  calendar: SunCalendar;
  mends: Mends | null;
}

/** Where it cannot be told: why. */
export type Sun = { kind: "none" } | { kind: "refused"; says: string } | ({ kind: "told" } & SunShown);

export function useSun(site: SiteFile, head: HeadRef | null, target: string | null, year: number, units: Units): Sun {
  const [sun, setSun] = useState<Sun>({ kind: "none" });
  const of = JSON.stringify(head);
  const wanted = site.place != null && head !== null;
  useEffect(() => {
    if (!wanted) return;
    let current = true;
    const ref = JSON.parse(of) as HeadRef;
    const callOff = onceAtRest(REST, () => {
      core
        .sunCalendar(site, ref, target, year)
        .then((calendar) => {
          if (!current) return;
          setSun({ kind: "told", site, of, calendar, mends: null });
          return core.sunWays(site, ref, year, units).then((mends) => {
            if (current) setSun({ kind: "told", site, of, calendar, mends });
          });
        })
        .catch((thrown: unknown) => {
          if (current) setSun({ kind: "refused", says: thrown instanceof Error ? thrown.message : String(thrown) });
        });
    });
    return () => {
      current = false;
      callOff();
    };
  }, [site, of, wanted, target, year, units]);
  return wanted ? sun : { kind: "none" };
}

/** Hours a year with the sun in each head's picture, and how many heads are done. */
export function useSunHours(
  site: SiteFile,
  year: number,
  wanted: boolean,
): { hours: SunHours[]; done: boolean } | null {
  const [told, setTold] = useState<{ site: SiteFile; hours: SunHours[]; done: boolean } | null>(null);
  const known = wanted && site.place != null;
  useEffect(() => {
    if (!known) return;
    let current = true;
    const more = async (begin: boolean): Promise<void> => {
      const got = await core.sunHours(site, year, begin);
      if (!current) return;
      setTold({ site, ...got });
      if (!got.done) await more(false);
    };
    const callOff = onceAtRest(REST, () => void more(true).catch(() => undefined));
    return () => {
      current = false;
      callOff();
    };
  }, [site, year, known]);
  return told && told.site === site ? told : null;
}
