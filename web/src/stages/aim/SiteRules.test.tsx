// @vitest-environment happy-dom
/** Limits and settings: each figure goes into the field that it names, within the core's range, and the methods are taken over. */
import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { beforeEach, describe, expect, test, vi } from "vitest";
import { GUIDE } from "../../core/guide";
import { demoSite, draw, now, open } from "../../testing/panels";
import { SiteRules } from "./SiteRules";

vi.mock("../../core/port", async () => (await import("../../testing/door")).door);

beforeEach(() => {
  const site = demoSite("tern-quay");
  delete site.rules;
  open(site);
  draw(() => <SiteRules close={() => undefined} />);
});

async function type(label: string, text: string): Promise<HTMLInputElement> {
  const dial = screen.getByRole<HTMLInputElement>("textbox", { name: label });
  await userEvent.clear(dial);
  await userEvent.type(dial, `${text}{Enter}`);
  return dial;
}

describe("a limit", () => {
  test.each([
    ["Kept up to", "10", "face_kept_deg", 10],
    ["Tight up to", "40", "face_tight_deg", 40],
    ["Identify, kept", "20", "identify_turned_kept_deg", 20],
    ["Recognise, tight", "70", "recognise_turned_tight_deg", 70],
    ["Face or plate", "10", "hidden_small_share", 0.1],
    ["Person or vehicle", "30", "hidden_large_share", 0.3],
    ["Pictures, kept", "5", "looks_kept", 5],
    ["Motion blur, kept", "0.8", "blur_kept_px", 0.8],
    ["Infrared, near/far", "1.5", "zone_stops", 1.5],
    ["Picture width", "5", "lane_width_m", 5],
    ["Chance by PTZ tour", "0.75", "tour_chance", 0.75],
    ["Overexposed past", "3", "washed_out_stops", 3],
    ["Plate overexposed past", "5", "overexposed_times", 5],
    ["Plate reflects", "60", "retro_times", 60],
    ["Lamp near", "8", "lamp_near_deg", 8],
    ["Back-lit within", "25", "backlit_deg", 25],
  ] as const)("%s goes into its field", async (label, text, field, value) => {
    await type(label, text);
    expect(now().rules?.[field]).toBeCloseTo(value, 9);
    // Nothing else is stated by it.
    expect(Object.keys(now().rules ?? {})).toEqual([field]);
  });

  test.each([
    ["Laser", "0.02", "laser_m", 0.02],
    ["Height", "0.1", "height_m", 0.1],
    ["Camera's height", "0.1", "camera_height_m", 0.1],
    ["Across, plan", "1.5", "plan_across_m", 1.5],
    ["Aim", "3", "aim_deg", 3],
    ["Roll", "2.5", "roll_deg", 2.5],
    ["Guess", "30", "guess_share", 0.3],
  ] as const)("the tolerance %s goes into its field", async (label, text, field, value) => {
    await type(label, text);
    expect(now().rules?.uncertainties?.[field]).toBeCloseTo(value, 9);
  });

  test("what lies outside of the core's range is refused in place", async () => {
    const dial = await type("Pictures, kept", "100000");
    expect(dial.getAttribute("aria-invalid")).toBe("true");
    expect(now().rules).toBeUndefined();
  });

  test("kept never passes tight", async () => {
    const tight = GUIDE.rules.face_tight_deg ?? 0;
    const dial = await type("Kept up to", String(tight + 1));
    expect(dial.getAttribute("aria-invalid")).toBe("true");
    expect(now().rules?.face_kept_deg).toBeUndefined();
  });
});

describe("a method", () => {
  test("of plate cameras, of overlap, and the table of needs are taken over", async () => {
    await userEvent.click(screen.getByRole("radio", { name: "Raised: 2 to 6 m up" }));
    await userEvent.click(screen.getByRole("radio", { name: "Back-up: everything seen twice" }));
    await userEvent.click(screen.getByRole("radio", { name: "IEC 62676-4:2025, from memory" }));
    expect(now().rules).toMatchObject({ plate_school: "raised", overlap: "back_up", needs: "2025" });
    await userEvent.click(screen.getByRole("radio", { name: "No wish" }));
    expect(now().rules?.overlap ?? null).toBeNull();
  });

  test("season, hour and growth are conditions, not limits", async () => {
    await userEvent.click(screen.getByRole("radio", { name: "Leaves off" }));
    await userEvent.click(screen.getByRole("radio", { name: "By night" }));
    await type("Tree growth, years", "3");
    expect(now().conditions).toMatchObject({ leaves_off: true, night: true, years: 3 });
    expect(now().rules).toBeUndefined();
  });

  test("the overview is asked for with a switch", async () => {
    await userEvent.click(screen.getByRole("switch"));
    expect(now().rules?.overview_pair).toBe(!GUIDE.rules.overview_pair);
  });
});
