import { describe, expect, it } from "vitest";
import type { Model, SiteFile } from "../engine/types";
import { addCamera, addObstacle, addTarget, aim, bearing, duplicateCamera, duplicateTarget, forgetSpot, freshId, moveTarget, removeCorner, removeSpot, removeTarget, setFilled, setModel, setShape, setSlant } from "./edits";

const model: Model = {
  name: "Turret", form: "turret",
  sensor: { width_px: 2688, height_px: 1520, width_mm: 5.376, height_mm: 3.04 }, lens: { focal_min_mm: 2.8, focal_max_mm: 12 },
};

function yard(): SiteFile {
  const site: SiteFile = { format: "bright-angle/site", version: 1, name: "Yard", obstacles: [], targets: [], cameras: [], spots: [] };
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
    expect([[0, 1], [1, 0], [0, -1], [-1, 0]].map(([x = 0, y = 0]) => bearing([0, 0], [x, y]))).toEqual([0, 90, 180, 270]);
  });
});

describe("a new camera", () => {
  it("looks at the promise in hand", () => {
    const site = yard();
    addCamera(site, [0, 0], 1, model, first(site.targets));
    const { heads, height_m, position } = first(site.cameras);
    // By hand: atan2(3, 4) = 36.87°, atan((3 − 1.6) / 5) = 15.64°.
    expect(first(heads)).toMatchObject({ pan_deg: 36.9, tilt_deg: 15.6, focal_mm: 2.8 });
    expect([height_m, position]).toEqual([3, [0, 0]]);
  });

  it("sits on a spot that is near, and only then", () => {
    const site = yard();
    site.spots = [{ id: "s1", name: "Corner", position: [10, 10], height_m: 4.2 }];
    addCamera(site, [10.5, 10], 1, model, undefined);
    addCamera(site, [12, 10], 1, model, undefined);
    expect(site.cameras.map((camera) => [camera.spot, camera.position, camera.height_m])).toEqual([["s1", [10, 10], 4.2], [undefined, [12, 10], 3]]);
  });

  it("has a head for each that its model has, spread around", () => {
    const site = yard();
    addCamera(site, [0, 0], 1, { ...model, head_count: 4 }, undefined);
    expect(first(site.cameras).heads.map((head) => head.pan_deg)).toEqual([0, 90, 180, 270]);
  });
});

describe("another model", () => {
  it("keeps focal lengths that its lens has and brings the others to its nearest", () => {
    const site = yard();
    addCamera(site, [0, 0], 1, model, undefined);
    const camera = first(site.cameras);
    first(camera.heads).focal_mm = 10;
    setModel(camera, { ...model, lens: { focal_min_mm: 4, focal_max_mm: 6 } });
    expect(first(camera.heads).focal_mm).toBe(6);
    setModel(camera, { ...model, head_count: 2 });
    expect(camera.heads.map((head) => head.id)).toEqual(["h1", "h2"]);
    setModel(camera, model);
    expect(camera.heads.length).toBe(1);
  });
});

describe("a laser shot", () => {
  it("puts the target at its slope distance, along its bearing, and says how it was got", () => {
    const site = yard();
    addCamera(site, [0, 0], 1, model, undefined);
    setSlant(site, { camera: "c1", head: "h1", target: "t1" }, 18.9);
    const target = first(site.targets);
    const [x = 0, y = 0] = first(target.shape.points);
    expect(Math.hypot(x, y, 3 - 1.6)).toBeCloseTo(18.9, 3);
    expect(bearing([0, 0], [x, y])).toBeCloseTo(bearing([0, 0], [3, 4]), 3);
    expect(target.distance).toEqual({ how: "laser" });
  });
});

describe("a target that is moved", () => {
  it("forgets what an adjustment found about its place", () => {
    const site = yard();
    const target = first(site.targets);
    target.distance = { how: "laser", plus_minus_m: 0.4, from: [{ spot: "s1", plus_minus_m: 0.04 }, { spot: "s2", plus_minus_m: 0.05 }] };
    forgetSpot(site, "s1");
    expect(target.distance.from).toEqual([{ spot: "s2", plus_minus_m: 0.05 }]);
    moveTarget(target, 1, 0);
    expect([target.distance, target.shape.points]).toEqual([{ how: "laser" }, [[4, 4]]]);
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
    addCamera(site, [0, 0], 1, model, undefined);
    first(site.targets).distance = { how: "laser", from: [{ spot: "s1", plus_minus_m: 0.04 }] };
    return site;
  };

  it("goes with the target or the spot, so that no reading is left without an end", () => {
    const [withoutTarget, withoutSpot] = [measured(), measured()];
    removeTarget(withoutTarget, "t1");
    expect([withoutTarget.targets, withoutTarget.readings]).toEqual([[], []]);
    removeSpot(withoutSpot, "s1");
    expect([withoutSpot.spots, withoutSpot.readings, withoutSpot.cameras[0]?.spot, withoutSpot.targets[0]?.distance?.from]).toEqual([[], [], undefined, []]);
    expect(withoutSpot.cameras[0]?.position).toEqual([0, 0]);
  });

  it("is no reading to a line or an area", () => {
    const site = measured();
    setShape(site, first(site.targets), "line");
    expect([site.readings, site.targets[0]?.distance]).toEqual([[], { how: "laser" }]);
  });
});

describe("copies", () => {
  it("have ids of their own and stand beside the original", () => {
    const site = yard();
    addCamera(site, [0, 0], 1, model, undefined);
    expect([duplicateTarget(site, "t1"), duplicateCamera(site, "c1"), duplicateTarget(site, "t9")]).toEqual(["t2", "c2", null]);
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
    expect(obstacle.outline).toEqual([[-3, -2], [3, -2], [3, 2], [-3, 2]]);
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

  it("are aimed past: a camera right over its target looks straight down", () => {
    const site = yard();
    addCamera(site, [3, 4], 1, model, undefined);
    const camera = first(site.cameras);
    aim(camera, first(camera.heads), first(site.targets));
    expect(first(camera.heads).tilt_deg).toBe(90);
  });
});
