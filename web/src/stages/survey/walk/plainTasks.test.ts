import { describe, expect, it } from "vitest";
import { isNeeded, plainTask } from "./plainTasks";

describe("tasks in plain words", () => {
  it("are found in the guide, and others are said as they are", () => {
    expect(plainTask({ subject: "plate", task: "read" })).toBe("read plates");
    expect(plainTask({ subject: "vehicle", task: "inspect" })).toBe("inspect: vehicle");
  });

  it("tell what is needed", () => {
    expect([isNeeded("brief", "client"), isNeeded("brief", "style"), isNeeded("spot", "surface")]).toEqual([
      true,
      false,
      true,
    ]);
  });
});
