/** The sun: the calendar of the head in hand, its hours, the ways out of it with their price, and the hours of all heads. */
import { useEffect, useState } from "react";
import type { HeadRef, SiteFile, SunCalendar } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { useInHand } from "../../../model/inHand";
import { targetOf } from "../../../model/lookups";
import { keyOf, nameOf } from "../../../model/views";
import { Measure, whole } from "../../../ui/Measure";
import { Told } from "../../../ui/Told";
import { Mending } from "../Mending";
import { PlaceForm } from "./PlaceForm";
import { SunChart } from "./SunChart";
import { useSunView } from "./sunView";
import { useSun, useSunHours } from "./useSun";
import { Button } from "../../../ui/controls";
import "../night/night.css";
import "./sun.css";

export function SunPanel({ site }: { site: SiteFile }) {
  const units = useSettings((settings) => settings.units);
  const { head, target } = useInHand();
  const [year, setYear] = useState(() => new Date().getFullYear() + 1);
  const [placing, setPlacing] = useState(false);
  const { calendar, mends } = useSun(site, head, target, year, units);
  const tell = useSunView((state) => state.tell);
  const yearTold = calendar.value;
  // The plan shows bearings of the sun as it stands: none of a state before.
  const current = calendar.settled ? yearTold : null;
  useEffect(() => {
    tell(current && head ? { head, calendar: current } : null);
    return () => tell(null);
  }, [tell, current, head]);
  if (!site.place)
    return (
      <div className="sun-panel">
        <p className="hint">Say where on the earth this site is, and when the sun stands in its pictures is known.</p>
        <PlaceForm place={null} />
      </div>
    );
  return (
    <div className="sun-panel" data-testid="sun-panel" data-settled={calendar.settled && mends.settled}>
      <div className="sun-main">
        {calendar.refused !== null && <p className="hint">{calendar.refused}</p>}
        {!yearTold && calendar.refused === null && <p className="hint">{head ? "Working …" : "Choose a camera."}</p>}
        {yearTold && head && (
          <Told settled={calendar.settled} className="sun-told">
            <SunChart calendar={yearTold} site={site} head={head} />
          </Told>
        )}
      </div>
      <div className="sun-side">
        <div className="row">
          <Measure
            of="year"
            label="Year"
            value={year}
            quantity={whole("")}
            min={1900}
            max={2100}
            onChange={(value) => setYear(value)}
          />
          <Button size="small" onClick={() => setPlacing(!placing)}>
            {site.place.latitude_deg.toFixed(2)}°, {site.place.longitude_deg.toFixed(2)}°
          </Button>
        </div>
        {placing && <PlaceForm place={site.place} close={() => setPlacing(false)} />}
        {yearTold && head && (
          <Told settled={calendar.settled}>
            <Hours calendar={yearTold} site={site} head={head} target={target} />
          </Told>
        )}
        {mends.value && mends.of && (
          <Told settled={mends.settled}>
            <Mending
              mends={mends.value}
              site={mends.of}
              left={(hours) => `${hours.toFixed(0)} h a year`}
              label="Ways out of the sun"
            />
          </Told>
        )}
        <AllHeads site={site} year={year} />
        {yearTold && (
          <Told settled={calendar.settled}>
            <More calendar={yearTold} />
          </Told>
        )}
      </div>
    </div>
  );
}

function Hours({
  calendar,
  site,
  head,
  target,
}: {
  calendar: SunCalendar;
  site: SiteFile;
  head: HeadRef;
  target: string | null;
}) {
  const [worst] = calendar.worst;
  const name = target && targetOf(site, target)?.name;
  return (
    <div data-testid="sun-says">
      <p>
        <strong className="figure">{calendar.hours_in_picture.toFixed(0)} h</strong> a year in the picture of{" "}
        {nameOf(site, head)}
        {calendar.hours_backlit !== null && name && (
          <>
            , <strong className="figure">{calendar.hours_backlit.toFixed(0)} h</strong> behind {name}
          </>
        )}
        {worst && (
          <>
            ; longest on {worst.date}, {worst.from} to {worst.to}
          </>
        )}
        .
      </p>
    </div>
  );
}

function More({ calendar }: { calendar: SunCalendar }) {
  return (
    <div className="sun-more">
      {calendar.seasons.length > 0 && <p className="fine">It is there {calendar.seasons.slice(0, 3).join("; ")}.</p>}
      <p className="fine">
        Against sun beside the picture a hood reaches {calendar.hood_mm.toFixed(1)} mm forward for each mm over the
        middle of the glass; against sun in it only an aim, a place or a wall helps. {calendar.changes.join(". ")}
      </p>
      <p className="caution">Never look into the sun through a lens; a camera left facing it may lose its sensor.</p>
    </div>
  );
}

/** Hours of every head, the most first. */
function AllHeads({ site, year }: { site: SiteFile; year: number }) {
  const { value: told, settled } = useSunHours(site, year);
  const takeHead = useInHand((state) => state.takeHead);
  if (!told) return null;
  const heads = site.cameras.reduce((sum, camera) => sum + camera.heads.length, 0);
  const sorted = [...told.hours].sort((a, b) => b.hours - a.hours);
  return (
    <Told label="Sun hours of all cameras" testId="sun-hours" settled={settled}>
      <h3>All cameras{told.done ? "" : `, ${told.hours.length} of ${heads}`}</h3>
      <ul className="sun-heads">
        {sorted.map(({ head, hours }) => (
          <li key={keyOf(head)}>
            <button type="button" onClick={() => takeHead(head)}>
              {nameOf(site, head)}
            </button>{" "}
            <span className="figure">{hours.toFixed(0)} h</span>
          </li>
        ))}
      </ul>
    </Told>
  );
}
