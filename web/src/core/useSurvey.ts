/** Where the survey stands: asked again whenever the site changes, told only with the site that it is of. */
import type { Fault, SiteFile, Survey } from "./types";
import { useAnswer } from "./useAsked";

export interface SurveyState {
  /** The survey of the site as it is now; null while there is none. */
  survey: Survey | null;
  faults: Fault[] | null;
}

export function useSurvey(site: SiteFile): SurveyState {
  const { value, settled, faults } = useAnswer(site, { ask: "survey" }, { rest: "live" });
  return { survey: settled ? value : null, faults };
}
