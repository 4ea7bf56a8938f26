import { expect, test } from "vitest";
import type { SiteFile, Wired } from "../../core/types";
import { riserOf, wayTo } from "./riserLayout";

const site = {
  cameras: [{ id: "c1" }, { id: "c2" }, { id: "c3" }, { id: "old", existing: "goes" }],
  network: {
    nodes: [
      { id: "sw", kind: "switch" },
      { id: "nvr", kind: "recorder" },
      { id: "out", kind: "outlet" },
    ],
    cables: [
      { id: "u", from: "sw", to: "nvr", kind: "cat6" },
      { id: "k1", from: "c1", to: "sw", kind: "cat6" },
      { id: "k2", from: "sw", to: "c2", kind: "cat6" },
      // A ring, and a cord: neither makes a chain longer.
      { id: "ring", from: "nvr", to: "sw", kind: "cat6" },
      { id: "p", from: "c1", to: "out", kind: "cord" },
      { id: "lost", from: "c9", to: "sw", kind: "cat6" },
    ],
  },
} as unknown as SiteFile;
const wired = { cables: ["u", "k1", "k2", "ring", "p"].map((id) => ({ id })) } as unknown as Wired;

test("the recorder stands first, boxes in the middle of what hangs on them, what hangs nowhere at the end", () => {
  const drawing = riserOf(site, wired);
  const at = (id: string) => drawing.boxes.find((box) => box.id === id);
  expect([at("nvr")?.column, at("sw")?.column, at("c1")?.column, at("c2")?.column]).toEqual([0, 1, 2, 2]);
  expect(at("sw")?.row).toBe(((at("c1")?.row ?? 0) + (at("c2")?.row ?? 0)) / 2);
  expect(drawing.runs.map(({ cable }) => cable).sort()).toEqual(["k1", "k2", "u"]);
  expect([at("out"), at("old"), at("c9")]).toEqual([undefined, undefined, undefined]);
  // By itself, in a row of its own.
  expect(at("c3")?.row).toBe(2);
  expect(drawing.rows).toBe(3);
});

test("the way to a camera is its cables and boxes from the recorder on", () => {
  expect([...wayTo(riserOf(site, wired), "c2")].sort()).toEqual(["c2", "k2", "nvr", "sw", "u"]);
  expect([...wayTo(riserOf(site, wired), "c3")]).toEqual(["c3"]);
});
