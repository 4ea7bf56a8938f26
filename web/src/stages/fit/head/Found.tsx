/** How it hangs: what to turn, what each promise gets now, how sure that is, and what is taken over. */
import type { Camera, CameraHead, Hangs, SiteFile } from "../../../core/types";
import { useAnswer } from "../../../core/useAsked";
import { useSite } from "../../../keep/store";
import { changeOf } from "../../../keep/things";
import { patched } from "../../../model/patch";
import { VerdictMark } from "../../../ui/VerdictMark";
import { fitAddress, goTo } from "../../../ui/address";
import { Button } from "../../../ui/controls";
import type { RealPicture } from "../../../pictures/realPicture";

export function Found({
  site,
  camera,
  head,
  found,
  real,
  settled,
}: {
  site: SiteFile;
  camera: Camera;
  head: CameraHead;
  found: Hangs;
  real: RealPicture;
  settled: boolean;
}) {
  const id = useSite((state) => state.open?.id) ?? "";
  const edit = useSite((state) => state.edit);
  const { pose } = found;
  const name = camera.heads.length > 1 ? `${camera.name} ${head.id}` : camera.name;
  const takeOver = (): void => {
    // Of this very state: the button waits until it is.
    edit(`As built: ${name}`.slice(0, 200), stamped(patched(site, found.take_over), camera.id, head.id));
  };
  const steps = useAnswer(site, { ask: "steps" }, { rest: "live", keeps: true });
  const aims = steps.value
    ?.find((one) => one.camera === camera.id)
    ?.steps.find((one) => one.aims && one.head === head.id)?.id;
  const done = (): void => {
    if (!aims) return;
    changeOf("camera", camera)("Tick a step", (held) => {
      const fitting = (held.fitting ??= {});
      const step = aims;
      fitting.done = [
        ...(fitting.done ?? []).filter((one) => one.id !== step),
        { id: step, at: new Date().toISOString() },
      ];
    });
    goTo(fitAddress(id, camera.id));
  };
  return (
    <section className="fit-found" aria-label="How it hangs">
      <ul className="fit-turns" data-testid="fit-turns">
        {found.turns.map((turn) => (
          <li key={turn.kind} data-kind={turn.kind} data-by={turn.by} className={turn.enough ? "fit-enough" : "fit-do"}>
            {turn.says}
          </li>
        ))}
      </ul>
      <ul className="fit-promises" aria-label="What each promise gets now">
        {found.promises.map((promise) => (
          <li key={promise.target}>
            <VerdictMark verdict={promise.now} size={18} /> {promise.name}
            <span className="fine">
              {" "}
              {promise.now}
              {promise.now === promise.designed ? "" : `, ${promise.designed} by the plan`}
              {promise.serves ? "" : ", another camera keeps it"}
            </span>
          </li>
        ))}
        {found.promises.length === 0 && <li className="hint">No promise hangs on this head.</li>}
      </ul>
      <p
        className={found.done ? "fit-verdict fit-verdict-done" : "fit-verdict"}
        data-testid="fit-verdict"
        data-done={found.done}
      >
        {found.done ? "Every promise of it is as planned." : "Turn it, take the picture again, and click again."}
      </p>
      <p className="fine figure" data-testid="fit-pose">
        It looks to {pose.pan_deg.toFixed(1)}° ± {(2 * pose.sigma.pan_deg).toFixed(1)}, {pose.tilt_deg.toFixed(1)}° down
        ± {(2 * pose.sigma.tilt_deg).toFixed(1)}, rolled {pose.roll_deg.toFixed(1)}° ±{" "}
        {(2 * pose.sigma.roll_deg).toFixed(1)}, {pose.focal_mm.toFixed(2)} mm ± {(2 * pose.sigma.focal_mm).toFixed(2)};
        clicks are off by {pose.rms_px.toFixed(1)} px.
        {pose.settled ? "" : " It did not come to rest: look at the clicks."}
      </p>
      <div className="fit-thumb">
        <Button type="primary" size="large" disabled={!settled || !found.done} onClick={done}>
          Aimed
        </Button>
        <Button size="large" disabled={!settled} onClick={takeOver}>
          Take it over as built
        </Button>
      </div>
      <p className="fine">
        Taken over, plan, verdicts and masks are those of what hangs there; the design stays beside it as an option.
        {real.held?.foundTo ? ` The crosses were found without clicks: ±${real.held.foundTo.toFixed(1)}° more.` : ""}
        {real.held?.corners ? " A photo of a monitor is straight to a few pixels only." : ""}
      </p>
    </section>
  );
}

/** What was taken over, with when. */
function stamped(site: SiteFile, camera: string, head: string): SiteFile {
  const at = new Date().toISOString();
  const of = (one: CameraHead): CameraHead =>
    one.id === head && one.as_built ? { ...one, as_built: { ...one.as_built, at } } : one;
  return {
    ...site,
    cameras: site.cameras.map((held) => (held.id === camera ? { ...held, heads: held.heads.map(of) } : held)),
  };
}
