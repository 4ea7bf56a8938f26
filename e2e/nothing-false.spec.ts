/** Verdicts that hold, and ways that a good fitter would find, as a hand meets them. */
import { expect, test } from "@playwright/test";
import { Aim, keep, kept, openId } from "./support/aim";

/** A till 20 m from a camera on a wall, a parapet half-way. */
const parapet = {
  format: "bright-angle/site",
  version: 1,
  name: "Behind a parapet",
  obstacles: [
    {
      id: "o1",
      name: "Parapet",
      kind: "wall",
      top_m: 1.5,
      outline: [
        [-1, 9],
        [1, 9],
        [1, 11],
        [-1, 11],
      ],
    },
  ],
  targets: [
    {
      id: "t1",
      name: "Till",
      subject: "face",
      task: "identify",
      height_m: 1.6,
      shape: { kind: "point", points: [[0, 20]] },
      distance: { how: "laser" },
    },
  ],
  cameras: [
    {
      id: "c1",
      name: "C1",
      position: [0, 0],
      height_m: 3,
      model: {
        name: "Bullet 8 MP 12 mm",
        form: "bullet",
        sensor: { width_px: 3840, height_px: 2160, width_mm: 7.68, height_mm: 4.32 },
        lens: { focal_min_mm: 12, focal_max_mm: 12 },
      },
      heads: [{ id: "h1", pan_deg: 0, tilt_deg: 4, focal_mm: 12 }],
    },
  ],
};

test("a parapet grows before a face: tight comes before broken, and what does it is named", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, parapet));
  await aim.take("Till");
  const clear = aim.evidence.locator(".rule").filter({ hasText: "Clear line" });
  await page.getByTestId("obstacle-o1").click();
  const card = page.getByRole("region", { name: /Obstacle|Parapet/ });
  // The line to the chin passes the far side at 2.153 m, with both ends 5 cm lower at 2.103 m.
  for (const [top, verdict, says] of [
    ["2.05", "kept", "nothing in the way"],
    ["2.13", "tight", "perhaps Parapet"],
    ["2.2", "broken", /Parapet hides \d+ %/],
    ["2.6", "broken", "Parapet"],
  ] as const) {
    const dial = card.getByRole("textbox", { name: "Top", exact: true });
    await dial.fill(top);
    await dial.press("Enter");
    await aim.settled();
    await expect(aim.verdict).toHaveText(verdict);
    await expect(clear.locator(".rule-value")).toHaveText(says);
  }
});

test("a way takes the camera to a surveyed spot, and the verdict says what it leaves out", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await expect(aim.verdict).toHaveText("broken");
  await expect(page.getByTestId("leaves-out")).toContainText("By day, standing still");
  await page
    .locator(".ways")
    .getByRole("button", { name: /^Try: Move it to Quay lamp post/ })
    .click();
  await expect(aim.verdict).toHaveText("kept");
  await aim.saved();
  const { site } = await kept(request, openId(page));
  const camera = site.cameras.find((c) => c.id === "c4") as { spot?: string; position: unknown } | undefined;
  expect([camera?.spot, camera?.position]).toEqual(["s8", [78, 30.5]]);
});

test("one more camera, or another head, comes into hand when it keeps the promise", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Pontoon head");
  await page.getByRole("button", { name: /^Try: Let C7 see it/ }).click();
  await expect(aim.verdict).toHaveText("kept");
  await expect(aim.evidence.getByRole("heading", { level: 2 })).toContainText("C7");
  await page.keyboard.press("Control+Z");
  await aim.take("Fuel berth till");
  await page.getByRole("button", { name: /^Try: Put up one more camera at Quay lamp post/ }).click();
  await expect(aim.verdict).toHaveText("kept");
  await expect(aim.evidence.getByRole("heading", { level: 2 })).toContainText("C8");
});
