import { describe, expect, it } from "vitest";
import type { Camera, CameraHead, SiteFile } from "../core/types";
import { onRing, pointHead } from "./cameras";
import { designsOf, keepAside, removeDesign, renameDesign, siteWith } from "./designs";
import { addFlattened, addPreset, hang, hangingOf, movePreset, removePreset } from "./tours";
import { aimedOf, keyOf, nameOf, refOf, refOfKey, viewsOf } from "./views";

const head = (id: string, pan_deg: number): CameraHead => ({ id, pan_deg, tilt_deg: 10, focal_mm: 5 });

function camera(form: Camera["model"]["form"], heads: CameraHead[]): Camera {
  return {
    id: "c1",
    name: "C1",
    position: [0, 0],
    height_m: 3,
    model: {
      name: "M",
      form,
      sensor: { width_px: 2592, height_px: 1944, width_mm: 5.184, height_mm: 3.888 },
      lens: { focal_min_mm: 5, focal_max_mm: 50 },
    },
    heads,
  };
}

const yard = (held: Camera): SiteFile => ({
  format: "bright-angle/site",
  version: 1,
  name: "Yard",
  obstacles: [],
  targets: [],
  cameras: [held],
});

describe("presets", () => {
  it("begin where the head looks, keep their order, and the last one that goes leaves a fixed head", () => {
    const ptz = head("h1", 40);
    const first = addPreset(ptz, ptz);
    const second = addPreset(ptz, { pan_deg: 90, tilt_deg: 4, focal_mm: 20 });
    expect(ptz.presets?.map((p) => [p.id, p.pan_deg, p.focal_mm, p.dwell_s])).toEqual([
      [first, 40, 5, 5],
      [second, 90, 20, 5],
    ]);
    movePreset(ptz, second, -1);
    movePreset(ptz, second, -1);
    expect(ptz.presets?.map((p) => p.id)).toEqual([second, first]);
    removePreset(ptz, first);
    removePreset(ptz, second);
    expect(ptz.presets).toBeUndefined();
  });

  it("are what is in hand, named and aimed of a head that tours", () => {
    const ptz = head("h1", 40);
    const preset = addPreset(ptz, ptz);
    const held = camera("ptz", [ptz]);
    const site = yard(held);
    const ref = refOf(held, ptz);
    expect(ref).toEqual({ camera: "c1", head: "h1", view: preset });
    expect(refOfKey(keyOf(ref))).toEqual(ref);
    expect([viewsOf(held).length, nameOf(site, ref)]).toEqual([1, "C1 · Preset 1"]);
    pointHead(site, ref, [10, 0]);
    expect([aimedOf(site, ref)?.pan_deg, ptz.pan_deg]).toEqual([90, 40]);
  });
});

describe("a ring of heads", () => {
  it("stops a head before the next one, and leaves it where it is where there is no room", () => {
    const ring = camera("multi_head", [head("h1", 0), head("h2", 90), head("h3", 180), head("h4", 270)]);
    expect([onRing(ring, "h1", 45), onRing(ring, "h1", 80), onRing(ring, "h1", 100)]).toEqual([45, 60, 60]);
    expect([onRing(ring, "h1", 300), onRing(ring, "h1", 200), onRing(ring, "h2", 20)]).toEqual([300, 300, 30]);
    const full = camera("multi_head", [head("h1", 0), head("h2", 30), head("h3", 60)]);
    full.model.apart_deg = 170;
    expect(onRing(full, "h2", 45)).toBe(30);
    expect(onRing(camera("bullet", [head("h1", 0)]), "h1", 77)).toBe(77);
  });
});

describe("a fisheye", () => {
  it("hangs on a ceiling, a wall or a table, and has dewarped views a right angle apart", () => {
    const round = head("h1", 20);
    for (const how of ["ceiling", "wall", "table"] as const) {
      hang(round, how);
      expect(hangingOf(round)).toBe(how);
    }
    const held = camera("fisheye", [round]);
    addFlattened(held, round);
    addFlattened(held, round);
    expect(round.flattened?.map((view) => view.pan_deg)).toEqual([20, 110]);
    expect(viewsOf(held).map((view) => view.name)).toEqual(["C1", "C1 · View 1", "C1 · View 2"]);
  });
});

describe("designs", () => {
  it("are kept aside as they are, whatever becomes of the one in hand", () => {
    const site = yard(camera("bullet", [head("h1", 0)]));
    const aside = keepAside(site, "As it was");
    site.cameras = [];
    expect(designsOf(site).map((design) => design.name)).toEqual(["Option on the plan", "As it was"]);
    expect([siteWith(site, aside).cameras.length, siteWith(site, null)]).toEqual([1, site]);
    renameDesign(site, null, "Empty");
    renameDesign(site, aside, "One camera");
    expect(designsOf(site).map((design) => design.name)).toEqual(["Empty", "One camera"]);
    removeDesign(site, aside);
    expect(site.variants).toBeUndefined();
  });
});
