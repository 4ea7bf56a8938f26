/** The computed ways to keep the sight line in hand, each tried with one press. */
import { Button, Skeleton } from "antd";
import { memo } from "react";
import type { SiteFile, Verdict, Way } from "../../../core/types";
import type { WaysState } from "../../../core/useWays";
import { useSite } from "../../../keep/store";
import { patched } from "../../../model/patch";
import { VerdictMark } from "../../../ui/VerdictMark";

export function WaysList({ state, verdict, site }: { state: WaysState; verdict: Verdict | null; site: SiteFile }) {
  if (verdict === null || verdict === "kept" || state.kind === "none") return null;
  return (
    <div className="ways">
      <h3>Ways to keep it</h3>
      {state.kind === "asking" && <Waiting />}
      {state.kind === "found" && state.ways.why_none && <p className="hint">{state.ways.why_none}</p>}
      {state.kind === "found" && (
        <ol>
          {state.ways.ways.map((way) => (
            <WayRow key={`${way.kind} ${way.says}`} way={way} site={site} />
          ))}
        </ol>
      )}
      {state.kind === "found" && state.ways.cut_short && <p className="fine">{state.ways.cut_short}</p>}
      {state.kind === "found" && state.ways.cautions.length > 0 && (
        <p className="caution">{state.ways.cautions.join(" ")}</p>
      )}
    </div>
  );
}

function WayRow({ way, site }: { way: Way; site: SiteFile }) {
  const edit = useSite((store) => store.edit);
  const name = (id: string): string => site.targets.find((target) => target.id === id)?.name ?? id;
  // The places in its patch are those of the site that it was found for.
  const apply = (): void => {
    if (useSite.getState().open?.site === site) edit(way.says.slice(0, 200), patched(site, way.patch));
  };
  return (
    <li className="way">
      <div>
        <p className="way-says">{way.says}</p>
        <p className="fine">{way.why}</p>
        <ul className="effects">
          {way.effects
            .filter((effect) => effect.before !== effect.after)
            .map((effect) => (
              <li key={effect.target}>
                <VerdictMark verdict={effect.before} size={13} /> → <VerdictMark verdict={effect.after} size={13} />{" "}
                {name(effect.target)}: {effect.after}
              </li>
            ))}
        </ul>
      </div>
      <Button type="primary" onClick={apply} aria-label={`Try: ${way.says}`}>
        Try
      </Button>
    </li>
  );
}

const Waiting = memo(function Waiting() {
  return <Skeleton active title={false} paragraph={{ rows: 3 }} />;
});
