/** One line a camera, written where one stands: what must be seen, from where, how far; then a finished camera is taken. */
import { Button, Select } from "antd";
import { useState } from "react";
import type { SiteFile, Target } from "../../../core/types";
import { useSite } from "../../../keep/store";
import { byImportance, isAimedAt, readingOf } from "../../../model/lines";
import { middle } from "../../../model/lookups";
import { goTo, stepAddress } from "../../../ui/address";
import { UsualTargets } from "../walk/UsualTargets";
import { plainTask } from "../walk/plainTasks";
import { Distance } from "./Distance";
import { Lines } from "./Lines";
import { Taken } from "./Taken";
import "./lines.css";

/** A spot farther off is none that this target is seen from, m. */
const FAR_M = 60;

export function LinesStep({ site, item }: { site: SiteFile; item: string | null }) {
  const id = useSite((state) => state.open?.id) ?? "";
  const points = byImportance(site.targets.filter((target) => target.shape.kind === "point"));
  const target =
    points.find((known) => known.id === item) ?? points.find((known) => !isAimedAt(site, known)) ?? points[0];
  const go = (to: string): void => goTo(stepAddress(id, "lines", to));
  const next = (after: Target): void => {
    // As it stands once the camera is taken.
    const now = useSite.getState().open?.site ?? site;
    const left = byImportance(now.targets).find(
      (known) => known.shape.kind === "point" && known.id !== after.id && !isAimedAt(now, known),
    );
    go((left ?? after).id);
  };
  return (
    <section className="form-page lines" aria-label="Cameras">
      {target ? (
        <Line
          key={target.id}
          site={site}
          target={target}
          place={points.indexOf(target)}
          points={points}
          go={go}
          next={() => next(target)}
        />
      ) : (
        <>
          <h1>Cameras</h1>
          <p className="hint">A camera is taken for a target: tick what must be seen, or add it on the plan.</p>
          <UsualTargets site={site} />
          <Button size="large" onClick={() => goTo(stepAddress(id, site.brief?.kind ? "targets" : "brief"))}>
            {site.brief?.kind ? "Add a target on the plan" : "Say what kind of site it is"}
          </Button>
        </>
      )}
      <Taken site={site} go={go} />
    </section>
  );
}

interface LineProps {
  site: SiteFile;
  target: Target;
  place: number;
  points: Target[];
  go(target: string): void;
  next(): void;
}

/** The spot that a target is seen from, if nobody says otherwise: measured to it, or near to it. */
function usualSpot(site: SiteFile, target: Target): string | null {
  const spots = site.spots ?? [];
  const measured = spots.find((spot) => readingOf(site, target, spot));
  if (measured) return measured.id;
  // Without a plan nobody has said where anything is: what is near nobody knows.
  if (!site.drawing && (site.obstacles ?? []).length === 0) return null;
  const [x, y] = middle(target);
  const far = ({ position: [sx = 0, sy = 0] }: { position: number[] }): number => Math.hypot(sx - x, sy - y);
  const [nearest] = [...spots].sort((a, b) => far(a) - far(b));
  return nearest && far(nearest) < FAR_M ? nearest.id : null;
}

function Line({ site, target, place, points, go, next }: LineProps) {
  const [chosen, setChosen] = useState<string | null | undefined>(undefined);
  // Called near enough for a wide lens, from this spot.
  const [near, setNear] = useState<string | null>(null);
  const spots = site.spots ?? [];
  const wanted = chosen === undefined ? usualSpot(site, target) : chosen;
  const spot = spots.find((known) => known.id === wanted) ?? null;
  const reading = spot ? readingOf(site, target, spot) : undefined;
  const turn = (by: number): void => {
    const to = points[(place + by + points.length) % points.length];
    if (to) go(to.id);
  };
  return (
    <>
      <header className="line-head">
        <Button size="large" aria-label="Target before" disabled={points.length < 2} onClick={() => turn(-1)}>
          ‹
        </Button>
        <div>
          <p className="fine">
            Target {place + 1} of {points.length} · {plainTask(target)}
          </p>
          <h1>{target.name}</h1>
        </div>
        <Button size="large" aria-label="Next target" disabled={points.length < 2} onClick={() => turn(1)}>
          ›
        </Button>
      </header>
      {spots.length > 0 && (
        <label className="line-from">
          seen from
          <Select
            aria-label="Spot for the camera"
            size="large"
            value={spot?.id ?? ""}
            onChange={(value) => setChosen(value === "" ? null : value)}
            options={[...spots.map(({ id, name }) => ({ value: id, label: name })), { value: "", label: "A new spot" }]}
          />
        </label>
      )}
      <Distance
        key={`${target.id}/${spot?.id ?? "new"}`}
        target={target}
        from={spot}
        reading={reading}
        near={near !== null && near === spot?.id}
        onSpot={setChosen}
        onNear={(on) => {
          setChosen(on);
          setNear(on);
        }}
      />
      {spot && (reading || near === spot.id) && (
        <Lines site={site} target={target} spot={spot} near={!reading} taken={next} />
      )}
    </>
  );
}
