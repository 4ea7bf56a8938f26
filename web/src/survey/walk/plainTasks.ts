/** Tasks as people say them, each with the subject, the task and the usual height that it stands for. */
import type { Subject, Target, Task } from "../../engine/types";

interface PlainTask {
  says: string;
  subject: Subject;
  task: Task;
  height_m: number;
}

export const PLAIN_TASKS: PlainTask[] = [
  { says: "know a face", subject: "face", task: "identify", height_m: 1.6 },
  { says: "know again somebody known", subject: "face", task: "recognise", height_m: 1.6 },
  { says: "see what somebody does", subject: "person", task: "observe", height_m: 1.2 },
  { says: "see that somebody is there", subject: "person", task: "detect", height_m: 1.2 },
  { says: "see a crowd or a queue", subject: "person", task: "monitor", height_m: 1.2 },
  { says: "read plates", subject: "plate", task: "read", height_m: 0.7 },
  { says: "tell a car", subject: "vehicle", task: "recognise", height_m: 1 },
  { says: "see that a car is there", subject: "vehicle", task: "detect", height_m: 1 },
  { says: "watch over the whole", subject: "scene", task: "observe", height_m: 0.5 },
  { says: "see small things, notes, hands", subject: "scene", task: "inspect", height_m: 1 },
];

/** What a target's subject and task come to in plain words. */
export const plainTask = (target: Pick<Target, "subject" | "task">): string =>
  PLAIN_TASKS.find((plain) => plain.subject === target.subject && plain.task === target.task)?.says ?? `${target.task}: ${target.subject}`;
