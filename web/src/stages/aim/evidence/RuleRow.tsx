/** One rule's finding; it opens to the formula, the inputs and the source. */
import { memo } from "react";
import Markdown from "react-markdown";
import type { RuleName, RuleResult, SightLine } from "../../../core/types";
import type { Shown } from "../../../core/useSights";
import { useSettings } from "../../../keep/settings";
import { formatLength } from "../../../ui/length";
import { VerdictMark } from "../../../ui/VerdictMark";
import { RULE_WORDS, ruleLimit, ruleValue, share } from "../../../ui/words";
import { methodOf } from "./methods";

/** Formula, inputs and source, from the page on methods. */
const Method = memo(function Method({ rule }: { rule: RuleName }) {
  return (
    <div className="method">
      <Markdown>{methodOf(rule)}</Markdown>
    </div>
  );
});

/** What hides the subject, or may hide it. */
function inTheWay(rule: RuleResult, line: SightLine, nameOf: (id: string) => string): string {
  const blocker = line.blocked_by === null ? null : nameOf(line.blocked_by);
  if (rule.value !== null && rule.value > 0) {
    const much = rule.value > 0.995 || !line.clear ? "" : ` hides ${share(rule.value)}`;
    return blocker === null ? ruleValue(rule) : `${blocker}${much}`;
  }
  return line.may_hide.length > 0 ? `perhaps ${line.may_hide.map(nameOf).join(", ")}` : ruleValue(rule);
}

export function RuleRow({ rule, line, shown }: { rule: RuleResult; line: SightLine; shown: Shown }) {
  const units = useSettings((settings) => settings.units);
  const nameOf = (id: string): string => shown.site.obstacles?.find((o) => o.id === id)?.name ?? id;
  const through = line.seen_through.map(nameOf);
  const found = rule.rule === "clear" ? inTheWay(rule, line, nameOf) : ruleValue(rule);
  return (
    <details className="rule">
      <summary>
        <VerdictMark verdict={rule.verdict} size={15} />
        <span className="rule-name">{RULE_WORDS[rule.rule]}</span>
        <span className="rule-value figure">{found}</span>
        <span className={`verdict-word verdict-word-${rule.verdict}`}>{rule.verdict}</span>
      </summary>
      <dl className="rule-inputs">
        <div>
          <dt>Held against</dt>
          <dd className="figure">{ruleLimit(rule)}</dd>
        </div>
        {rule.worst !== null && (
          <div>
            <dt>At worst</dt>
            <dd className="figure">{ruleValue(rule, rule.worst)}</dd>
          </div>
        )}
        <div>
          <dt>Distance</dt>
          <dd className="figure">
            {formatLength(line.slant_m, units)} slant, {formatLength(line.ground_m, units)} level
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
      <Method rule={rule.rule} />
    </details>
  );
}
