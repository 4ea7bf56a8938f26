import { describe, expect, it } from "vitest";
import type { Camera, SiteFile } from "../core/types";
import { siteChange } from "../core/siteChange";
import { removeCamera } from "./cameras";
import { KINDS } from "./kinds";
import { addCable, addNode, addPath, lineOf, networkOf, removeNode } from "./network";

const camera = (id: string): Camera => ({
  id,
  name: id.toUpperCase(),
  position: [10, 20],
  height_m: 3,
  model: {
    name: "M",
    form: "turret",
    sensor: { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04 },
    lens: { focal_min_mm: 2.8, focal_max_mm: 2.8 },
  },
  heads: [{ id: "h1", pan_deg: 0, tilt_deg: 10, roll_deg: 0, focal_mm: 2.8 }],
});

const yard = (): SiteFile => ({
  format: "bright-angle/site",
  version: 1,
  name: "Yard",
  obstacles: [],
  targets: [],
  cameras: [camera("c1"), camera("nvr1")],
});

describe("the network", () => {
  it("gives boxes ids that no camera and no box has", () => {
    const site = yard();
    expect([
      addNode(site, "recorder", [1.234, 2]),
      addNode(site, "switch", [0, 0]),
      addNode(site, "switch", [5, 0]),
    ]).toEqual(["nvr2", "sw1", "sw2"]);
    expect(networkOf(site).nodes.map(({ name, position }) => [name, position])).toEqual([
      ["Recorder", [1.23, 2]],
      ["Switch", [0, 0]],
      ["Switch 2", [5, 0]],
    ]);
  });

  it("begins a cable at its camera, feeds from an outlet by a cord, and joins no two cameras", () => {
    const site = yard();
    const recorder = addNode(site, "recorder", [0, 0]);
    const outlet = addNode(site, "outlet", [0, 1]);
    expect(addCable(site, recorder, "c1")).toBe("k1");
    expect(addCable(site, "c1", "nvr1")).toBeNull();
    expect(addCable(site, outlet, outlet)).toBeNull();
    addCable(site, "c1", outlet);
    expect(networkOf(site).cables.map(({ from, to, kind }) => [from, to, kind])).toEqual([
      ["c1", recorder, "cat6"],
      ["c1", outlet, "cord"],
    ]);
    expect(lineOf(site, { id: "x", from: "c1", to: recorder, kind: "cat6", route: [[5, 5]] })).toEqual([
      [10, 20],
      [5, 5],
      [0, 0],
    ]);
    expect(lineOf(site, { id: "x", from: "c1", to: "gone", kind: "cat6" })).toBeNull();
  });

  it("takes cables out with the camera or the box that they end in", () => {
    const site = yard();
    const [recorder, other] = [addNode(site, "recorder", [0, 0]), addNode(site, "switch", [9, 9])];
    addCable(site, "c1", recorder);
    addCable(site, other, recorder);
    removeCamera(site, "c1");
    expect(networkOf(site).cables.map(({ from }) => from)).toEqual([other]);
    removeNode(site, recorder);
    expect([networkOf(site).cables, networkOf(site).nodes.length]).toEqual([[], 1]);
  });

  it("is told to the core thing by thing", () => {
    const before = yard();
    const after = structuredClone(before);
    addNode(after, "recorder", [0, 0]);
    addPath(after, [
      [0, 0],
      [5, 0],
    ]);
    const shared = { ...before, network: after.network ?? {} };
    expect(siteChange(before, shared)).toEqual({
      nodes: { order: ["nvr2"], put: after.network?.nodes },
      ways: { order: ["w1"], put: after.network?.ways },
    });
    expect(Object.keys(KINDS)).toEqual(expect.arrayContaining(["node", "cable", "path"]));
  });
});
