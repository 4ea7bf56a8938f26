import { describe, expect, it } from "vitest";
import type { Guide } from "../../../core/types";
import { isNeeded, plainTask } from "./plainTasks";

const guide: Guide = {
  tasks: [{ says: "read plates", subject: "plate", task: "read", height_m: 0.7 }],
  usual: [],
  target: [],
  spot: [],
  brief: [{ field: "client", asks: "Who is the client?" }],
  sizes: [],
  plates: [],
  defaults: { slew_deg_s: 80, zoom_s: 2, apart_deg: 30 },
};

describe("tasks in plain words", () => {
  it("are found in the guide, and others are said as they are", () => {
    expect(plainTask(guide, { subject: "plate", task: "read" })).toBe("read plates");
    expect(plainTask(guide, { subject: "vehicle", task: "inspect" })).toBe("inspect: vehicle");
    expect(plainTask(null, { subject: "plate", task: "read" })).toBe("read: plate");
  });

  it("tell what is needed", () => {
    expect([
      isNeeded(guide, "brief", "client"),
      isNeeded(guide, "brief", "style"),
      isNeeded(null, "brief", "client"),
    ]).toEqual([true, false, false]);
  });
});
