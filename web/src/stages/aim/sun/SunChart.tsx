/** The sun calendar: a year across, the hours of the day down; inked where the sun stands in the picture, hatched where it back-lights the target. */
import { useEffect, useMemo, useRef, useState } from "react";
import useMeasure from "react-use-measure";
import { useAnswer } from "../../../core/useAsked";
import type { HeadRef, SiteFile, SunAt, SunCalendar } from "../../../core/types";

const LEFT = 34;
const TOP = 14;
const BOTTOM = 4;
const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"];
const HOURS = [0, 6, 12, 18, 24];

interface Props {
  calendar: SunCalendar;
  site: SiteFile;
  head: HeadRef;
}

interface Place {
  day: number;
  minute: number;
}

const clock = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;

export function SunChart({ calendar, site, head }: Props) {
  const [frame, { width, height }] = useMeasure();
  const [at, setAt] = useState<Place | null>(null);
  const count = calendar.days.length;
  const wide = Math.max(width - LEFT - 4, 1);
  const tall = Math.max(height - TOP - BOTTOM, 1);
  const x = (day: number): number => LEFT + (day / count) * wide;
  const y = (minute: number): number => TOP + (minute / 1440) * tall;
  const day: SunCalendar["days"][number] | undefined = at ? calendar.days[at.day] : undefined;
  const read = useAnswer(site, day && at ? { ask: "sun_at", head, date: day.date, minute: at.minute } : null, {
    rest: "live",
  });
  const place = (event: React.PointerEvent<SVGSVGElement>): void => {
    const box = event.currentTarget.getBoundingClientRect();
    const across = Math.floor(((event.clientX - box.left - LEFT) / wide) * count);
    const down = Math.round(((event.clientY - box.top - TOP) / tall) * 1440);
    if (across < 0 || across >= count || down < 0 || down > 1439) setAt(null);
    else setAt({ day: across, minute: down });
  };
  const onKeyDown = (event: React.KeyboardEvent): void => {
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -5],
      ArrowDown: [0, 5],
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    const by = event.shiftKey ? 7 : 1;
    const from = at ?? begins(calendar);
    const within = (value: number, most: number): number => Math.min(Math.max(value, 0), most);
    setAt({ day: within(from.day + step[0] * by, count - 1), minute: within(from.minute + step[1] * by, 1439) });
  };
  return (
    <div className="sun-chart" ref={frame}>
      {width > 0 && (
        <>
          <Inked calendar={calendar} size={[width, height]} at={[LEFT, TOP, wide, tall]} />
          <svg
            width={width}
            height={height}
            tabIndex={0}
            role="application"
            aria-label={`Sun calendar ${calendar.year}. Arrows move through days and minutes, Shift by seven.`}
            data-testid="sun-chart"
            onPointerMove={place}
            onPointerLeave={() => setAt(null)}
            onKeyDown={onKeyDown}
          >
            <rect x={LEFT} y={TOP} width={wide} height={tall} className="sun-frame" />
            {HOURS.map((hour) => (
              <g key={hour}>
                <line x1={LEFT - 4} x2={LEFT} y1={y(hour * 60)} y2={y(hour * 60)} className="sun-frame" />
                <text x={LEFT - 6} y={y(hour * 60) + 4} textAnchor="end">
                  {hour}
                </text>
              </g>
            ))}
            {MONTHS.map((month, i) => {
              const first = calendar.days.findIndex((d) => Number(d.date.slice(5, 7)) === i + 1);
              return (
                <g key={month}>
                  {i > 0 && <line x1={x(first)} x2={x(first)} y1={TOP} y2={TOP + tall} className="sun-month" />}
                  <text x={x(first) + 3} y={TOP - 4}>
                    {month}
                  </text>
                </g>
              );
            })}
            {at && (
              <g className="sun-cross">
                <line x1={x(at.day + 0.5)} x2={x(at.day + 0.5)} y1={TOP} y2={TOP + tall} />
                <line x1={LEFT} x2={LEFT + wide} y1={y(at.minute)} y2={y(at.minute)} />
              </g>
            )}
          </svg>
        </>
      )}
      <p className="sun-read" role="status" data-testid="sun-read">
        {day && at ? (
          <>
            <span className="figure">
              {day.date} {clock(at.minute)}
            </span>{" "}
            {read.value && read.settled ? says(read.value, day, at.minute) : "…"}
          </>
        ) : (
          <span className="fine">Point at a day and an hour, or use the arrows.</span>
        )}
      </p>
    </div>
  );
}

