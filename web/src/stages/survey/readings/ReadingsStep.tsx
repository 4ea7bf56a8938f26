/** Readings: shoot at the target in hand, read the first answer, and see whether drawing and tape agree. */
import type { SiteFile } from "../../../core/types";
import type { SurveyState } from "../../../core/useSurvey";
import { useSite } from "../../../keep/store";
import { goTo, stepAddress } from "../../../ui/address";
import { Agreement } from "./Agreement";
import { ReadingLog } from "./ReadingLog";
import { Shooting } from "./Shooting";

export function ReadingsStep({ site, state, item }: { site: SiteFile; state: SurveyState; item: string | null }) {
  const id = useSite((store) => store.open?.id) ?? "";
  const targets = site.targets.filter((target) => target.shape.kind === "point");
  const spots = site.spots ?? [];
  // The address may name a target or a reading.
  const reading = site.readings?.find((r) => r.id === item);
  const wanted =
    targets.find((target) => target.id === item || target.id === reading?.from || target.id === reading?.to) ??
    targets[0];
  return (
    <section className="readings-step" aria-label="Readings">
      <div className="form-page">
        {wanted && spots.length > 0 ? (
          <Shooting
            key={wanted.id}
            site={site}
            targets={targets}
            target={wanted}
            state={state}
            go={(target) => goTo(stepAddress(id, "readings", target))}
          />
        ) : (
          <p className="hint">
            Readings go between spots and point targets: {spots.length === 0 ? "add a spot" : "add a target"} first.
          </p>
        )}
        <Agreement site={site} state={state} />
        <ReadingLog site={site} state={state} inHand={reading?.id ?? null} />
      </div>
    </section>
  );
}
