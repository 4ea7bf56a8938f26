/** The computed ways to keep the sight line in hand, each tried with one press. */
import { Button, Skeleton } from "antd";
import { type Operation, applyPatch } from "fast-json-patch";
import type { SiteFile, Verdict, Way } from "../../engine/types";
import type { WaysState } from "../../engine/useWays";
import { useSite } from "../../site/store";
import { VerdictMark } from "../../verdict/VerdictMark";

export function WaysList({ state, verdict, site }: { state: WaysState; verdict: Verdict | null; site: SiteFile }) {
  if (verdict === null || verdict === "kept" || state.kind === "none") return null;
  return (
    <div className="ways">
      <h3>Ways to keep it</h3>
      {state.kind === "asking" && <Skeleton active title={false} paragraph={{ rows: 3 }} />}
      {state.kind === "away" && <p className="hint">The server does not answer now.</p>}
      {state.kind === "found" && state.ways.why_none && <p className="hint">{state.ways.why_none}</p>}
      {state.kind === "found" && (
        <ol>
          {state.ways.ways.map((way) => <WayRow key={way.says} way={way} site={site} />)}
        </ol>
      )}
      {state.kind === "found" && <Cautions ways={state.ways.ways} />}
    </div>
  );
}

function WayRow({ way, site }: { way: Way; site: SiteFile }) {
  const edit = useSite((store) => store.edit);
  const name = (id: string): string => site.targets.find((target) => target.id === id)?.name ?? id;
  const apply = (): void =>
    edit(way.says.slice(0, 200), (draft) => { applyPatch(draft, way.patch as Operation[], true, true); });
  return (
    <li className="way">
      <div>
        <p className="way-says">{way.says}</p>
        <p className="fine">{way.why}</p>
        <ul className="effects">
          {way.effects.filter((effect) => effect.before !== effect.after).map((effect) => (
            <li key={effect.target}>
              <VerdictMark verdict={effect.before} size={13} /> → <VerdictMark verdict={effect.after} size={13} /> {name(effect.target)}: {effect.after}
            </li>
          ))}
        </ul>
      </div>
      <Button type="primary" onClick={apply} aria-label={`Try: ${way.says}`}>Try</Button>
    </li>
  );
}

/** What to mind before hands follow the screen. */
function Cautions({ ways }: { ways: Way[] }) {
  if (ways.length === 0) return null;
  const paths = ways.flatMap((way) => way.patch.map((op) => op.path));
  const moves = paths.some((path) => /\/(height_m|position)$/.test(path));
  const swaps = paths.some((path) => path.endsWith("/model"));
  return (
    <p className="caution">
      Before hands follow: work at height from a footed ladder or platform, and within local rules.
      {moves && " A new place: look for concealed pipes and cables before drilling, and hang the lanyard before letting go."}
      {swaps && " A changed camera or lens: power off first; check what the mount bears."} Local codes and licensed practice decide.
    </p>
  );
}
