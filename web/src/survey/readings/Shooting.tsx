/** Standing at a target with the laser: one tap a shot, big figures, the first answer below. */
import { Alert, Button, Select } from "antd";
import { useState } from "react";
import { serverEngine } from "../../engine/engine";
import { Away, Refused } from "../../engine/http";
import type { Measured, Reading, SiteFile, Spot, Target } from "../../engine/types";
import { useSettings } from "../../shell/settings";
import { freshId, rounded } from "../../site/edits";
import { useSite } from "../../site/store";
import { formatLength } from "../../units/length";
import { plainTask } from "../walk/plainTasks";
import type { SurveyState } from "../useSurvey";
import { FirstAnswerCard } from "./FirstAnswerCard";
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
  const spot = spots.find((s) => s.id === chosen) ?? spots.find((s) => readingOf(site, target, s)) ?? nearest(spots, target);
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
      <p className="fine">Target {place + 1} of {targets.length} · {plainTask(target)}</p>
      <h1>{target.name}</h1>
      <label className="shooting-at">standing here, shooting at
        <Select aria-label="Spot to shoot at" size="large" value={spot.id} onChange={setChosen} options={spots.map((s) => ({ value: s.id, label: s.name }))} />
      </label>
      <p className="shooting-figure figure" data-testid="level">
        {reading ? <>{level === null ? "…" : formatLength(level, units)}<span> level</span></> : <span>no shot yet</span>}
      </p>
      {reading && (
        <p className="shooting-slope">
          slope <strong className="figure" data-testid="slope">{formatLength(reading.slope_m, units)}</strong>
          {typeof reading.inclination_deg === "number" && <> · {reading.inclination_deg >= 0 ? "up" : "down"} <strong className="figure">{Math.abs(reading.inclination_deg).toFixed(1)}°</strong></>}
          {shots?.spread_m != null && <> · ±<strong className="figure">{formatLength(shots.spread_m, units)}</strong></>}
        </p>
      )}
      <div className="shots" aria-label="Shots">
        {(reading?.shots_m ?? []).map((shot, i) => (
          <span key={i} className={`figure shot${shots?.left_out.includes(i) ? " shot-out" : ""}`}>{formatLength(shot, units)}</span>
        ))}
      </div>
      <ShotButtons site={site} target={target} spot={spot} reading={reading} onNext={next && next !== target ? () => go(next.id) : undefined} />
      {reading && shots && shots.left_out.length > 0 && (
        <Alert type="warning" showIcon message={leftOut(reading, shots.left_out, shots.slope_m, (m) => formatLength(m, units))} />
      )}
      {reading && <FirstAnswerCard site={site} spot={spot} target={target} slant={reading.slope_m} />}
    </section>
  );
}

const readingOf = (site: SiteFile, target: Target, spot: Spot): Reading | undefined =>
  (site.readings ?? []).find((r) => (r.from === target.id && r.to === spot.id) || (r.from === spot.id && r.to === target.id));

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

interface ButtonProps {
  site: SiteFile;
  target: Target;
  spot: Spot;
  reading: Reading | undefined;
  onNext: (() => void) | undefined;
}

function ShotButtons({ target, spot, reading, onNext }: ButtonProps) {
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState("");
  const [typing, setTyping] = useState(false);
  const edit = useSite((store) => store.edit);
  const shoot = async (typed?: { slope: number; inclination: number | null }): Promise<void> => {
    setBusy(true);
    setFault("");
    const [x = 0, y = 0] = target.shape.points[0] ?? [];
    const [sx = 0, sy = 0] = spot.position;
    const earlier = reading?.shots_m ?? [];
    try {
      const measured = await serverEngine.measure({
        from: [x, y, target.height_m], to: [sx, sy, spot.height_m], earlier_m: earlier,
        ...(typed ? { typed_slope_m: typed.slope, typed_inclination_deg: typed.inclination } : {}),
      });
      navigator.vibrate?.(60);
      edit(`Shot from ${target.name} to ${spot.name}`.slice(0, 200), (site) => keepShot(site, target, spot, measured, earlier));
    } catch (error) {
      if (error instanceof Away && typed) {
        // A typed reading needs no device and no server: it is kept on this device like everything else.
        const shot = { slope_m: typed.slope, inclination_deg: typed.inclination, signal: null, device: "typed by hand" };
        edit(`Reading typed for ${target.name}`.slice(0, 200), (site) => keepShot(site, target, spot, { shot, together: { slope_m: typed.slope, spread_m: null, sigma_m: 0.02, left_out: [] } }, []));
      } else if (error instanceof Away || error instanceof Refused) setFault(error.message);
      else throw error;
    }
    setBusy(false);
  };
  return (
    <>
      <Button className="measure" type="primary" size="large" block loading={busy} onClick={() => void shoot()}>{reading ? "Measure again" : "Measure"}</Button>
      <div className="row">
        <Button size="large" block onClick={() => setTyping(true)}>Type it</Button>
        <Button size="large" block disabled={!onNext} onClick={onNext}>Next target</Button>
      </div>
      {fault && <Alert type="warning" showIcon message={fault} />}
      <p className="fine">Laser class 2: never into eyes, never at mirrors or windows with people behind them.</p>
      {typing && <TypeReading close={() => setTyping(false)} onTyped={(slope, inclination) => void shoot({ slope, inclination })} />}
    </>
  );
}

/** Writes a shot into the reading between a target and a spot, made if there is none. */
function keepShot(site: SiteFile, target: Target, spot: Spot, { shot, together }: Measured, earlier: number[]): void {
  site.readings ??= [];
  let reading = readingOf(site, target, spot);
  if (!reading) {
    reading = { id: freshId("r", site.readings), from: target.id, to: spot.id, slope_m: shot.slope_m, inclination_deg: null, used: true };
    site.readings.push(reading);
    reading = site.readings.at(-1) as Reading;
  }
  const before = earlier.length;
  reading.shots_m = [...earlier, shot.slope_m];
  reading.slope_m = rounded(together.slope_m, 4);
  reading.sigma_m = rounded(together.sigma_m, 4);
  // A shot that went past says nothing about the inclination of the others.
  if (!together.left_out.includes(before)) {
    const now = shot.inclination_deg;
    const mean = typeof reading.inclination_deg === "number" && typeof now === "number" ? (reading.inclination_deg * before + now) / (before + 1) : now;
    reading.inclination_deg = typeof mean === "number" ? rounded(reading.from === target.id ? mean : -mean, 3) : null;
  }
  reading.taken = new Date().toISOString().slice(0, 19) + "Z";
  reading.device = shot.device;
  const { surveyor } = useSettings.getState();
  if (surveyor) reading.by = surveyor;
}
