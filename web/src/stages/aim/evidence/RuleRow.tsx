/** One rule's finding; it opens to the formula, the inputs and the source. */
import { Suspense, lazy, useState } from "react";
import type { RuleResult, SightLine, Units } from "../../../core/types";
import type { Shown } from "../../../core/useSights";
import { useSettings } from "../../../keep/settings";
import { formatLength } from "../../../ui/length";
import { VerdictMark } from "../../../ui/VerdictMark";
import { RULE_WORDS, ruleLimit, ruleValue, share } from "../../../ui/words";

/** Formula, inputs and source: they come when a rule is first opened. */
const Method = lazy(() => import("./Method").then((module) => ({ default: module.Method })));

/** What hides the subject, or may hide it. */
function inTheWay(rule: RuleResult, line: SightLine, units: Units, nameOf: (id: string) => string): string {
  const blocker = line.blocked_by === null ? null : nameOf(line.blocked_by);
  if (rule.value !== null && rule.value > 0) {
    const much = rule.value > 0.995 || !line.clear ? "" : ` hides ${share(rule.value)}`;
    return blocker === null ? ruleValue(rule, units) : `${blocker}${much}`;
  }
  return line.may_hide.length > 0 ? `perhaps ${line.may_hide.map(nameOf).join(", ")}` : ruleValue(rule, units);
}

export function RuleRow({ rule, line, shown }: { rule: RuleResult; line: SightLine; shown: Shown }) {
  const units = useSettings((settings) => settings.units);
  const nameOf = (id: string): string => shown.site.obstacles?.find((o) => o.id === id)?.name ?? id;
  const [opened, setOpened] = useState(false);
  const through = line.seen_through.map(nameOf);
  const found = rule.rule === "clear" ? inTheWay(rule, line, units, nameOf) : ruleValue(rule, units);
  return (
    <details className="rule" onToggle={(event) => setOpened(event.currentTarget.open)}>
      <summary>
        <VerdictMark verdict={rule.verdict} size={15} />
        <span className="rule-name">{RULE_WORDS[rule.rule]}</span>
        <span className="rule-value figure">{found}</span>
        <span className={`verdict-word verdict-word-${rule.verdict}`}>{rule.verdict}</span>
      </summary>
      <dl className="rule-inputs">
        <div>
          <dt>Limit</dt>
          <dd className="figure">{ruleLimit(rule, units)}</dd>
        </div>
        {rule.worst !== null && (
          <div>
            <dt>Worst case</dt>
            <dd className="figure">{ruleValue(rule, units, rule.worst)}</dd>
          </div>
        )}
        <div>
          <dt>Distance</dt>
          <dd className="figure">
            {formatLength(line.slant_m, units)} straight, {formatLength(line.ground_m, units)} horizontal
          </dd>
        </div>
        <div>
          <dt>Seen from</dt>
          <dd className="figure">
            {Math.abs(line.depression_deg).toFixed(1)}° {line.depression_deg >= 0 ? "above" : "below"}
          </dd>
        </div>
        <div>
          <dt>In the picture at</dt>
          <dd className="figure">{line.pixel.map((c) => c.toFixed(0)).join(", ")} px</dd>
        </div>
        {rule.rule === "clear" && through.length > 0 && (
          <div>
            <dt>Seen through</dt>
            <dd>{through.join(", ")}</dd>
          </div>
        )}
        <div>
          <dt>Source</dt>
          <dd>{rule.basis}</dd>
        </div>
      </dl>
      {opened && (
        <Suspense fallback={<p className="hint">Working …</p>}>
          <Method rule={rule.rule} />
        </Suspense>
      )}
    </details>
  );
}
