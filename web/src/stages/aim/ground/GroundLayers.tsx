/** The ground on the plan: how many see it, what nobody sees, the least-seen route, the place that is asked about. */
import { memo } from "react";
import { useHand } from "../../../core/hand";
import type { GroundShown } from "../../../core/useGround";
import type { Point, SiteFile, Units } from "../../../core/types";
import { nameOf } from "../../../model/views";
import { type PlanView, toScreen } from "../../../plan/view";
import { formatArea } from "../../../ui/length";
import { seconds } from "../../../ui/words";

interface Props {
  view: PlanView;
  site: SiteFile;
  ground: GroundShown;
  counting: boolean;
  asked: Point | null;
  units: Units;
}

export function GroundLayers({ view, site, ground, counting, asked, units }: Props) {
  // Hatches are slow to draw: under a hand their edges do.
  const holds = useHand((hand) => hand.holds);
  return (
    <g
      className={holds ? "ground-told ground-moving" : "ground-told"}
      data-testid="ground-layers"
      data-settled={ground.of === site}
    >
      <Told view={view} ground={ground} counting={counting} units={units} />
      {asked && <AskedMark at={toScreen(view, asked)} />}
    </g>
  );
}

/** What was told last, of the state that it is of. */
const Told = memo(function Told({ view, ground, counting, units }: Omit<Props, "site" | "asked">) {
  const { told, of } = ground;
  return (
    <>
      <defs>
        <pattern id="bare" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <line x1="0" y1="0" x2="0" y2="9" className="bare-line" />
        </pattern>
        {[1, 2, 3].map((count) => (
          <pattern key={count} id={`seen-${count}`} width="10" height="10" patternUnits="userSpaceOnUse">
            {dotsOf(count).map(([u, v]) => (
              <circle key={`${u}/${v}`} cx={u} cy={v} r={1.05} className="seen-dot" />
            ))}
          </pattern>
        ))}
      </defs>
      {counting && <Counted view={view} ground={ground} />}
      {told.unseen.map((patch) => (
        <UnseenPatch key={patch.at.join("/")} view={view} patch={patch} units={units} />
      ))}
      {told.path && <QuietPath view={view} site={of} path={told.path} />}
    </>
  );
});

/** Dots of a die: one, two, and three for more. */
const dotsOf = (count: number): Point[] =>
  (
    ({
      1: [[5, 5]],
      2: [
        [2.5, 2.5],
        [7.5, 7.5],
      ],
      3: [
        [2, 2],
        [5, 5],
        [8, 8],
      ],
    }) as Record<number, Point[]>
  )[count] ?? [];

/** How many see each cell, as runs along its rows. */
function Counted({ view, ground: { told, counts } }: { view: PlanView; ground: GroundShown }) {
  const [west, south, east] = told.bounds as [number, number, number, number];
  const columns = Math.max(Math.round((east - west) / told.cell_m), 1);
  const paths = ["", "", ""];
  for (let from = 0; from < counts.length;) {
    const row = Math.floor(from / columns);
    const seen = Math.min(counts[from] ?? 0, 3);
    let to = from + 1;
    while (to < (row + 1) * columns && Math.min(counts[to] ?? 0, 3) === seen) to++;
    if (seen > 0) {
      const [u, v] = toScreen(view, [west + (from % columns) * told.cell_m, south + (row + 1) * told.cell_m]);
      const [wide, tall] = [(to - from) * told.cell_m * view.scale, told.cell_m * view.scale];
      paths[seen - 1] =
        (paths[seen - 1] ?? "") +
        `M${u.toFixed(1)} ${v.toFixed(1)}h${wide.toFixed(1)}v${tall.toFixed(1)}h${(-wide).toFixed(1)}Z`;
    }
    from = to;
  }
  return (
    <g data-testid="seen-counts">
      {paths.map((d, place) => (
        <path key={place} d={d} fill={`url(#seen-${place + 1})`} />
      ))}
    </g>
  );
}

function UnseenPatch({
  view,
  patch,
  units,
}: {
  view: PlanView;
  patch: GroundShown["told"]["unseen"][number];
  units: Units;
}) {
  const d = patch.outlines
    .map(
      (ring) =>
        `M${ring
          .map((p) =>
            toScreen(view, p)
              .map((c) => c.toFixed(1))
              .join(" "),
          )
          .join("L")}Z`,
    )
    .join("");
  const [u, v] = toScreen(view, patch.at);
  // A label where there is room for it.
  const room = patch.area_m2 * view.scale * view.scale > 4200;
  return (
    <g className="unseen-patch" data-testid="unseen-patch">
      <path d={d} fillRule="evenodd" fill="url(#bare)" className="unseen-edge" />
      {room && (
        <text x={u} y={v + 4} textAnchor="middle">
          unseen {formatArea(patch.area_m2, units)}
        </text>
      )}
    </g>
  );
}

function QuietPath({
  view,
  site,
  path,
}: {
  view: PlanView;
  site: SiteFile;
  path: NonNullable<GroundShown["told"]["path"]>;
}) {
  const points = path.points.map((p) => toScreen(view, p));
  const [first, last] = [points[0], points[points.length - 1]];
  const middle = points[Math.floor(points.length / 2)];
  if (!first || !last || !middle) return null;
  const by = path.by.slice(0, 2).map((seen) => nameOf(site, seen.head));
  const says =
    path.seen_m < 0.05 ? "never seen" : `seen ${seconds(path.seen_s)}${by.length ? ` by ${by.join(", ")}` : ""}`;
  return (
    <g className="quiet-path" data-testid="quiet-path" data-seen={path.seen_s.toFixed(2)}>
      <path d={`M${points.map((p) => p.join(" ")).join("L")}`} className="quiet-path-under" />
      <path d={`M${points.map((p) => p.join(" ")).join("L")}`} className="quiet-path-line" />
      <path d={`M${first[0] - 6} ${first[1] - 6}l12 12m0 -12l-12 12`} className="quiet-path-start" />
      <circle cx={last[0]} cy={last[1]} r={6} className="quiet-path-end" />
      <text x={middle[0] + 10} y={middle[1] - 8}>
        {says}
      </text>
    </g>
  );
}

function AskedMark({ at: [u, v] }: { at: Point }) {
  return (
    <g className="asked-mark" data-testid="asked-mark">
      <circle cx={u} cy={v} r={8} />
      <path d={`M${u - 13} ${v}h8M${u + 5} ${v}h8M${u} ${v - 13}v8M${u} ${v + 5}v8`} />
    </g>
  );
}
