/** Formula, inputs and source of a rule, from the page on methods. */
import { memo } from "react";
import Markdown from "react-markdown";
import type { RuleName } from "../../../core/types";
import { methodOf } from "./methods";

export const Method = memo(function Method({ rule }: { rule: RuleName }) {
  return (
    <div className="method">
      <Markdown>{methodOf(rule)}</Markdown>
    </div>
  );
});
