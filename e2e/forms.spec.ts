/** What only some forms of camera have, what stands there taken by hand and by keys, and the wishes of a site. */
import { expect, test } from "@playwright/test";
import { Aim, type Site, centre, choose, keep, kept, umber, fromMenu } from "./support/aim";

interface Held extends Site {
  obstacles: { id: string; outline: number[][] }[];
  rules?: { overlap?: string | null };
  conditions?: { leaves_off?: boolean };
}

test("obstacles are chosen by a box that is drawn with the keys", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, umber()));
  await page.keyboard.press("b");
  const sheet = page.locator(".plan-sheet");
  await sheet.focus();
  await page.keyboard.press("Enter");
  // The same place again is no box.
  await page.keyboard.press("Enter");
  await expect(page.getByRole("status").filter({ hasText: "one corner of a box" })).toBeVisible();
  for (let step = 0; step < 5; step++) await page.keyboard.press("Control+ArrowRight");
  for (let step = 0; step < 4; step++) await page.keyboard.press("Control+ArrowDown");
  await expect(page.locator(".drawn-box")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("chosen").locator("path")).not.toHaveCount(0);
});

test("a dragged corner snaps to another one, and keys move it by pixels past that", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request, umber());
  await aim.open(id);
  const [, , third, fourth] = umber().cameras;
  if (!third || !fourth) throw new Error("the demo has its cameras");
  // The loading dock's corner under the end of Units A.
  await page.getByTestId("obstacle-o10").press("Enter");
  const corner = page.getByRole("button", { name: "Corner 2 of Loading dock" });
  const on = (camera: string): Promise<[number, number]> =>
    centre(page.getByTestId(`camera-${camera}`).locator("circle.reach"));
  const [[u], [w]] = [await on(third.id), await on(fourth.id)];
  const scale = (w - u) / (fourth.position[0] - third.position[0]);
  await aim.drag(corner, [2 * scale + 4, -2.4 * scale + 3]);
  await aim.saved();
  const outline = async (): Promise<number[] | undefined> =>
    ((await kept(request, id)).site as Held).obstacles.find((held) => held.id === "o10")?.outline[1];
  expect(await outline()).toEqual([62, 36]);
  await corner.focus();
  await page.keyboard.press("Control+ArrowRight");
  await page.keyboard.press("Control+ArrowRight");
  await expect.poll(outline).not.toEqual([62, 36]);
});

test("a fisheye has its image circle, and a camera what it sits on", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request, umber());
  await aim.open(id);
  await page.getByTestId("camera-c2").press("Enter");
  const panel = page.getByRole("group", { name: "Fisheye C2" });
  await panel.getByRole("button", { name: "Add a dewarped view" }).click();
  await expect(panel.getByRole("list", { name: "Dewarped views" }).getByRole("listitem")).toHaveCount(3);
  const circle = panel.getByRole("textbox", { name: "Image circle" });
  await circle.fill("1800");
  await circle.press("Enter");
  await panel.getByText("on a wall", { exact: true }).click();
  await page.getByTestId("camera-c4").press("Enter");
  await choose(page, "What the camera is mounted on", "Units B");
  await aim.saved();
  const { cameras } = (await kept(request, id)).site as unknown as {
    cameras: { mounted_on?: string; model: { sensor: object }; heads: { tilt_deg: number; flattened?: object[] }[] }[];
  };
  expect(cameras[1]?.model.sensor).toHaveProperty("image_circle_px", 1800);
  expect(cameras[1]?.heads[0]?.tilt_deg).toBe(0);
  expect(cameras[1]?.heads[0]?.flattened).toHaveLength(2);
  expect(cameras[3]?.mounted_on).toBe("o5");
});

test("a head that is turned from afar shows its reach, and asks for the pairs that point it", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, umber()));
  await page.getByTestId("camera-c3").click();
  await expect(page.getByTestId("sweep-reach")).toContainText(/inspect to \d+ m, zoomed in/);
  await choose(page, "Fixed view that points it", "C4");
  await expect(aim.evidence).toContainText("4 more pairs are needed");
  for (const [label, figure] of [
    ["Right", "960"],
    ["Down in it", "540"],
    ["Its pan", "210,5"],
  ] as const)
    await aim.type(label, figure);
  await expect(page.getByRole("button", { name: "Add the pair" })).toBeDisabled();
  await aim.type("Its tilt", "12");
  await page.getByRole("button", { name: "Add the pair" }).click();
  await expect(aim.evidence).toContainText("3 more pairs are needed");
});

test("the school of overlap and the season are wishes of the site, kept and told", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request, umber());
  await aim.open(id);
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), /Limits/);
  await page.getByRole("radio", { name: /^Spread/ }).check();
  await page.getByRole("radio", { name: "Leaves off" }).check();
  await page.getByRole("button", { name: "Close" }).click();
  await aim.turnTo("ground");
  await aim.groundSettled();
  await expect(page.getByText(/Spread is wanted: .* watched by two cameras/)).toBeVisible();
  await aim.saved();
  const site = (await kept(request, id)).site as Held;
  expect([site.rules?.overlap, site.conditions?.leaves_off]).toEqual(["spread", true]);
});
