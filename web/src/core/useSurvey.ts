/** Where the survey stands: asked again whenever the site changes, told only with the site that it is of. */
import { useEffect, useMemo, useState } from "react";
import { Fallen, Refused } from "./errors";
import { Latest } from "./latest";
import { core } from "./port";
import type { Fault, SiteFile, Survey } from "./types";

export interface SurveyState {
  /** The survey of the site as it is now; null while there is none. */
  survey: Survey | null;
  faults: Fault[] | null;
}

async function surveyOf(site: SiteFile): Promise<SurveyState> {
  try {
    return { survey: await core.survey(site), faults: null };
  } catch (error) {
    if (error instanceof Fallen) throw error;
    return { survey: null, faults: error instanceof Refused ? error.faults : [{ path: "", message: String(error) }] };
  }
}

export function useSurvey(site: SiteFile): SurveyState {
  const [told, setTold] = useState<{ site: SiteFile; state: SurveyState } | null>(null);
  const runner = useMemo(
    () => new Latest<SiteFile, SurveyState>(surveyOf, (of, state) => setTold({ site: of, state })),
    [],
  );
  useEffect(() => () => runner.stop(), [runner]);
  useEffect(() => runner.want(site), [runner, site]);
  return told?.site === site ? told.state : { survey: null, faults: null };
}
