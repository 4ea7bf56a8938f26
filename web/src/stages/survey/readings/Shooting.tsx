/** Standing at a target with the laser: one tap a shot, big figures, the first answer below. */
import { Alert, Button, Select } from "antd";
import { useState } from "react";
import { ask } from "../../../core/port";
import type { Reading, SiteFile, Spot, Target } from "../../../core/types";
import type { SurveyState } from "../../../core/useSurvey";
import { measure } from "../../../device/rangefinder";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { readingOf } from "../../../model/lines";
import { putReading } from "../../../model/readings";
import { formatLength } from "../../../ui/length";
import { plainTask } from "../walk/plainTasks";
import { FirstAnswerCard } from "./FirstAnswerCard";
import { useDoing } from "../useDoing";
import { TypeReading } from "./TypeReading";

interface Props {
  site: SiteFile;
  targets: Target[];
  target: Target;
  state: SurveyState;
  go(target: string): void;
}

export function Shooting({ site, targets, target, state, go }: Props) {
  const spots = site.spots ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const spot =
    spots.find((s) => s.id === chosen) ?? spots.find((s) => readingOf(site, target, s)) ?? nearest(spots, target);
  const reading = spot && readingOf(site, target, spot);
  const units = useSettings((settings) => settings.units);
  const place = targets.indexOf(target);
  const next = targets[(place + 1) % targets.length];
  if (!spot) return null;
  const readings = site.readings ?? [];
  const at = reading ? readings.indexOf(reading) : -1;
  const shots = at < 0 ? null : (state.survey?.shots[at] ?? null);
  const level = at < 0 ? null : (state.survey?.adjustment?.readings[at]?.horizontal_m ?? null);
  return (
    <section className="shooting" aria-label="Shooting">
      <p className="fine">
        Target {place + 1} of {targets.length} · {plainTask(target)}
      </p>
      <h1>{target.name}</h1>
      <label className="shooting-at">
        standing here, shooting at
        <Select
          aria-label="Spot to shoot at"
          size="large"
          value={spot.id}
          onChange={setChosen}
          options={spots.map((s) => ({ value: s.id, label: s.name }))}
        />
      </label>
      <p className="shooting-figure figure" data-testid="level">
        {reading ? (
          <>
            {level === null ? "…" : formatLength(level, units)}
            <span> level</span>
          </>
        ) : (
          <span>no shot yet</span>
        )}
      </p>
      {reading && (
        <p className="shooting-slope">
          slope{" "}
          <strong className="figure" data-testid="slope">
            {formatLength(reading.slope_m, units)}
          </strong>
          {typeof reading.inclination_deg === "number" && (
            <>
              {" "}
              · {reading.inclination_deg >= 0 ? "up" : "down"}{" "}
              <strong className="figure">{Math.abs(reading.inclination_deg).toFixed(1)}°</strong>
            </>
          )}
          {shots?.spread_m != null && (
            <>
              {" "}
              · ±<strong className="figure">{formatLength(shots.spread_m, units)}</strong>
            </>
          )}
        </p>
      )}
      <div className="shots" aria-label="Shots">
        {(reading?.shots_m ?? []).map((shot, i) => (
          <span key={i} className={`figure shot${shots?.left_out.includes(i) ? " shot-out" : ""}`}>
            {formatLength(shot, units)}
          </span>
        ))}
      </div>
      <ShotButtons
        site={site}
        target={target}
        spot={spot}
        reading={reading}
        onNext={next && next !== target ? () => go(next.id) : undefined}
      />
      {reading && shots && shots.left_out.length > 0 && (
        <Alert
          type="warning"
          showIcon
          title={leftOut(reading, shots.left_out, shots.slope_m, (m) => formatLength(m, units))}
        />
      )}
      {reading && <FirstAnswerCard site={site} spot={spot} target={target} slant={reading.slope_m} />}
    </section>
  );
}

function nearest(spots: Spot[], target: Target): Spot | undefined {
  const [x = 0, y = 0] = target.shape.points[0] ?? [];
  const far = (spot: Spot): number => Math.hypot((spot.position[0] ?? 0) - x, (spot.position[1] ?? 0) - y);
  return [...spots].sort((a, b) => far(a) - far(b))[0];
}

function leftOut(reading: Reading, out: number[], slope: number, words: (metres: number) => string): string {
  const nth = ["first", "second", "third", "fourth", "fifth", "sixth"];
  const [place = 0] = out;
  const off = ((reading.shots_m ?? [])[place] ?? 0) - slope;
  const which = nth[place] ?? `${place + 1}th`;
  const more = out.length > 1 ? ` So did ${out.length - 1} more.` : "";
  return `The ${which} shot went ${off > 0 ? "past" : "short"}: ${words(Math.abs(off))} ${off > 0 ? "long" : "short"}. Left out.${more}`;
}

/** Whether a reading was taken with the stand-in that ships with the application; only of that the class is known. */
const standsIn = (device: string | null | undefined): boolean => device?.includes("stand-in") ?? false;

interface ButtonProps {
  site: SiteFile;
  target: Target;
  spot: Spot;
  reading: Reading | undefined;
  onNext: (() => void) | undefined;
}

function ShotButtons({ target, spot, reading, onNext }: ButtonProps) {
  const { busy, fault, doing } = useDoing();
  const [typing, setTyping] = useState(false);
  const edit = useSite((store) => store.edit);
  const take = async (
    slope_m: number,
    inclination_deg: number | null,
    device: string,
    level = false,
  ): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site) return;
    const taken = new Date().toISOString().slice(0, 19) + "Z";
    const by = useSettings.getState().surveyor || null;
    const made = await ask(site, {
      ask: "reading",
      shot: {
        from: target.id,
        to: spot.id,
        slope_m,
        level,
        inclination_deg,
        device,
        taken,
        by,
      },
    });
    edit(`Shot from ${target.name} to ${spot.name}`.slice(0, 200), (draft) => putReading(draft, made));
  };
  const shoot = async (): Promise<void> => {
    const [x = 0, y = 0] = target.shape.points[0] ?? [];
    const [sx = 0, sy = 0] = spot.position;
    const { shot } = await measure({ from: [x, y, target.height_m], to: [sx, sy, spot.height_m] });
    if ("vibrate" in navigator) navigator.vibrate(60);
    await take(shot.slope_m, shot.inclination_deg, shot.device);
  };
  return (
    <>
      <Button className="measure" type="primary" size="large" block loading={busy} onClick={() => void doing(shoot)}>
        {reading ? "Measure again" : "Measure"}
      </Button>
      <div className="row">
        <Button size="large" block onClick={() => setTyping(true)}>
          Type it
        </Button>
        <Button size="large" block disabled={!onNext} onClick={onNext}>
          Next target
        </Button>
      </div>
      {fault && <Alert type="warning" showIcon title={fault} />}
      <p className="fine">
        {standsIn(reading?.device) && "The stand-in says laser class 2. "}
        Mind the class on your own rangefinder's label: never into eyes, never at mirrors or windows with people behind
        them.
      </p>
      {typing && (
        <TypeReading
          close={() => setTyping(false)}
          onTyped={(distance, inclination, level) =>
            void doing(() => take(distance, inclination, "typed by hand", level))
          }
        />
      )}
    </>
  );
}
