import { describe, expect, it } from "vitest";
import type { Camera, Model, SiteFile, Target } from "../core/types";
import { duplicateCamera, moveCamera, pointHead, putCamera, removeCamera, setAim, setModel } from "./cameras";
import { targetOf } from "./lookups";
import { addObstacle, removeCorner, setFilled } from "./obstacles";
import { patched } from "./patch";
import { bearing, freshId } from "./points";
import { putReading } from "./readings";
import { addSpot, forgetSpot, moveSpot, removeSpot } from "./spots";
import {
  addTarget,
  duplicateTarget,
  moveTarget,
  moveTargetCorner,
  moveTargetTo,
  removeTarget,
  setMeasured,
  setShape,
} from "./targets";

const model: Model = {
  name: "Turret",
  form: "turret",
  sensor: { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04 },
  lens: { focal_min_mm: 2.8, focal_max_mm: 12 },
};

const camera = (id: string, position: [number, number]): Camera => ({
  id,
  name: id.toUpperCase(),
  position,
  height_m: 3,
  model,
  heads: [{ id: "h1", pan_deg: 0, tilt_deg: 15, roll_deg: 0, focal_mm: 2.8 }],
});

function yard(): SiteFile {
  const site: SiteFile = {
    format: "bright-angle/site",
    version: 1,
    name: "Yard",
    obstacles: [],
    targets: [],
    cameras: [],
    spots: [],
  };
  addTarget(site, [3, 4]);
  return site;
}

const first = <T>(list: T[] | undefined): T => {
  const [item] = list ?? [];
  if (item === undefined) throw new Error("empty");
  return item;
};

describe("ids", () => {
  it("are the next free ones", () => {
    expect(freshId("t", [])).toBe("t1");
    expect(freshId("t", [{ id: "t1" }, { id: "t3" }])).toBe("t4");
    expect(freshId("t", [{ id: "t2" }])).toBe("t3");
  });
});

describe("bearings", () => {
  it("turn clockwise from north", () => {
    expect(
      [
        [0, 1],
        [1, 0],
        [0, -1],
        [-1, 0],
      ].map(([x = 0, y = 0]) => bearing([0, 0], [x, y])),
    ).toEqual([0, 90, 180, 270]);
  });
});

describe("a camera", () => {
  it("takes the place of the one with its id, or comes last", () => {
    const site = yard();
    putCamera(site, camera("c1", [0, 0]));
    putCamera(site, camera("c2", [1, 1]));
    putCamera(site, { ...camera("c1", [5, 5]), name: "Other" });
    expect(site.cameras.map((held) => [held.id, held.name])).toEqual([
      ["c1", "Other"],
      ["c2", "C2"],
    ]);
  });

  it("leaves its spot when it is moved by hand, and is pointed where the hand points", () => {
    const site = yard();
    putCamera(site, { ...camera("c1", [0, 0]), spot: "s1" });
    moveCamera(site, "c1", [1.2345, 2]);
    pointHead(site, { camera: "c1", head: "h1" }, [11.23, 2]);
    expect([site.cameras[0]?.position, site.cameras[0]?.spot, site.cameras[0]?.heads[0]?.pan_deg]).toEqual([
      [1.23, 2],
      undefined,
      90,
    ]);
    setAim(site, { camera: "c1", head: "h1" }, { pan_deg: 33.3, tilt_deg: 4.4 });
    expect(site.cameras[0]?.heads[0]).toMatchObject({ pan_deg: 33.3, tilt_deg: 4.4, focal_mm: 2.8 });
  });
});

describe("another model", () => {
  it("comes with its heads and leaves the camera where it is, also if that changed meanwhile", () => {
    const site = yard();
    putCamera(site, camera("c1", [0, 0]));
    const fitted = { ...camera("c1", [0, 0]), model: { ...model, name: "Other" } };
    moveCamera(site, "c1", [3, 3]);
    setModel(site, fitted);
    expect([site.cameras[0]?.model.name, site.cameras[0]?.position]).toEqual(["Other", [3, 3]]);
  });
});

