/** Tasks as people say them: the core's guide has them. */
import { GUIDE } from "../../../core/guide";
import type { Target } from "../../../core/types";

/** What a target's subject and task come to in plain words. */
export const plainTask = (target: Pick<Target, "subject" | "task">): string =>
  GUIDE.tasks.find((plain) => plain.subject === target.subject && plain.task === target.task)?.says ??
  `${target.task}: ${target.subject}`;

/** Whether the guide asks for a field before one leaves. */
export const isNeeded = (list: "brief" | "spot" | "target", field: string): boolean =>
  GUIDE[list].some((needed) => needed.field === field);
