/** A site's plan, small: its walls and objects, cameras as discs, targets as rings. */
import type { Standing } from "../core/types";

/** Its size, px. */
const SIZE: [number, number] = [132, 88];
const ROOM = 6;

export function SmallPlan({ plan, name }: { plan: Standing["plan"]; name: string }) {
  const points = [...plan.outlines.flat(), ...plan.walls.flat(), ...plan.cameras, ...plan.targets];
  if (points.length === 0) return <div className="small-plan" />;
  const [xs, ys] = [points.map(([x = 0]) => x), points.map(([, y = 0]) => y)];
  const [west, east, south, north] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const scale = Math.min(
    (SIZE[0] - 2 * ROOM) / Math.max(east - west, 5),
    (SIZE[1] - 2 * ROOM) / Math.max(north - south, 5),
  );
  const at = ([x = 0, y = 0]: number[]): [number, number] => [
    SIZE[0] / 2 + (x - (west + east) / 2) * scale,
    SIZE[1] / 2 - (y - (south + north) / 2) * scale,
  ];
  const line = (outline: number[][]): string =>
    `M${outline
      .map((corner) =>
        at(corner)
          .map((c) => c.toFixed(1))
          .join(" "),
      )
      .join("L")}`;
  return (
    <svg className="small-plan" viewBox={`0 0 ${SIZE[0]} ${SIZE[1]}`} role="img" aria-label={`Plan of ${name}`}>
      <path d={plan.outlines.map((outline) => `${line(outline)}Z`).join("")} className="small-solid" />
      <path d={plan.walls.map(line).join("")} className="small-wall" />
      {plan.targets.map((target, place) => {
        const [u, v] = at(target);
        return <circle key={place} cx={u} cy={v} r={2.6} className="small-target" />;
      })}
      {plan.cameras.map((camera, place) => {
        const [u, v] = at(camera);
        return <circle key={place} cx={u} cy={v} r={2.8} className="small-camera" />;
      })}
    </svg>
  );
}
