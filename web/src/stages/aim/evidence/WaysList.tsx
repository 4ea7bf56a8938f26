/** The computed ways to keep the sight line in hand, each tried with one press. */
import { App, Button, Skeleton } from "antd";
import { memo } from "react";
import type { HeadRef, SiteFile, Verdict, Way } from "../../../core/types";
import type { WaysState } from "../../../core/useWays";
import { takeOver } from "../../../keep/rebase";
import { useInHand } from "../../../model/inHand";
import { patched } from "../../../model/patch";
import { refOf } from "../../../model/views";
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

/** The head that keeps the promise where the one in hand stays as it is: it comes into hand. */
function keeper({ kind, patch }: Way, then: SiteFile): HeadRef | null {
  if (kind === "overview") return null;
  if (kind === "camera" || (kind === "choke" && patch[0]?.op === "add" && patch[0].path === "/cameras/-")) {
    const added = then.cameras.at(-1);
    return added?.heads[0] ? refOf(added, added.heads[0]) : null;
  }
  const [, camera, head] = /^\/cameras\/(\d+)\/heads\/(\d+)/.exec(patch[0]?.path ?? "") ?? [];
  const turned = kind === "other_head" && camera && head ? then.cameras[Number(camera)] : undefined;
  const of = turned?.heads[Number(head)];
  const [, list, place] = /\/(presets|flattened)\/(\d+)\//.exec(patch[0]?.path ?? "") ?? [];
  const view = of && (list === "presets" ? of.presets : list ? of.flattened : undefined)?.[Number(place)]?.id;
  return turned && of ? refOf(turned, of, view) : null;
}

function WayRow({ way, site }: { way: Way; site: SiteFile }) {
  const { message } = App.useApp();
  const name = (id: string): string => site.targets.find((target) => target.id === id)?.name ?? id;
  const takeHead = useInHand((state) => state.takeHead);
  // The places in its patch are those of the site that it was found for.
  const apply = async (): Promise<void> => {
    const then = patched(site, way.patch);
    if (!(await takeOver(way.says.slice(0, 200), site, then)))
      return void message.warning(
        "The site has moved on since this way was found; the ways are being looked for anew.",
      );
    const head = keeper(way, then);
    if (head) takeHead(head);
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
      <Button type="primary" onClick={() => void apply()} aria-label={`Try: ${way.says}`}>
        Try
      </Button>
    </li>
  );
}

const Waiting = memo(function Waiting() {
  return <Skeleton active title={false} paragraph={{ rows: 3 }} />;
});
