/** What lies under the plan: one of the tools that apply to what is in hand. */
import { Suspense, memo } from "react";
import { useCalm } from "../../core/hand";
import type { GroundShown } from "../../core/useGround";
import type { Shown } from "../../core/useSights";
import { useSettings } from "../../keep/settings";
import { useInHand } from "../../model/inHand";
import { useLower } from "./lowerView";
import { TOOLS, type ToolId, turnTo } from "./tools";
import { Segmented } from "../../ui/controls";

interface Props {
  shown: Shown;
  calm: Shown;
  ground: GroundShown | null;
}

export function LowerPanel({ shown, calm, ground }: Props) {
  const units = useSettings((settings) => settings.units);
  const held = useLower((state) => state.tool);
  const { target } = useCalm(useInHand());
  const there = TOOLS.filter(({ applies }) => applies?.(calm.site, target) ?? true);
  const tool = there.find(({ id }) => id === held) ?? TOOLS[0];
  if (!tool) return null;
  const { id, name, title, Panel } = tool;
  return (
    <section className="section" aria-label={name}>
      <div className="panel-head">
        <Tabs tool={id} there={there.map((one) => one.id).join()} />
        <h2>{title(shown)}</h2>
      </div>
      <Suspense fallback={<p className="hint">Working …</p>}>
        <Panel key={id} shown={shown} calm={calm} ground={ground} units={units} />
      </Suspense>
    </section>
  );
}

/** `there` is a list of ids, so that equal lists are the same one. */
const Tabs = memo(function Tabs({ tool, there }: { tool: ToolId; there: string }) {
  const ids = there.split(",");
  return (
    <Segmented
      size="small"
      aria-label="Under the plan"
      value={tool}
      options={TOOLS.filter(({ id }) => ids.includes(id)).map(({ id, label }) => ({ value: id, label }))}
      onChange={turnTo}
    />
  );
});
