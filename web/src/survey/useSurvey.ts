/** Where the survey stands: asked again whenever the site changes, told with the site that it is of. */
import { useEffect, useState } from "react";
import type { Engine } from "../engine/engine";
import { Away, Refused } from "../engine/http";
import type { Fault, SiteFile, Survey } from "../engine/types";

/** How long typing must rest before the survey is asked for, ms. */
const REST = 120;
const RETRY = 2000;

export interface SurveyState {
  /** The survey of the site as it is now; null while there is none. */
  survey: Survey | null;
  away: boolean;
  faults: Fault[] | null;
}

export function useSurvey(engine: Engine, site: SiteFile): SurveyState {
  const [answer, setAnswer] = useState<SurveyState & { site: SiteFile | null }>({ site: null, survey: null, away: false, faults: null });
  const [tries, setTries] = useState(0);
  useEffect(() => {
    const control = new AbortController();
    let retry = 0;
    const timer = window.setTimeout(() => {
      engine
        .survey(site, control.signal)
        .then((survey) => setAnswer({ site, survey, away: false, faults: null }))
        .catch((error: unknown) => {
          if (control.signal.aborted) return;
          if (error instanceof Refused) setAnswer({ site, survey: null, away: false, faults: error.faults });
          else if (error instanceof Away) {
            setAnswer({ site, survey: null, away: true, faults: null });
            retry = window.setTimeout(() => setTries((n) => n + 1), RETRY);
          }
        });
    }, REST);
    return () => {
      control.abort();
      window.clearTimeout(timer);
      window.clearTimeout(retry);
    };
  }, [engine, site, tries]);
  return answer.site === site ? answer : { survey: null, away: answer.away, faults: null };
}
