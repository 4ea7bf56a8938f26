/** The card of a camera: what to bring, then one step after the other, for one thumb. It goes on where it stopped. */
import { useEffect, useRef } from "react";
import type { Camera, SiteFile, FitStep, StepHow, Steps } from "../../../core/types";
import { useAnswer } from "../../../core/useAsked";
import { useSite } from "../../../keep/store";
import { changeOf } from "../../../keep/things";
import { Told } from "../../../ui/Told";
import { fitAddress, stageAddress } from "../../../ui/address";
import { Button } from "../../../ui/controls";
import { DeviceFields } from "../../../ui/DeviceFields";
import { Photos } from "../../../ui/photos/Photos";
import { PHASES, PHASE_WORDS, STATE_WORDS } from "../words";
import { Expected } from "./Expected";

export function CameraCard({
  site,
  camera,
  steps,
  settled,
}: {
  site: SiteFile;
  camera: Camera;
  steps: Steps | null;
  settled: boolean;
}) {
  const id = useSite((state) => state.open?.id) ?? "";
  const away = useSite((state) => state.open?.saving.kind === "away");
  const spot = site.spots?.find((one) => one.id === camera.spot);
  const order = site.cameras.filter(({ existing }) => existing !== "goes");
  const next = order[order.findIndex((one) => one.id === camera.id) + 1];
  return (
    <main className="fit-card" data-settled={settled}>
      <header className="fit-card-head">
        <a href={stageAddress(id, "fit")} className="no-print">
          ‹ All
        </a>
        <h1>{camera.name}</h1>
        <span className="fit-card-state" data-testid="fit-state">
          {steps ? STATE_WORDS[steps.state] : "…"}
        </span>
        {next && (
          <a href={fitAddress(id, next.id)} className="no-print fit-next">
            {next.name} ›
          </a>
        )}
      </header>
      {away && (
        <div className="notice" role="status">
          The server does not answer. Go on: ticks and photos stay on this device and are sent when it is back.
        </div>
      )}
      <p>
        {camera.model.name}
        {spot ? `, ${spot.name}` : ""}, <span className="figure">{camera.height_m.toFixed(1)} m</span> up
      </p>
      {camera.existing === "goes" && <p className="hint">It is taken down, not put up.</p>}
      {steps && steps.state !== "on_the_bench" && <BenchQueue site={site} camera={camera} id={id} />}
      {steps && <NextStep site={site} camera={camera} steps={steps} settled={settled} />}
      {spot?.photos?.[0] && (
        <img className="fit-spot-photo" src={`/api/pictures/${spot.photos[0].picture}`} alt={`Photo of ${spot.name}`} />
      )}
      {steps && (
        <details className="fit-bring" open={steps.state === "on_the_bench" || steps.state === "ready"}>
          <summary>Bring</summary>
          <ul>
            {steps.bring.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </details>
      )}
      {camera.heads.map((head) => (
        <Expected key={head.id} site={site} camera={camera} head={head} />
      ))}
      {steps && <AllSteps site={site} camera={camera} steps={steps} />}
      {steps?.steps.find((one) => one.id === steps.next)?.photo !== true && (
        <Photos owner={{ kind: "camera", id: camera.id }} photos={camera.fitting?.photos ?? []} name={camera.name} />
      )}
      <DeviceFields kind="camera" thing={camera} />
    </main>
  );
}

/** The camera that is next on the bench: they are all set up before the ladder. */
function BenchQueue({ site, camera, id }: { site: SiteFile; camera: Camera; id: string }) {
  const { value } = useAnswer(site, { ask: "steps" }, { rest: "live", keeps: true });
  const next = value?.find((one) => one.state === "on_the_bench" && one.camera !== camera.id);
  return next ? (
    <a className="fit-queue no-print" href={fitAddress(id, next.camera)}>
      Next on the bench: {next.name}
    </a>
  ) : null;
}

/** Notes what became of a step, or that it is still to be done. */
function note(camera: Camera, step: FitStep, how: StepHow | null): void {
  const says =
    how === null
      ? "Take a tick back"
      : how === "later"
        ? "Leave a step for later"
        : how === "left_out"
          ? "Leave a step out"
          : "Tick a step";
  changeOf("camera", camera)(says, (held) => {
    const fitting = (held.fitting ??= {});
    const others = (fitting.done ?? []).filter((one) => one.id !== step.id);
    // What is ticked here is what stands on the network sheet.
    if (step.id === "password") held.device = { ...held.device, password_changed: how === "done" };
    fitting.done =
      how === null
        ? others
        : [...others, { id: step.id, at: new Date().toISOString(), ...(how === "done" ? {} : { how }) }];
  });
}

/** The step to go on with, big enough for a glove. */
function NextStep({
  site,
  camera,
  steps,
  settled,
}: {
  site: SiteFile;
  camera: Camera;
  steps: Steps;
  settled: boolean;
}) {
  const id = useSite((state) => state.open?.id) ?? "";
  const step = steps.steps.find((one) => one.id === steps.next);
  const face = useRef<HTMLElement>(null);
  const asked = step?.how === "later";
  const at = step ? steps.steps.filter((one) => one.phase === step.phase) : [];
  useEffect(() => {
    face.current?.scrollIntoView({ block: "nearest" });
  }, [step?.id]);
  if (!step)
    return (
      <section className="fit-step fit-step-done" data-testid="fit-done">
        <h2>{camera.name} is closed</h2>
        <p>Nothing is left to do at it. Look at it again by night.</p>
      </section>
    );
  const head = camera.heads.find((one) => one.id === step.head);
  return (
    <section ref={face} className="fit-step" data-testid="fit-step" data-step={step.id} aria-label="Next step">
      <h2>
        {PHASE_WORDS[step.phase]}{" "}
        <span className="figure">
          {at.findIndex((one) => one.id === step.id) + 1} of {at.length}
        </span>
      </h2>
      {asked && <p className="fit-asked">Left for later. Done now?</p>}
      <Told settled={settled}>
        <p className="fit-says">{step.says}</p>
      </Told>
      {step.caution && <p className="caution fit-caution">{step.caution}</p>}
      {step.aims && head && (
        <Button block size="large" href={fitAddress(id, camera.id, head.id)}>
          Aim by its picture
        </Button>
      )}
      {step.photo && (
        <Photos owner={{ kind: "camera", id: camera.id }} photos={camera.fitting?.photos ?? []} name={camera.name} />
      )}
      <div className="fit-thumb">
        <Button type="primary" size="large" onClick={() => note(camera, step, "done")}>
          Done
        </Button>
        <Button size="large" onClick={() => note(camera, step, asked ? "left_out" : "later")}>
          {asked ? "Leave it out" : "Later"}
        </Button>
      </div>
      <p className="fine">
        {steps.left} left at {camera.name}
        {site.cameras.length > 1 ? "" : ", the only camera"}
        {steps.later.length > 0 ? `, ${steps.later.length} of them for later` : ""}
      </p>
    </section>
  );
}

const WORDS: Record<StepHow, string> = { done: "done", later: "for later", left_out: "left out" };

function AllSteps({ camera, steps }: { site: SiteFile; camera: Camera; steps: Steps }) {
  return (
    <details className="fit-all">
      <summary>All steps</summary>
      {PHASES.map((phase) => {
        const here = steps.steps.filter((step) => step.phase === phase);
        if (here.length === 0) return null;
        return (
          <section key={phase}>
            <h3>{PHASE_WORDS[phase]}</h3>
            <ol>
              {here.map((step) => (
                <li key={step.id} data-how={step.how ?? "open"}>
                  <button
                    type="button"
                    aria-pressed={step.how !== null}
                    onClick={() => note(camera, step, step.how === null ? "done" : null)}
                  >
                    <span className="fit-tick" aria-hidden>
                      {step.how === "done" ? "✓" : step.how === null ? "○" : "–"}
                    </span>
                    <span>
                      {step.says}
                      <span className="fine">
                        {" "}
                        {step.how && WORDS[step.how]}
                        {step.at &&
                          `, ${new Date(step.at).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" })}`}
                      </span>
                      {step.caution && <span className="caution fit-caution">{step.caution}</span>}
                    </span>
                  </button>
                </li>
              ))}
            </ol>
          </section>
        );
      })}
    </details>
  );
}
