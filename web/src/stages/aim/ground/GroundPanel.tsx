/** What the relief tells about the ground, in figures: how much is seen how often, what nobody sees, the least-seen route, what is lost. */
import { memo } from "react";
import type { GroundShown } from "../../../core/useGround";
import { useAnswer } from "../../../core/useAsked";
import { Told } from "../../../ui/Told";
import type { SiteFile, Units } from "../../../core/types";
import { useInHand } from "../../../model/inHand";
import { nameOf } from "../../../model/views";
import { usePlanView } from "../../../plan/planView";
import { formatArea, formatLength } from "../../../ui/length";
import { TASK_WORDS, seconds } from "../../../ui/words";
import { WayRow } from "../ways/WayRow";
import { useGroundView, useGroundWish } from "./groundView";
import { Button, Select, Switch } from "../../../ui/controls";
import "./ground.css";

export const GroundPanel = memo(function GroundPanel({
  site,
  ground,
  units,
}: {
  site: SiteFile;
  ground: GroundShown | null;
  units: Units;
}) {
  const wish = useGroundWish(site);
  const settled = ground?.of === site && JSON.stringify(ground.wish) === JSON.stringify(wish);
  return (
    <div className="ground-panel" data-settled={settled}>
      <Wishes targets={site.targets} table={JSON.stringify(ground?.told.needs ?? [])} />
      {ground ? (
        <Told settled={settled}>
          <Figures ground={ground} site={site} units={units} />
        </Told>
      ) : (
        <p className="hint">Working …</p>
      )}
      <Losses site={site} />
    </div>
  );
});

/** The need, the goal of the least-seen route, and what is asked; `table` is JSON, so that equal tables are the same. */
const Wishes = memo(function Wishes({ targets, table }: { targets: SiteFile["targets"]; table: string }) {
  const { need, goal, counting, set } = useGroundView();
  const { placing, place } = useInHand();
  const needs = (JSON.parse(table) as GroundShown["told"]["needs"]).map(({ task, px_per_m }) => ({
    value: px_per_m,
    label: `${TASK_WORDS[task]} ${px_per_m}`,
  }));
  const own = needs.some((held) => held.value === need) ? [] : [{ value: need, label: `${need} px/m` }];
  const goals = [
    { value: "", label: "none" },
    ...targets.map((target) => ({ value: target.id, label: `to ${target.name}` })),
    ...(Array.isArray(goal) ? [{ value: "place", label: "to a place on the plan" }] : []),
    { value: "point", label: "to another place: click on the plan" },
  ];
  return (
    <div className="ground-wishes">
      <label>
        Seen means
        <Select
          size="small"
          aria-label="Need that counts as seen"
          value={need}
          options={[...own, ...needs]}
          popupMatchSelectWidth={false}
          onChange={(value: number) => set({ need: value })}
        />
      </label>
      <label>
        Least-seen route
        <Select
          size="small"
          aria-label="Where the least-seen route leads"
          value={Array.isArray(goal) ? "place" : (goal ?? "")}
          options={goals}
          popupMatchSelectWidth={false}
          onChange={(value: string) => {
            if (value === "point") place("goal");
            else if (value !== "place") set({ goal: value || null });
          }}
        />
      </label>
      <Button
        size="small"
        type="primary"
        aria-pressed={placing === "why"}
        onClick={() => place(placing === "why" ? null : "why")}
      >
        Ask why
      </Button>
      <label className="switch-line">
        <Switch size="small" checked={counting} onChange={(value) => set({ counting: value })} /> how many see it
      </label>
    </div>
  );
});

function Figures({ ground, site, units }: { ground: GroundShown; site: SiteFile; units: Units }) {
  const { told } = ground;
  const view = usePlanView();
  const rows: [string, number][] = [
    ["seen", told.seen_m2],
    ["by two cameras", told.twice_m2],
    ["only by PTZ tour", told.in_turns_m2],
    ["by no camera", Math.max(told.open_m2 - told.seen_m2 - told.in_turns_m2, 0)],
  ];
  const largest = told.unseen[0];
  return (
    <div className="ground-figures">
      <dl className="ground-shares" aria-label="Ground">
        {rows.map(([says, area]) => (
          <div key={says}>
            <dt>{says}</dt>
            <dd className="figure">{formatArea(area, units)}</dd>
            <dd className="figure fine">{told.open_m2 > 0 ? percent(area / told.open_m2) : ""}</dd>
          </div>
        ))}
      </dl>
      <div>
        {largest ? (
          <button
            type="button"
            className="as-link"
            onClick={() => view.set({ centre: largest.at as [number, number] })}
          >
            Largest unseen patch {formatArea(largest.area_m2, units)}, {told.unseen.length} in all
          </button>
        ) : (
          <p>No unseen patch that somebody can stand in.</p>
        )}
        {site.rules?.overlap === "spread" && told.twice_m2 > 0 && (
          <p className="fine">Spread is wanted: {formatArea(told.twice_m2, units)} are watched by two cameras.</p>
        )}
        <PathSays ground={ground} site={site} units={units} />
        {told.targets.map((area) => (
          <p key={area.target} className="fine">
            {site.targets.find((target) => target.id === area.target)?.name ?? area.target}: {percent(area.seen)} seen,{" "}
            {percent(area.twice)} twice
          </p>
        ))}
        <p className="fine">
          Ground one can stand on, within five metres of all that is drawn; nothing narrower than{" "}
          {formatLength(told.cell_m, units)} is told apart.
        </p>
      </div>
    </div>
  );
}

