/** A sketch without a picture: walls paced out by lengths and bearings. */
import { Button, Switch } from "antd";
import { useSettings } from "../../../keep/settings";
import { useSite } from "../../../keep/store";
import { freshId, roundPoint } from "../../../model/points";
import { usePlanView } from "../../../plan/planView";
import { Measure, length, plain } from "../../../ui/Measure";
import { formatLength } from "../../../ui/length";
import { type Leg, corners } from "./corners";
import { NOTHING_PACED, usePaced } from "./paced";

export function PaceOut() {
  const units = useSettings((settings) => settings.units);
  const edit = useSite((state) => state.edit);
  const id = useSite((state) => state.open?.id) ?? "";
  const { legs, closed } = usePaced((state) => state.paced[id]) ?? NOTHING_PACED;
  const { pace } = usePaced.getState();
  const setLegs = (to: Leg[]): void => pace(id, { legs: to, closed });
  const setClosed = (to: boolean): void => pace(id, { legs, closed: to });
  const change = (place: number, update: Partial<Leg>): void =>
    setLegs(legs.map((leg, i) => (i === place ? { ...leg, ...update } : leg)));
  const walked = corners([0, 0], legs);
  const [ex, ey] = walked.at(-1) ?? [0, 0];
  const gap = Math.hypot(ex, ey);
  // The last leg comes back to the start: its end is no corner of its own.
  const closes = closed && legs.length > 3 && gap < 0.5;
  const enough = closed ? (closes ? walked.length - 1 : walked.length) >= 3 : walked.length >= 2;
  const draw = (): void => {
    const start = usePlanView.getState().centre;
    edit("Pace out a wall", (site) => {
      site.obstacles ??= [];
      const points = corners(start, legs).map(roundPoint);
      const id = freshId("o", site.obstacles);
      site.obstacles.push({
        id,
        name: `Paced out ${site.obstacles.length + 1}`,
        kind: closed ? "building" : "wall",
        outline: closes ? points.slice(0, -1) : points,
        closed,
        base_m: 0,
        top_m: 3,
        see_through: 0,
      });
    });
    setLegs([]);
  };
  return (
    <details className="pace-out" open={legs.length > 0 || undefined}>
      <summary>No picture? Pace out a sketch</summary>
      <p className="fine">
        Walk along the walls: type how long each one is and which way it runs, clockwise from north. It is drawn from
        the middle of the plan.
      </p>
      <ol>
        {legs.map((leg, place) => (
          <li key={place} className="dials">
            <Measure
              of={`wall-${place}`}
              label={`Wall ${place + 1}`}
              value={leg.length}
              quantity={length(units)}
              min={0.05}
              max={1000}
              onChange={(v) => change(place, { length: v })}
            />
            <Measure
              of={`wall-${place}`}
              label={`Bearing ${place + 1}`}
              value={leg.bearing}
              quantity={plain("°", 0, 5)}
              min={-360}
              max={360}
              onChange={(v) => change(place, { bearing: v })}
            />
          </li>
        ))}
      </ol>
      {legs.length > 2 && closed && <p className="fine">Back to within {formatLength(gap, units)} of the start.</p>}
      <div className="row">
        <Button onClick={() => setLegs([...legs, { length: 5, bearing: ((legs.at(-1)?.bearing ?? 0) + 90) % 360 }])}>
          Add a wall
        </Button>
        <label className="switch-line">
          <Switch size="small" checked={closed} onChange={setClosed} /> closed
        </label>
        <Button type="primary" disabled={!enough} onClick={draw}>
          Draw it
        </Button>
      </div>
    </details>
  );
}
