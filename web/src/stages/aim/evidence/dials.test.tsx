// @vitest-environment happy-dom
/** The dials of the selected camera change the field that they name, of that camera view, as one step to undo. */
import { fireEvent, screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, test, vi } from "vitest";
import { useHistory } from "../../../keep/history";
import { useSite } from "../../../keep/store";
import { cameraOf, headOf } from "../../../model/lookups";
import { demoSite, draw, now, open, shownOf } from "../../../testing/panels";
import { Dials, PlaceDials } from "./Dials";
import { ExposureDials } from "./ExposureDials";
import { FormPanel } from "./FormPanel";

vi.mock("../../../core/port", async () => (await import("../../../testing/door")).door);

const c4 = () => {
  const camera = cameraOf(now(), "c4");
  const head = camera?.heads[0];
  if (!camera || !head) throw new Error("the demo has camera c4");
  return { camera, head };
};

async function type(label: string, text: string): Promise<void> {
  const dial = screen.getByRole("textbox", { name: label });
  await userEvent.clear(dial);
  await userEvent.type(dial, `${text}{Enter}`);
}

beforeEach(() => {
  open(demoSite("tern-quay"));
});

describe("the dials of a camera", () => {
  const drawn = () =>
    draw(() => {
      const { camera, head } = c4();
      const shown = shownOf("t1", { camera: "c4", head: head.id });
      return (
        <Dials camera={camera} head={head} view={null} line={shown.line} result={shown.sights?.line ?? undefined} />
      );
    });

  test.each([
    ["Height", "4.2", () => c4().camera.height_m, 4.2],
    ["Pan (bearing)", "123,4", () => c4().head.pan_deg, 123.4],
    ["Tilt", "-5°", () => c4().head.tilt_deg, -5],
  ])("%s takes %s", async (label, text, read, value) => {
    drawn();
    await type(label, text);
    expect(read()).toBeCloseTo(value, 6);
  });

  test("a fixed lens has no focal length to turn, and says why", () => {
    drawn();
    const focal = screen.getByRole<HTMLInputElement>("textbox", { name: "Focal length" });
    const { lens } = c4().camera.model;
    expect(focal.disabled).toBe(lens.focal_min_mm === lens.focal_max_mm);
    expect(focal.closest("label")?.title).toMatch(/mm|fixed lens/);
  });

  test("a laser shot moves the target along its bearing until the straight line is so long", async () => {
    drawn();
    await type("Laser shot", "25");
    await vi.waitFor(() => {
      expect(shownOf("t1", { camera: "c4", head: c4().head.id }).sights?.line?.slant_m).toBeCloseTo(25, 2);
    });
    expect(now().targets.find(({ id }) => id === "t1")?.distance?.how).toBe("laser");
  });

  test("a dial that is turned is one step to undo", () => {
    drawn();
    const before = c4().camera.height_m;
    const dial = screen.getByRole("textbox", { name: "Height" });
    for (let turn = 0; turn < 4; turn++) fireEvent.keyDown(dial, { key: "ArrowUp" });
    expect(c4().camera.height_m).toBeCloseTo(before + 0.2, 6);
    useSite.getState().undo();
    expect(c4().camera.height_m).toBeCloseTo(before, 6);
    expect(useHistory.temporal.getState().futureStates).toHaveLength(1);
  });

  test("lengths are in feet and inches where that is set", async () => {
    const { useSettings } = await import("../../../keep/settings");
    useSettings.setState({ units: "feet" });
    drawn();
    await type("Height", "10' 6\"");
    expect(c4().camera.height_m).toBeCloseTo(3.2004, 4);
    expect(screen.getByRole<HTMLInputElement>("textbox", { name: "Height" }).value).toBe("10' 6\"");
  });
});

describe("where a camera is", () => {
  test("roll, ground and place are set, and one axis leaves the other as it is", async () => {
    draw(() => {
      const { camera, head } = c4();
      return <PlaceDials camera={camera} head={head} />;
    });
    const [, north] = c4().camera.position;
    await type("Roll", "90");
    await type("Ground", "1.5");
    await type("East", "12.25");
    expect(c4().head.roll_deg).toBe(90);
    expect(c4().camera.ground_m).toBe(1.5);
    expect(c4().camera.position).toEqual([12.25, north]);
    // A camera that is moved by hand is on no surveyed spot any more.
    expect(c4().camera.spot).toBeUndefined();
    await type("Ground", "0");
    expect(c4().camera.ground_m).toBeUndefined();
  });
});