/** Where the keys begin: where the sun stands in the picture first, else at noon of the first day. */
function begins({ days }: SunCalendar): Place {
  const day = days.findIndex((held) => held.in_picture.length > 0);
  return day < 0 ? { day: 0, minute: 720 } : { day, minute: days[day]?.in_picture[0]?.[0] ?? 720 };
}

function says(sun: SunAt, day: SunCalendar["days"][number], minute: number): string {
  if (sun.elevation_deg <= 0) return "the sun is down";
  const where = `sun at ${sun.azimuth_deg.toFixed(0)}°, ${sun.elevation_deg.toFixed(1)}° up`;
  const behind = day.backlit.some(([from = 0, to = 0]) => minute >= from && minute <= to) ? ", behind the target" : "";
  if (!sun.clear) return `${where}, behind something that stands there`;
  return sun.pixel
    ? `${where}: in the picture at ${sun.pixel.map((c) => c.toFixed(0)).join(", ")} px${behind}`
    : `${where}, out of the picture${behind}`;
}

/** The ink: a canvas, a column a day. */
function Inked({
  calendar,
  size: [width, height],
  at: [left, top, wide, tall],
}: {
  calendar: SunCalendar;
  size: [number, number];
  at: [number, number, number, number];
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const ratio = useMemo(() => window.devicePixelRatio || 1, []);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !canvas.current) return;
    const style = getComputedStyle(canvas.current);
    const ink = style.getPropertyValue("--ink").trim();
    const soft = style.getPropertyValue("--ink-2").trim();
    const paper = style.getPropertyValue("--paper").trim();
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, width, height);
    const column = wide / calendar.days.length;
    const y = (minute: number): number => top + (minute / 1440) * tall;
    calendar.days.forEach((day, place) => {
      // Whole pixels of the screen, so that neighbours touch and none is drawn over.
      const x = Math.round((left + place * column) * ratio) / ratio;
      const wideHere = Math.max(Math.round((left + (place + 1) * column) * ratio) / ratio - x, 1 / ratio);
      const runs = (list: number[][], draw: (from: number, to: number) => void): void =>
        list.forEach(([from = 0, to = 0]) => draw(y(from), y(to + 1)));
      context.fillStyle = soft;
      // Sunrise and sunset, thin.
      runs(day.up, (from, to) => {
        context.fillRect(x, from, wideHere, 0.8);
        context.fillRect(x, to - 0.8, wideHere, 0.8);
      });
      context.fillStyle = ink;
      runs(day.in_picture, (from, to) => context.fillRect(x, from, wideHere, Math.max(to - from, 0.8)));
      // Hatched: every fourth slanting row of pixels, paper where it lies over the ink.
      const inked = (row: number): boolean =>
        day.in_picture.some(([from = 0, to = 0]) => row >= y(from) && row < y(to + 1));
      runs(day.backlit, (from, to) => {
        for (let row = Math.ceil(from); row < to; row++) {
          if ((row + Math.round(x)) % 4 !== 0) continue;
          context.fillStyle = inked(row) ? paper : soft;
          context.fillRect(x, row, wideHere, 1);
        }
      });
    });
  }, [calendar, width, height, left, top, wide, tall, ratio]);
  return (
    <canvas
      ref={canvas}
      width={Math.round(width * ratio)}
      height={Math.round(height * ratio)}
      style={{ width, height }}
      aria-hidden="true"
    />
  );
}