describe("a measured distance", () => {
  it("puts the target where the core says, and says how it was got", () => {
    const site = yard();
    setMeasured(site, "t1", [[6, 8]]);
    expect([site.targets[0]?.shape.points, site.targets[0]?.distance]).toEqual([[[6, 8]], { how: "laser" }]);
  });
});

describe("a patch of the core", () => {
  it("replaces, adds and removes by its paths, and leaves the state before as it was", () => {
    const site = yard();
    putCamera(site, { ...camera("c1", [0, 0]), spot: "s1" });
    const after = patched(site, [
      { op: "replace", path: "/cameras/0/heads/0/focal_mm", value: 6 },
      { op: "add", path: "/targets/0/distance", value: { how: "laser" } },
      { op: "remove", path: "/cameras/0/spot" },
    ]);
    expect([after.cameras[0]?.heads[0]?.focal_mm, after.targets[0]?.distance, after.cameras[0]?.spot]).toEqual([
      6,
      { how: "laser" },
      undefined,
    ]);
    expect([site.cameras[0]?.heads[0]?.focal_mm, site.cameras[0]?.spot]).toEqual([2.8, "s1"]);
    expect(after.targets[0]?.shape).toBe(site.targets[0]?.shape);
  });
});

describe("readings and spots", () => {
  it("are put by their ids", () => {
    const site = yard();
    putReading(site, { id: "r1", from: "t1", to: "s1", slope_m: 5, inclination_deg: null });
    putReading(site, { id: "r1", from: "t1", to: "s1", slope_m: 6, inclination_deg: null });
    expect(site.readings?.map((reading) => reading.slope_m)).toEqual([6]);
  });

  it("move with the cameras that sit on them", () => {
    const site = yard();
    const id = addSpot(site, [9, 9]);
    putCamera(site, { ...camera("c1", [9, 9]), spot: id });
    moveSpot(site, id, [4, 4]);
    expect([site.spots?.[0]?.position, site.cameras[0]?.position]).toEqual([
      [4, 4],
      [4, 4],
    ]);
  });
});

describe("a target that is moved", () => {
  it("forgets what an adjustment found about its place", () => {
    const site = yard();
    const target = first(site.targets);
    target.distance = {
      how: "laser",
      plus_minus_m: 0.4,
      from: [
        { spot: "s1", plus_minus_m: 0.04 },
        { spot: "s2", plus_minus_m: 0.05 },
      ],
    };
    forgetSpot(site, "s1");
    expect(target.distance.from).toEqual([{ spot: "s2", plus_minus_m: 0.05 }]);
    moveTarget(target, 1, 0);
    expect([target.distance, target.shape.points]).toEqual([{ how: "plan" }, [[4, 4]]]);
    moveTargetTo(site, "t1", [7, 7]);
    expect(target.shape.points).toEqual([[7, 7]]);
  });

  it("gets one corner moved, and never one that it has not", () => {
    const site = yard();
    setShape(site, first(site.targets), "area");
    const before = structuredClone(first(site.targets).shape.points);
    moveTargetCorner(site, "t1", 2, [9, 9]);
    moveTargetCorner(site, "t1", 7, [1, 1]);
    moveTargetCorner(site, "nobody", 0, [1, 1]);
    expect(first(site.targets).shape.points).toEqual(before.map((point, place) => (place === 2 ? [9, 9] : point)));
  });

  it("keeps its middle when it gets another shape", () => {
    const site = yard();
    const target = first(site.targets);
    setShape(site, target, "area");
    expect(target.shape.points.length).toBe(4);
    setShape(site, target, "point");
    expect(target.shape.points).toEqual([[3, 4]]);
  });
});

