import type { SightLine } from "../engine/types";
import type { Shown } from "../engine/useStudy";

/** What the evaluation says of the sight line in hand. */
export function lineResult(shown: Shown): SightLine | undefined {
  const { line, study } = shown;
  if (!line || !study) return undefined;
  const is = (s: SightLine): boolean => s.camera === line.camera && s.head === line.head && s.target === line.target;
  return study.evaluation.sight_lines.find(is);
}
