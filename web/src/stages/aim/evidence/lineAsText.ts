/** A sight line as text for a message to the client: what must be seen, by which camera, how it stands, and why. */
import type { SightLine, SiteFile, Target, Units } from "../../../core/types";
import { cameraOf } from "../../../model/lookups";
import { nameOf } from "../../../model/views";
import { formatLength } from "../../../ui/length";
import { RULE_WORDS, TASK_WORDS, pixels, ruleLimit, ruleValue } from "../../../ui/words";

/** The density that the rule judges: seen steeply, the lesser of across and up; null out of the picture. */
export const densityOf = (line: SightLine): number | null =>
  line.px_per_m === null ? null : (line.rules.find(({ rule }) => rule === "pixel_density")?.value ?? line.px_per_m);

/** `needs` is what the promise needs, px/m; `leavesOut` what its verdict does not judge. */
export function lineAsText(
  site: SiteFile,
  target: Target,
  line: SightLine,
  { needs, leavesOut, units }: { needs: number | null; leavesOut: string; units: Units },
): string {
  const camera = cameraOf(site, line.camera);
  const view = line.preset ?? line.flattened;
  const by = nameOf(site, { camera: line.camera, head: line.head, view });
  const density = densityOf(line);
  const not = line.rules.filter(({ verdict }) => verdict !== "kept");
  return [
    `${site.name}: ${target.name}, ${TASK_WORDS[target.task]}`,
    `Camera: ${by}${camera ? `, ${camera.model.name}, ${formatLength(camera.height_m, units)} up` : ""}`,
    `Distance: ${formatLength(line.slant_m, units)} straight`,
    `Pixel density: ${density === null ? "out of the picture" : pixels(density, units)}${needs === null ? "" : `, needs ${pixels(needs, units)}`}`,
    `Verdict: ${line.verdict}`,
    ...not.map(
      (rule) =>
        `- ${RULE_WORDS[rule.rule]}: ${ruleValue(rule, units)}, limit ${ruleLimit(rule, units)} (${rule.verdict})`,
    ),
    leavesOut,
    "Computed from the survey, not evidence.",
  ]
    .filter((part) => part !== "")
    .join("\n");
}