describe("what was measured", () => {
  const measured = (): SiteFile => {
    const site = yard();
    site.spots = [{ id: "s1", name: "Corner", position: [0, 0], height_m: 3 }];
    site.readings = [{ id: "r1", from: "t1", to: "s1", slope_m: 5, inclination_deg: null }];
    putCamera(site, { ...camera("c1", [0, 0]), spot: "s1" });
    first(site.targets).distance = { how: "laser", from: [{ spot: "s1", plus_minus_m: 0.04 }] };
    return site;
  };

  it("goes with the target or the spot, so that no reading is left without an end", () => {
    const [withoutTarget, withoutSpot] = [measured(), measured()];
    removeTarget(withoutTarget, "t1");
    expect([withoutTarget.targets, withoutTarget.readings]).toEqual([[], []]);
    removeSpot(withoutSpot, "s1");
    expect([
      withoutSpot.spots,
      withoutSpot.readings,
      withoutSpot.cameras[0]?.spot,
      withoutSpot.targets[0]?.distance?.from,
    ]).toEqual([[], [], undefined, []]);
    expect(withoutSpot.cameras[0]?.position).toEqual([0, 0]);
  });

  it("is no reading to a line or an area", () => {
    const site = measured();
    setShape(site, first(site.targets), "line");
    expect([site.readings, site.targets[0]?.distance]).toEqual([[], { how: "plan" }]);
  });
});

describe("a camera that goes", () => {
  it("points none of those that stay, and houses none", () => {
    const site = yard();
    for (const id of ["c1", "c2", "c3"]) putCamera(site, camera(id, [0, 0]));
    const turned = first(site.cameras);
    const head = first(turned.heads);
    turned.housed_with = "c2";
    head.pointed_by = { camera: "c2", head: "h1", pairs: [] };
    head.also_pointed_by = [{ camera: "c3", head: "h1", pairs: [] }];
    removeCamera(site, "c2");
    expect([turned.housed_with, head.pointed_by.camera, head.also_pointed_by]).toEqual([undefined, "c3", undefined]);
    removeCamera(site, "c3");
    expect(head.pointed_by).toBeUndefined();
  });
});

describe("copies", () => {
  it("have ids of their own and stand beside the original", () => {
    const site = yard();
    putCamera(site, { ...camera("c1", [0, 0]), spot: "s1" });
    expect([duplicateTarget(site, "t1"), duplicateCamera(site, "c1"), duplicateTarget(site, "t9")]).toEqual([
      "t2",
      "c2",
      null,
    ]);
    expect([site.targets[1]?.shape.points, site.cameras[1]?.position]).toEqual([[[4, 3]], [1, -1]]);
    first(site.cameras[1]?.heads).pan_deg = 99;
    expect(first(site.cameras[0]?.heads).pan_deg).not.toBe(99);
  });
});

describe("obstacles", () => {
  it("keep as many corners as they need", () => {
    const site = yard();
    addObstacle(site, [0, 0]);
    const obstacle = first(site.obstacles);
    expect(obstacle.outline).toEqual([
      [-3, -2],
      [3, -2],
      [3, 2],
      [-3, 2],
    ]);
    removeCorner(obstacle, 0);
    removeCorner(obstacle, 0);
    expect(obstacle.outline.length).toBe(3);
    setFilled(obstacle, false);
    removeCorner(obstacle, 0);
    removeCorner(obstacle, 0);
    expect(obstacle.outline.length).toBe(2);
    setFilled(obstacle, true);
    expect(obstacle.outline.length).toBe(3);
  });
});

describe("a place that a hand gives", () => {
  const shot = (): SiteFile => {
    const site = yard();
    for (const target of site.targets) {
      target.distance = { how: "laser", plus_minus_m: 0.05 };
      target.position_sigma_m = 0.02;
    }
    return site;
  };
  it.each<[string, (site: SiteFile) => Target | undefined]>([
    ["dragged", (site) => (moveTargetTo(site, "t1", [9, 9]), first(site.targets))],
    ["by one corner", (site) => (moveTargetCorner(site, "t1", 0, [9, 9]), first(site.targets))],
    ["a copy beside it", (site) => targetOf(site, duplicateTarget(site, "t1") ?? "")],
  ])("is scaled from the plan, and no laser's: %s", (_, place) => {
    const placed = place(shot());
    expect([placed?.distance, placed?.position_sigma_m]).toEqual([{ how: "plan" }, undefined]);
  });

  it("makes a guess no better", () => {
    const site = yard();
    first(site.targets).distance = { how: "guess" };
    moveTargetTo(site, "t1", [9, 9]);
    expect(first(site.targets).distance).toEqual({ how: "guess" });
  });
});
