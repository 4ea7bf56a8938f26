/** The tools: each answers a question about what is selected, under the plan or in its place. */
import { Suspense, memo } from "react";
import { useCalm } from "../../core/hand";
import type { GroundShown } from "../../core/useGround";
import type { Shown } from "../../core/useSights";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { PaneEdge } from "./PaneEdge";
import { toggleFill, useLower } from "./lowerView";
import { TOOLS, type ToolId, turnTo } from "./tools";

interface Props {
  shown: Shown;
  calm: Shown;
  ground: GroundShown | null;
}

export function LowerPanel({ shown, calm, ground }: Props) {
  const units = useSettings((settings) => settings.units);
  const { tool: held, fills } = useLower();
  const { target } = useCalm(useInHand());
  const there = TOOLS.filter(({ applies }) => applies?.(calm.site, target) ?? true);
  const tool = there.find(({ id }) => id === held) ?? TOOLS[0];
  if (!tool) return null;
  const { id, name, title, Panel } = tool;
  return (
    <section className="section" aria-label={name}>
      {!fills && <PaneEdge />}
      <Tabs tool={id} there={there.map((one) => one.id).join()} fills={fills} />
      <h2 className="tool-title">{title(shown)}</h2>
      <div className="tool-body">
        <Suspense fallback={<p className="hint">Working …</p>}>
          <Panel key={id} shown={shown} calm={calm} ground={ground} units={units} />
        </Suspense>
      </div>
    </section>
  );
}

/** `there` is a list of ids, so that equal lists are the same one. */
const Tabs = memo(function Tabs({ tool, there, fills }: { tool: ToolId; there: string; fills: boolean }) {
  const ids = there.split(",");
  return (
    <div className="tool-tabs">
      <div role="tablist" aria-label="Tools">
        {TOOLS.filter(({ id }) => ids.includes(id)).map(({ id, question, short }) => (
          <button
            key={id}
            type="button"
            role="tab"
            aria-selected={id === tool}
            aria-label={question}
            title={`${question} A double click fills the middle with it.`}
            data-testid={`tool-${id}`}
            onClick={() => turnTo(id)}
            onDoubleClick={toggleFill}
          >
            <span className="tool-question">{question}</span>
            <span className="tool-short">{short}</span>
          </button>
        ))}
      </div>
      <button
        type="button"
        className="tool-fill"
        aria-pressed={fills}
        aria-label={fills ? "Back under the plan (F)" : "Fill the middle (F)"}
        title={fills ? "Back under the plan (F)" : "Fill the middle (F)"}
        onClick={toggleFill}
      >
        <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
          <path d={fills ? "M2 2h12v12H2ZM2 9h12" : "M2 2h12v12H2ZM2 6V2h12v4Z"} />
        </svg>
      </button>
    </div>
  );
});
