/** The methods page, cut into the part that each rule opens to. */
import text from "../../../../../docs/methods.md?raw";
import type { RuleName } from "../../../core/types";

/** Each part begins with a heading that ends in the rule's name in brackets: `## Clear line (clear)`. */
const PARTS = new Map<string, string>();
for (const part of text.split(/^## /m).slice(1)) {
  const name = /^.*\(([a-z_]+)\)\s*$/m.exec(part.split("\n", 1)[0] ?? "")?.[1];
  if (name) PARTS.set(name, part.slice(part.indexOf("\n") + 1).trim());
}

export function methodOf(rule: RuleName): string {
  return PARTS.get(rule) ?? "";
}
