/** The computed ways to keep the sight line in hand, each tried with one press. */
import type { HeadRef, SiteFile, Verdict } from "../../../core/types";
import type { WaysState } from "../../../core/useWays";
import { useInHand } from "../../../model/inHand";
import { keyOf } from "../../../model/views";
import { WayRow } from "../ways/WayRow";

interface Props {
  state: WaysState;
  verdict: Verdict | null;
  site: SiteFile;
  /** The head of the sight line that they are asked for. */
  inHand: HeadRef;
}

export function WaysList({ state, verdict, site, inHand }: Props) {
  const takeHead = useInHand((held) => held.takeHead);
  if (verdict === null || verdict === "kept" || state.kind === "none") return null;
  return (
    <div className="ways">
      <h3>Ways to keep it</h3>
      {state.kind === "asking" && <p className="hint">Working …</p>}
      {state.kind === "found" && state.ways.why_none && <p className="hint">{state.ways.why_none}</p>}
      {state.kind === "found" && (
        <ol>
          {state.ways.ways.map((way) => (
            <WayRow
              key={`${way.kind} ${way.says}`}
              way={way}
              site={site}
              verb="Try"
              large
              // The head that keeps the promise comes into hand, where that is another one.
              onTaken={() => keyOf(way.head) !== keyOf(inHand) && takeHead(way.head)}
            />
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
