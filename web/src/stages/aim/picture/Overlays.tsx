/** What is drawn over a picture: its graticule in per cent, horizon and level line, masks, and brackets around promises. */
import type { PictureTold, SiteFile, Verdict } from "../../../core/types";
import { VerdictShape } from "../../../ui/VerdictMark";

/** Ticks in per cent along the edges. */
export function Graticule({ width, height }: { width: number; height: number }) {
  const ticks: string[] = [];
  for (let share = 10; share < 100; share += 10) {
    const long = share === 50 ? 9 : 5;
    const [u, v] = [(width * share) / 100, (height * share) / 100];
    ticks.push(`M${u} 0v${long}M${u} ${height}v${-long}M0 ${v}h${long}M${width} ${v}h${-long}`);
  }
  return (
    <g className="graticule" aria-hidden="true">
      <rect width={width} height={height} />
      <path d={ticks.join("")} />
    </g>
  );
}

const path = (points: number[][], scale: number, closed = false): string =>
  `M${points.map(([u = 0, v = 0]) => `${(u / scale).toFixed(1)} ${(v / scale).toFixed(1)}`).join("L")}${closed ? "Z" : ""}`;

/** The horizon, and a line through the middle that is level where the camera hangs level. */
export function LevelLines({ told, scale }: { told: PictureTold; scale: number }) {
  return (
    <g className="level-lines" aria-hidden="true">
      <path className="horizon" d={told.horizon.map((line) => path(line, scale)).join("")} />
      <path className="level" d={told.level.map((line) => path(line, scale)).join("")} />
    </g>
  );
}

/** What must be masked for private places: left as paper. */
export function Masks({ told, scale, site }: { told: PictureTold; scale: number; site: SiteFile }) {
  return (
    <g className="masks" data-testid="masks">
      {told.masks.map(({ id, outline }) => (
        <path key={id} d={path(outline, scale, true)}>
          <title>{`Masked: ${site.private?.find((place) => place.id === id)?.name ?? id}`}</title>
        </path>
      ))}
    </g>
  );
}

export type Box = [number, number, number, number];

/** A bracket of the sensor as it is shown; null where nothing of it is in the picture. */
export function shownBox(bracket: number[] | null | undefined, scale: number, size: [number, number]): Box | null {
  if (!bracket) return null;
  const box = bracket.map((side) => side / scale) as Box;
  return box[2] < 0 || box[0] > size[0] || box[3] < 0 || box[1] > size[1] ? null : box;
}

/** Corner brackets around what must be seen, with the verdict's shape. */
export function Bracket({ box: [left, top, right, bottom], verdict }: { box: Box; verdict: Verdict }) {
  // Never smaller than a hand finds.
  const grow = Math.max(0, (14 - Math.min(right - left, bottom - top)) / 2) + 3;
  const [l, t, r, b] = [left - grow, top - grow, right + grow, bottom + grow];
  const arm = Math.min(8, (r - l) / 3, (b - t) / 3);
  return (
    <>
      <rect x={l} y={t} width={r - l} height={b - t} className="reach" />
      <path
        className="picture-bracket"
        d={`M${l + arm} ${t}H${l}V${t + arm}M${r - arm} ${t}H${r}V${t + arm}M${l + arm} ${b}H${l}V${b - arm}M${r - arm} ${b}H${r}V${b - arm}`}
      />
      <VerdictShape verdict={verdict} size={12} at={[r + 8, t]} />
    </>
  );
}
