/** Two designs beside each other on the same promises: both drawn, both in figures, and what differs in words. */
import { App } from "antd";
import { useMemo } from "react";
import { useAnswer } from "../../../core/useAsked";
import { Told } from "../../../ui/Told";
import type { DesignFacts, SideBySide, SiteFile, Target, Units } from "../../../core/types";
import { useSettings } from "../../../keep/settings";
import { designsOf, siteWith } from "../../../model/designs";
import { Sheet } from "../../../plan/Sheet";
import { CameraMark } from "../../../plan/layers/CameraMark";
import { Solids } from "../../../plan/layers/Solids";
import { TargetMark } from "../../../plan/layers/TargetMark";
import { VerdictMark } from "../../../ui/VerdictMark";
import { formatArea } from "../../../ui/length";
import { SiteRelief } from "../AimPlan";
import { useNeeds } from "../verdicts";
import { useGroundView } from "../ground/groundView";
import { adopt } from "./DesignsPanel";
import { useDesigns } from "./designsView";
import { Button, Select } from "../../../ui/controls";

interface Props {
  site: SiteFile;
  left: string | null;
  right: string | null;
}

export function SideBySideView({ site, left, right }: Props) {
  const { need, height } = useGroundView();
  const units = useSettings((settings) => settings.units);
  const { value: told, settled } = useAnswer(
    site,
    { ask: "designs", left, right, wish: { need_px_per_m: need, height_m: height, goal: null } },
    { rest: "live", by: "surveyor" },
  );
  return (
    <div className="side-by-side" data-testid="side-by-side" data-settled={settled}>
      <Head site={site} side="left" id={left} other={right} />
      <Head site={site} side="right" id={right} other={left} />
      <Drawn site={site} id={left} sheet={0} facts={told?.left ?? null} />
      <Drawn site={site} id={right} sheet={1} facts={told?.right ?? null} />
      {told ? (
        <Told settled={settled} className="side-told">
          <Figures told={told} targets={site.targets} units={units} />
        </Told>
      ) : (
        <p className="hint">Working …</p>
      )}
    </div>
  );
}

function Head({
  site,
  side,
  id,
  other,
}: {
  site: SiteFile;
  side: "left" | "right";
  id: string | null;
  other: string | null;
}) {
  const { lay, close } = useDesigns();
  const { message } = App.useApp();
  const designs = designsOf(site);
  const take = async (): Promise<void> => {
    const name = designs.find((held) => held.id === id)?.name ?? "";
    if (id === null) return;
    if (await adopt(site, id, name)) close();
    else void message.warning("The site has moved on; try again.");
  };
  const choose = (chosen: string): void => {
    const taken = chosen === "" ? null : chosen;
    if (side === "left") lay(taken, other);
    else lay(other, taken);
  };
  return (
    <div className="side-head">
      <Select
        aria-label={side === "left" ? "Option on the left" : "Option on the right"}
        value={id ?? ""}
        options={designs.map((held) => ({ value: held.id ?? "", label: held.name }))}
        popupMatchSelectWidth={false}
        onChange={choose}
      />
      {id === null ? (
        <span className="fine">on the plan now</span>
      ) : (
        <Button type="primary" size="small" onClick={() => void take()}>
          Use this option
        </Button>
      )}
      {side === "right" && (
        <Button size="small" onClick={close}>
          Back to the plan
        </Button>
      )}
    </div>
  );
}

const nothing = (): void => undefined;
const LOOKED_AT = {
  cameras: { onTake: nothing, onMove: nothing, onAim: nothing },
  targets: { onTake: nothing, onMove: nothing, onShape: nothing },
};

function Drawn({
  site,
  id,
  sheet,
  facts,
}: {
  site: SiteFile;
  id: string | null;
  sheet: 0 | 1;
  facts: DesignFacts | null;
}) {
  const { units, dark } = useSettings();
  const height = useGroundView((state) => state.height);
  const drawn = useMemo(() => siteWith(site, id), [site, id]);
  const needs = useNeeds(facts?.targets ?? []);
  const verdicts = new Map(facts?.targets.map((result) => [result.target, result.verdict]));
  return (
    <Sheet
      site={drawn}
      id={`design-${sheet}-${id ?? ""}`}
      units={units}
      label={sheet === 0 ? "Plan of the option on the left" : "Plan of the option on the right"}
      ground={<SiteRelief site={drawn} height={height} needs={needs} dark={dark} sheet={sheet} />}
      layers={[
        {
          draw: (view) => (
            <>
              <Solids view={view} obstacles={site.obstacles} units={units} />
              {drawn.cameras.map((camera) => (
                <CameraMark key={camera.id} view={view} camera={camera} inHand={null} actions={LOOKED_AT.cameras} />
              ))}
              {site.targets.map((target) => (
                <TargetMark
                  key={target.id}
                  view={view}
                  target={target}
                  verdict={verdicts.get(target.id) ?? null}
                  inHand={false}
                  actions={LOOKED_AT.targets}
                />
              ))}
            </>
          ),
        },
      ]}
    />
  );
}

function Figures({
  told: { left, right, differs },
  targets,
  units,
}: {
  told: SideBySide;
  targets: Target[];
  units: Units;
}) {
  const percent = (share: number | null): string => (share === null ? "–" : `${Math.round(share * 100)} %`);
  const price = (facts: DesignFacts): string => (facts.price === null ? "not given" : facts.price.toFixed(0));
  const rows: [string, (facts: DesignFacts) => string][] = [
    ["Kept", (facts) => `${facts.kept} of ${facts.targets.length}`],
    ["Tight", (facts) => String(facts.tight)],
    ["Lost when one camera fails", (facts) => String(facts.lost_with_one)],
    ["Ground seen", (facts) => formatArea(facts.seen_m2, units)],
    ["Seen by two cameras", (facts) => formatArea(facts.twice_m2, units)],
    ["Seen only by PTZ tour", (facts) => formatArea(facts.in_turns_m2, units)],
    ["Largest unseen patch", (facts) => formatArea(facts.largest_unseen_m2, units)],
    ["Picture put to use", (facts) => percent(facts.useful)],
    ["Cable drops", (facts) => String(facts.cables)],
    ["Camera views to maintain", (facts) => String(facts.heads)],
    ["Cameras to pay", price],
  ];
  return (
    <div className="side-figures" tabIndex={0} role="region" aria-label="Both options in figures">
      <dl aria-label="Figures of both options">
        <div className="side-figures-head">
          <dt />
          <dd>{left.name}</dd>
          <dd>{right.name}</dd>
        </div>
        {rows.map(([says, of]) => (
          <div key={says}>
            <dt>{says}</dt>
            <dd className="figure">{of(left)}</dd>
            <dd className="figure">{of(right)}</dd>
          </div>
        ))}
      </dl>
      <dl aria-label="Promises with both options">
        {targets.map((target, place) => (
          <div key={target.id}>
            <dt>{target.name}</dt>
            <dd>
              <VerdictMark verdict={left.targets[place]?.verdict ?? null} size={14} /> {left.targets[place]?.verdict}
            </dd>
            <dd>
              <VerdictMark verdict={right.targets[place]?.verdict ?? null} size={14} /> {right.targets[place]?.verdict}
            </dd>
          </div>
        ))}
      </dl>
      <div>
        <h3>What differs</h3>
        {differs.length === 0 && <p className="fine">Nothing that is judged.</p>}
        <ul aria-label="What differs">
          {differs.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
      </div>
    </div>
  );
}
