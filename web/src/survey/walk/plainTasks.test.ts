import { describe, expect, it } from "vitest";
import { PLAIN_TASKS, plainTask } from "./plainTasks";

describe("tasks in plain words", () => {
  it("say one thing each", () => {
    expect(new Set(PLAIN_TASKS.map((task) => task.says)).size).toBe(PLAIN_TASKS.length);
    expect(new Set(PLAIN_TASKS.map((task) => `${task.subject}/${task.task}`)).size).toBe(PLAIN_TASKS.length);
  });

  it("are found again, and others are said as they are", () => {
    for (const task of PLAIN_TASKS) expect(plainTask(task)).toBe(task.says);
    expect(plainTask({ subject: "vehicle", task: "inspect" })).toBe("inspect: vehicle");
  });
});
