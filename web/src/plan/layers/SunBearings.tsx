/** Where the sun stands from a head on the days when it is in its picture most: thin lines with the day at their end. */
import type { Point, SunCalendar } from "../../core/types";
import { type PlanView, toScreen } from "../view";

/** How long they are drawn, px. */
const LONG = 92;

export function SunBearings({ view, from, worst }: { view: PlanView; from: Point; worst: SunCalendar["worst"] }) {
  const [u, v] = toScreen(view, from);
  const end = (bearing: number, long: number): Point => [
    u + long * Math.sin((bearing * Math.PI) / 180),
    v - long * Math.cos((bearing * Math.PI) / 180),
  ];
  return (
    <g className="sun-bearings" data-testid="sun-bearings" aria-hidden="true">
      {worst.map((day, place) => {
        const long = LONG - 16 * place;
        const [a, b] = day.bearings_deg.map((bearing) => end(bearing, long)) as [Point, Point];
        const middle = end((day.bearings_deg[0] ?? 0) + turn(day.bearings_deg) / 2, long + 8);
        return (
          <g key={day.date}>
            <path d={`M${a.join(" ")}L${u} ${v}L${b.join(" ")}`} className="sun-bearing" />
            <path d={`M${a.join(" ")}A${long} ${long} 0 0 ${turn(day.bearings_deg) > 0 ? 1 : 0} ${b.join(" ")}`} />
            {!crowded(worst, place) && (
              <text x={middle[0]} y={middle[1]} textAnchor={middle[0] < u ? "end" : "start"}>
                {day.date.slice(5)} {day.from}–{day.to}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Whether its words would lie over those of a worse day. */
function crowded(worst: SunCalendar["worst"], place: number): boolean {
  const [own = 0] = worst[place]?.bearings_deg ?? [];
  return worst.slice(0, place).some((day) => Math.abs(turn([day.bearings_deg[0] ?? 0, own])) < 25);
}

/** The short way from one bearing to another, degrees. */
const turn = ([a = 0, b = 0]: number[]): number => ((((b - a + 540) % 360) + 360) % 360) - 180;