const percent = (share: number): string => `${Math.round(share * 100)} %`;

function PathSays({ ground: { told }, site, units }: { ground: GroundShown; site: SiteFile; units: Units }) {
  if (told.no_path) return <p data-testid="path-says">{told.no_path}</p>;
  const { path } = told;
  if (!path) return null;
  const by = path.by.slice(0, 3).map((seen) => `${nameOf(site, seen.head)} ${seconds(seen.seconds)}`);
  return (
    <>
      <p data-testid="path-says">
        Least-seen route: {formatLength(path.length_m, units, 0)} on foot,{" "}
        <strong>{path.seen_m < 0.05 ? "never seen" : `seen for ${seconds(path.seen_s)}`}</strong>
        {by.length > 0 && ` (${by.join(", ")})`}
      </p>
      <LookBack path={path.points} told={told} site={site} units={units} />
    </>
  );
}

/** Cameras that look back along the wall that the least-seen route follows. */
function LookBack({
  path,
  told,
  site,
  units,
}: {
  path: number[][];
  told: GroundShown["told"];
  site: SiteFile;
  units: Units;
}) {
  const asked = useAnswer(
    site,
    {
      ask: "look_back",
      path: path as [number, number][],
      height_m: told.height_m,
      need_px_per_m: told.need_px_per_m,
      units,
    },
    { rest: 400, by: "surveyor" },
  );
  if (!asked.value || asked.value.length === 0) return null;
  return (
    <Told testId="look-back" settled={asked.settled}>
      <ul className="ways">
        {asked.value.map((way) => (
          <WayRow key={way.says} way={way} site={asked.of ?? site} verb="Try" />
        ))}
      </ul>
    </Told>
  );
}

/** What is lost with a camera, and how the promises stand in another season or with a gate open. */
function Losses({ site }: { site: SiteFile }) {
  // Once the hand rests: nobody reads it on the move.
  const rests = { rest: 400, by: "surveyor" } as const;
  const lost = useAnswer(site, { ask: "lost" }, rests);
  const states = useAnswer(site, { ask: "other_states" }, rests);
  if (!lost.value || !states.value) return <div className="ground-losses" />;
  const [all, other] = [lost.value, states.value];
  const nameOfTarget = (id: string): string => site.targets.find((target) => target.id === id)?.name ?? id;
  const cameras = site.cameras.map((camera) => ({
    camera,
    lost: all.filter((one) => one.camera === camera.id),
  }));
  const hurting = cameras.filter((one) => one.lost.length > 0);
  const school = site.rules?.overlap;
  const changing = other.filter((state) => state.changes.length > 0);
  return (
    <Told className="ground-losses" testId="losses" settled={lost.settled && states.settled}>
      <h3>If one camera fails</h3>
      {school === "back_up" && hurting.length > 0 && (
        <p className="caution">
          Back-up is wanted: {all.length} {all.length === 1 ? "promise is" : "promises are"} lost if one camera fails.
        </p>
      )}
      {hurting.length === 0 ? (
        <p className="fine">No promise is lost if one camera fails.</p>
      ) : (
        <ul>
          {hurting.map(({ camera, lost: gone }) => (
            <li key={camera.id}>
              <strong>{camera.name}</strong> {gone.map((l) => `${nameOfTarget(l.target)} ${l.after}`).join(", ")}
            </li>
          ))}
        </ul>
      )}
      {other.length > 0 && (
        <>
          <h3>At other times</h3>
          {changing.length === 0 && <p className="fine">Seasons, growth and doors change no promise.</p>}
          <ul>
            {changing.map((state) => (
              <li key={state.says}>
                <strong>{state.says}</strong>{" "}
                {state.changes.map((c) => `${nameOfTarget(c.target)} ${c.after}`).join(", ")}
              </li>
            ))}
          </ul>
        </>
      )}
    </Told>
  );
}