describe("exposure", () => {
  const drawn = () =>
    draw(() => {
      const camera = cameraOf(now(), "c1");
      const head = camera?.heads[0];
      if (!camera || !head) throw new Error("the demo has camera c1");
      return <ExposureDials camera={camera} head={head} plate />;
    });
  const exposure = () => headOf(now(), "c1", cameraOf(now(), "c1")?.heads[0]?.id ?? "")?.exposure;

  test("where none is stated it says so, and one can be set", async () => {
    const site = demoSite("tern-quay");
    const head = site.cameras.find(({ id }) => id === "c1")?.heads[0];
    if (head) delete head.exposure;
    open(site);
    drawn();
    expect(screen.getByText(/No shutter is stated/)).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "Set one" }));
    expect(exposure()).toBeTruthy();
  });

  test("shutter, frame rate, focus and infrared are each their field", async () => {
    drawn();
    await type("Shutter", "1/1000");
    await type("Frame rate", "15");
    await type("Focus", "12");
    expect(exposure()).toMatchObject({ shutter_s: 0.001, fps: 15, focus_m: 12 });
    await type("Focus", "auto");
    expect(exposure()?.focus_m ?? null).toBeNull();
    if (screen.queryByRole("textbox", { name: "Infrared" })) {
      await type("Infrared", "40");
      expect(exposure()?.infrared_share).toBeCloseTo(0.4, 6);
    }
  });

  test("an automatic has no shutter of its own", async () => {
    drawn();
    await type("Shutter", "automatic");
    expect(exposure()?.shutter_s ?? null).toBeNull();
    expect(screen.getByRole<HTMLInputElement>("textbox", { name: /Shutter|Longest/ }).value).toBe("automatic");
  });
});

describe("what a form of camera has", () => {
  const drawn = (id: string, view: string | null = null) =>
    draw(() => {
      const camera = cameraOf(now(), id);
      const head = camera?.heads[0];
      if (!camera || !head) throw new Error(`the demo has camera ${id}`);
      return <FormPanel site={now()} camera={camera} head={head} view={view} />;
    });

  test("a fixed camera's picture is turned on its side and back", async () => {
    drawn("c4");
    await userEvent.click(screen.getByRole("button", { name: "Turn to a corridor picture" }));
    expect(c4().head.roll_deg).toBe(90);
    await userEvent.click(screen.getByRole("button", { name: "Turn the picture upright" }));
    expect(c4().head.roll_deg).toBe(0);
  });

  test("how it hangs and its housing are said, and taken back", async () => {
    drawn("c4");
    const pick = async (name: string, choice: string): Promise<void> => {
      fireEvent.mouseDown(screen.getByRole("combobox", { name }));
      const options = await screen.findAllByText(choice);
      const option = options.find((one) => one.closest(".ant-select-item"));
      if (!option) throw new Error(`${name} offers no ${choice}`);
      await userEvent.click(option);
    };
    await pick("How the camera hangs", "on a pole");
    expect(c4().camera.mounted_as).toBe("pole");
    await pick("How the camera hangs", "as its spot states");
    expect(c4().camera.mounted_as).toBeUndefined();
    await pick("Housing", "IP66, IK10");
    expect(c4().camera.housing).toEqual({ ip: "IP66", ik: "IK10" });
  });

  test("a PTZ's tour: dwell, speeds and the time of an event are each their field", async () => {
    open(demoSite("umber-yard"));
    const ptz = () => {
      const head = cameraOf(now(), "c3")?.heads[0];
      if (!head?.presets) throw new Error("the demo has a PTZ with presets");
      return head;
    };
    drawn("c3", ptz().presets?.[0]?.id ?? null);
    await type("Dwell", "7");
    expect(ptz().presets?.[0]?.dwell_s).toBe(7);
    await type("Pan/tilt speed", "90");
    expect(ptz().slew_deg_s).toBe(90);
    await type("Zoom time", "2.5");
    expect(ptz().zoom_s).toBe(2.5);
    await type("Event lasts", "20");
    const presets = ptz().presets?.length ?? 0;
    await userEvent.click(screen.getByRole("button", { name: "Add a preset" }));
    expect(ptz().presets).toHaveLength(presets + 1);
    const rows = within(screen.getByRole("list", { name: "Presets" })).getAllByRole("listitem");
    expect(rows.length).toBeGreaterThanOrEqual(presets + 1);
  });

  test("a fisheye's dewarped views come and go", async () => {
    open(demoSite("umber-yard"));
    const fisheye = now().cameras.find(({ model }) => model.form === "fisheye");
    if (!fisheye) throw new Error("the demo has a fisheye");
    const views = () => cameraOf(now(), fisheye.id)?.heads[0]?.flattened?.length ?? 0;
    const before = views();
    drawn(fisheye.id);
    await userEvent.click(screen.getByRole("button", { name: "Add a dewarped view" }));
    expect(views()).toBe(before + 1);
    const name = cameraOf(now(), fisheye.id)?.heads[0]?.flattened?.[0]?.name ?? "";
    await userEvent.click(screen.getByRole("button", { name: `Delete ${name}` }));
    expect(views()).toBe(before);
  });
});
