/** How far it is: measured, typed, or called near enough for a wide lens. A spot that is not there yet comes with it. */
import { Alert, Button, Input } from "antd";
import { produce } from "immer";
import { useRef, useState } from "react";
import { ask } from "../../../core/port";
import type { Reading, SiteFile, Spot, Target } from "../../../core/types";
import { measure } from "../../../device/rangefinder";
import { takeOver } from "../../../keep/rebase";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { addSpotFor } from "../../../model/lines";
import { middle } from "../../../model/lookups";
import { putReading } from "../../../model/readings";
import { formatLength, parseLength } from "../../../ui/length";
import { unitWord } from "../../../ui/words";
import { useDoing } from "../useDoing";

/** So far off a rangefinder's stand-in is pointed where nobody has said where the spot is, m. */
const POINTED_M = 8;
/** What is near enough for a wide lens is drawn so far off, m. */
const NEAR_M = 4;
/** The farthest that is taken, m. */
const MOST_M = 10_000;

interface Props {
  target: Target;
  /** The spot it is seen from; null for one that is not there yet. */
  from: Spot | null;
  reading: Reading | undefined;
  near: boolean;
  onSpot(id: string): void;
  onNear(id: string): void;
}

export function Distance({ target, from, reading, near, onSpot, onNear }: Props) {
  const units = useSettings((settings) => settings.units);
  const [text, setText] = useState<string | null>(null);
  const { busy, fault, setFault, doing } = useDoing();
  // What was taken once is not taken again by leaving the field.
  const done = useRef("");
  const typed = text === null ? null : parseLength(text, units);
  const fits = typed !== null && typed > 0.1 && typed < MOST_M;
  /** The site with the spot in it, which may be a new one. */
  const withSpot = async (site: SiteFile, slope_m: number): Promise<{ site: SiteFile; spot: string }> => {
    if (from) return { site, spot: from.id };
    const place = await ask(site, { ask: "spot_for", target: target.id, slope_m });
    let spot = "";
    const made = produce(site, (draft) => {
      spot = addSpotFor(draft, target, place);
    });
    return { site: made, spot };
  };
  const take = async (slope_m: number, inclination_deg: number | null, device: string): Promise<void> => {
    const held = useSite.getState().open?.site;
    if (!held) return;
    const there = await withSpot(held, slope_m);
    const again = device === TYPED;
    // What is typed again corrects what was typed; what is shot again is one more shot.
    const base = produce(there.site, (draft) => {
      if (again && reading) draft.readings = (draft.readings ?? []).filter(({ id }) => id !== reading.id);
    });
    const taken = new Date().toISOString().slice(0, 19) + "Z";
    const by = useSettings.getState().surveyor || null;
    const shot = { from: target.id, to: there.spot, slope_m, level: false, inclination_deg, device, taken, by };
    const made = await ask(base, { ask: "reading", shot });
    const then = produce(base, (draft) => putReading(draft, made));
    if (await takeOver(`Distance to ${target.name}`.slice(0, 200), held, then)) onSpot(there.spot);
    else setFault("the site has moved on since; say it once more");
  };
  const shoot = async (): Promise<void> => {
    const site = useSite.getState().open?.site;
    if (!site) return;
    const there = await withSpot(site, POINTED_M);
    const spot = there.site.spots?.find((known) => known.id === there.spot);
    if (!spot) return;
    const [x, y] = middle(target);
    const [sx = 0, sy = 0] = spot.position;
    const { shot } = await measure({ from: [x, y, target.height_m], to: [sx, sy, spot.height_m] });
    if ("vibrate" in navigator) navigator.vibrate(60);
    setText(null);
    await take(shot.slope_m, shot.inclination_deg, shot.device);
  };
  const type = (): void => {
    if (!fits || text === null || text === done.current || busy) return;
    done.current = text;
    void doing(() => take(typed, null, TYPED));
  };
  const callNear = (): void =>
    void doing(async () => {
      const site = useSite.getState().open?.site;
      if (!site) return;
      const there = await withSpot(site, NEAR_M);
      const then = produce(there.site, (draft) => {
        const held = draft.targets.find(({ id }) => id === target.id);
        if (held) held.distance = { how: "guess" };
      });
      if (await takeOver(`${target.name} is near`.slice(0, 200), site, then)) onNear(there.spot);
    });
  return (
    <>
      <div className="line-distance">
        <label className="stacked">
          Distance, {unitWord(units)}
          <Input
            size="large"
            aria-label="Distance"
            inputMode="decimal"
            enterKeyHint="done"
            placeholder={near ? "near" : "—"}
            value={text ?? (reading ? formatLength(reading.slope_m, units) : "")}
            onChange={(event) => setText(event.target.value)}
            onPressEnter={type}
            onBlur={type}
            status={text !== null && text !== "" && !fits ? "error" : ""}
          />
        </label>
        <Button className="measure" type="primary" size="large" loading={busy} onClick={() => void doing(shoot)}>
          Measure
        </Button>
      </div>
      {!reading && !near && (
        <Button size="large" block onClick={callNear}>
          Near enough for a wide lens
        </Button>
      )}
      {fault && <Alert type="warning" showIcon title={fault} />}
      <p className="fine">Laser: mind the class on its label. Never into eyes, mirrors or windows.</p>
    </>
  );
}

const TYPED = "typed by hand";
