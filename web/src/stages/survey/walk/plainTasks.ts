/** Tasks as people say them: the core's guide has them. */
import type { Guide, Target } from "../../../core/types";

/** What a target's subject and task come to in plain words. */
export const plainTask = (guide: Guide | null, target: Pick<Target, "subject" | "task">): string =>
  guide?.tasks.find((plain) => plain.subject === target.subject && plain.task === target.task)?.says ??
  `${target.task}: ${target.subject}`;

/** Whether the guide asks for a field before one leaves. */
export const isNeeded = (guide: Guide | null, list: "brief" | "spot" | "target", field: string): boolean =>
  guide?.[list].some((needed) => needed.field === field) ?? false;
