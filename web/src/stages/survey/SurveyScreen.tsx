/** The walk around the site: brief, drawing, spots, targets, readings, and what is left before one leaves. */
import { useEffect, useRef } from "react";
import type { SiteFile } from "../../core/types";
import { type SurveyState, useSurvey } from "../../core/useSurvey";
import { useSite } from "../../keep/store";
import { faultInWords } from "../../ui/place";
import { STEPS, type Step, stepAddress } from "../../ui/address";
import { BeforeYouLeave } from "./BeforeYouLeave";
import { BriefStep } from "./brief/BriefStep";
import { DrawingStep } from "./drawing/DrawingStep";
import { LinesStep } from "./lines/LinesStep";
import { ReadingsStep } from "./readings/ReadingsStep";
import { SheetStep } from "./sheet/SheetStep";
import { SpotsStep } from "./walk/SpotsStep";
import { TargetsStep } from "./walk/TargetsStep";
import "./survey.css";

const WORDS: Record<Step, string> = {
  brief: "Brief",
  drawing: "Drawing",
  spots: "Spots",
  targets: "Targets",
  readings: "Readings",
  lines: "Cameras",
  sheet: "Sheet",
};

export function SurveyScreen({ step: wanted, item }: { step: string | null; item: string | null }) {
  const site = useSite((state) => state.open?.site) as SiteFile;
  const id = useSite((state) => state.open?.id) as string;
  const away = useSite((state) => state.open?.saving.kind === "away");
  const state = useSurvey(site);
  const step = STEPS.find((known) => known === wanted) ?? "brief";
  useEffect(() => {
    window.scrollTo(0, 0);
  }, [step]);
  return (
    <div className="survey">
      <nav className="steps" aria-label="Steps of the survey">
        {STEPS.map((name) => (
          <StepLink key={name} id={id} name={name} here={name === step} state={state} />
        ))}
      </nav>
      {away && (
        <div className="notice" role="status">
          The server does not answer. Go on: what you enter stays on this device and is sent when it is back. The
          rangefinder waits.
        </div>
      )}
      {state.faults && (
        <div className="notice notice-bad" role="alert">
          This makes no sense together: {state.faults[0] && faultInWords(state.faults[0], site)}. Undo takes it back.
        </div>
      )}
      <main className="survey-step">
        {step === "brief" && <BriefStep site={site} />}
        {step === "drawing" && <DrawingStep site={site} state={state} />}
        {step === "spots" && <SpotsStep site={site} item={item} />}
        {step === "targets" && <TargetsStep site={site} item={item} />}
        {step === "readings" && <ReadingsStep site={site} state={state} item={item} />}
        {step === "lines" && <LinesStep key={item} site={site} item={item} />}
        {step === "sheet" && <SheetStep site={site} state={state} />}
      </main>
      <BeforeYouLeave id={id} state={state} />
    </div>
  );
}

function StepLink({ id, name, here, state }: { id: string; name: Step; here: boolean; state: SurveyState }) {
  const link = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    if (here) link.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [here]);
  const left = state.survey?.before_you_leave.filter((todo) => todo.step === name).length ?? 0;
  return (
    <a ref={link} href={stepAddress(id, name)} aria-current={here ? "step" : undefined} className="step">
      {WORDS[name]}
      {left > 0 && (
        <span className="step-left figure" aria-label={`${left} left`}>
          {left}
        </span>
      )}
    </a>
  );
}
