/** What the camera will see: by day and by night, pixel for pixel, and aimed in the picture itself. */
import { type Locator, type Page, expect, test } from "@playwright/test";
import { Aim, centre, keep, kept, openId } from "./support/aim";

/** The mean light of the whole picture, 0 to 255, and how many different colours it has. */
const looks = (page: Page): Promise<{ light: number; colours: number }> =>
  page
    .getByTestId("view-panel")
    .locator("canvas.picture-pixels")
    .evaluate((canvas: HTMLCanvasElement) => {
      const { data } = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
      const colours = new Set<number>();
      let sum = 0;
      for (let at = 0; at < data.length; at += 4) {
        sum += data[at + 1] ?? 0;
        colours.add(((data[at] ?? 0) << 16) | ((data[at + 1] ?? 0) << 8) | (data[at + 2] ?? 0));
      }
      return { light: sum / (data.length / 4), colours: colours.size };
    });

test("the gate lane by day and by night: the plate reads in the loupe, and picture and verdict agree", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Gate lane, plates in");
  await aim.viewSettled();
  const day = await looks(page);
  expect(day.colours).toBeGreaterThan(50);
  await expect(page.getByTestId("view-says")).toContainText(/^354 px\/m to read: kept/);
  await expect(page.getByTestId("loupe").locator("canvas")).toBeVisible();
  // It comes at 2.2 m/s, a little aslant: at a thirtieth of a second its strokes are drawn out.
  const shutter = page.getByRole("textbox", { name: "Shutter" });
  await shutter.fill("1/30");
  await shutter.press("Enter");
  await expect(page.getByTestId("view-says")).toContainText(/drawn out over [23]\.\d px/);
  await shutter.fill("1/1000");
  await shutter.press("Enter");
  await page.getByRole("radiogroup", { name: "Light of the picture" }).getByText("Night").click();
  await aim.viewSettled();
  // At a plate camera's shutter it shows plates and nothing else.
  await expect.poll(async () => (await looks(page)).light).toBeLessThan(day.light / 4);
  const stops = page.getByRole("textbox", { name: "Brighter by" });
  await stops.fill("5");
  await stops.press("Enter");
  await expect(page.getByText(/of it is overexposed/)).toBeVisible();
});

test("dragging the picture turns the head, the wheel zooms its lens, and one undo takes a drag back", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Gate lane, plates in");
  await aim.viewSettled();
  const ground = page.getByTestId("picture-aim");
  const pan = async (): Promise<number> => Number((await aim.dial("Pan (bearing)").inputValue()).replace("°", ""));
  const before = await pan();
  await aim.drag(ground, [60, 0]);
  await aim.viewSettled();
  // Dragged to the right the head looks more to the left.
  await expect.poll(pan).toBeLessThan(before - 0.5);
  await page.keyboard.press("Control+z");
  await expect.poll(pan).toBe(before);
  const [x, y] = await centre(ground);
  const focal = await aim.dial("Focal length").inputValue();
  await page.mouse.move(x, y);
  await page.mouse.wheel(0, 200);
  await expect.poll(() => aim.dial("Focal length").inputValue()).not.toBe(focal);
  await aim.saved();
  expect((await kept(request, id)).site.cameras[0]?.heads[0]?.focal_mm).toBeLessThan(32);
});

test("a promise is taken in hand by its bracket in the picture", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await aim.viewSettled();
  await page.getByTestId("mark-t5").press("Enter");
  await expect(aim.evidence.getByRole("heading", { level: 2 })).toContainText("Pontoon head");
});

test("promise, plan, section, evidence and the first way fit a screen of 1280 × 800 with the view in its place", async ({
  page,
  request,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await aim.ways().first().waitFor();
  await aim.viewSettled();
  for (const part of [
    aim.promise("Fuel berth till"),
    page.getByRole("group", { name: "Plan", exact: true }),
    aim.section,
    page.getByTestId("view-panel"),
    page.getByTestId("density"),
    aim.dial("Focal length"),
    aim.ways().first(),
  ])
    await expect(part).toBeInViewport({ ratio: 1 });
});

test("two lenses side by side show as much of the world in more pixels, and the better one is taken over", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await aim.turnTo("beside");
  const [left, right] = [0, 1].map((n) => page.getByTestId("beside").locator("figure").nth(n)) as [Locator, Locator];
  await page.getByRole("combobox", { name: "Model and lens to compare" }).fill("2.8–12");
  await page.keyboard.press("Enter");
  const focal = page.getByRole("textbox", { name: "Focal length to compare" });
  await focal.fill("12");
  await focal.press("Enter");
  await expect(right).toContainText("kept");
  await expect(right).toHaveAttribute("data-settled", "true");
  await expect(left).toContainText("158 px/m to identify: broken");
  // Both loupes show as much of the world, so the better lens has more pixels in the same room.
  const pixels = (of: Locator): Promise<number> =>
    of.locator(".loupe canvas").evaluate((canvas: HTMLCanvasElement) => canvas.width);
  const shown = async (of: Locator): Promise<number> => (await of.locator(".loupe canvas").boundingBox())?.height ?? 0;
  expect((await pixels(right)) / (await pixels(left))).toBeGreaterThan(1.7);
  expect(Math.abs((await shown(right)) - (await shown(left)))).toBeLessThan(6);
  await page.getByRole("button", { name: "Use the compared lens" }).click();
  await expect(aim.verdict).toHaveText("kept");
  await aim.saved();
  const camera = (await kept(request, openId(page))).site.cameras.find((c) => c.id === "c4");
  expect(camera?.heads[0]?.focal_mm).toBe(12);
});

test("a neighbour's window is kept out: who sees it, what is masked, and which promise that costs", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Chandlery door");
  await expect(aim.verdict).toHaveText("kept");
  await page.getByRole("button", { name: "Draw walls and objects" }).click();
  await page.getByRole("combobox", { name: "What is drawn" }).click();
  await page.locator(".ant-select-item-option", { hasText: "other" }).hover();
  await page.keyboard.press("End");
  for (let step = 0; step < 12; step++) await page.mouse.wheel(0, 40);
  await page.locator(".ant-select-item-option", { hasText: "private place" }).click();
  await page.getByRole("region", { name: "Drawing" }).getByRole("switch").click();
  const type = async (one: [string, string], other: [string, string]): Promise<void> => {
    await page.getByRole("textbox", { name: one[0] }).fill(one[1]);
    await page.getByRole("textbox", { name: other[0] }).fill(other[1]);
    await page.keyboard.press("Enter");
  };
  // Behind the door as C3 sees it.
  await type(["East of the first corner", "66.5"], ["North of the first corner", "50.3"]);
  await type(["Length of the side", "1.2"], ["Bearing of the side", "0"]);
  await page.getByRole("button", { name: "Finish" }).click();
  const card = page.getByRole("region", { name: /^Private place/ });
  await expect(card.getByTestId("seen-by")).toContainText(/C3 masks .* of its picture/);
  await expect(card.getByTestId("seen-by")).toContainText("Chandlery door is lost behind it");
  await expect(aim.verdict).toHaveText("broken");
  await expect(aim.evidence.getByText("Privacy mask")).toBeVisible();
  await expect(page.getByTestId("masks").locator("path")).toHaveCount(1);
  await aim.saved();
  expect((await kept(request, id)).site.private).toHaveLength(1);
  await card.getByRole("button", { name: "Delete" }).click();
  await expect(aim.verdict).toHaveText("kept");
  await aim.saved();
  expect((await kept(request, id)).site.private).toBeUndefined();
});

test("the aiming sheet says where corners must sit, and the view is saved as a picture of the sensor's own size", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  const sheet = page.getByRole("main", { name: "Aiming sheet" });
  // A menu that opens while the picture is still being filled may close again under the pointer: it is opened once more.
  await expect(async () => {
    await page.getByRole("button", { name: "More for the picture" }).click({ timeout: 5_000 });
    await page.getByRole("menuitem", { name: "Aiming sheet" }).click({ timeout: 5_000 });
    await expect(sheet).toBeVisible({ timeout: 5_000 });
  }).toPass();
  await expect(sheet).toHaveAttribute("data-ready", "true");
  const card = page.getByTestId("card-c4");
  await expect(card).toContainText("3.60 m");
  await expect(card).toContainText(/Fuel pontoon rail, .*% from the left, \d+ % from the top/);
  await expect(card).toContainText("18.88 m from the lens");
  await expect(card).toContainText("Local codes and licensed practice decide.");
  await page.setViewportSize({ width: 390, height: 844 });
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);
  const download = page.waitForEvent("download");
  await card.getByRole("button", { name: "View as PNG" }).click();
  const file = await (await download).path();
  const { readFile } = await import("node:fs/promises");
  const bytes = await readFile(file);
  expect([bytes.readUInt32BE(16), bytes.readUInt32BE(20)]).toEqual([2688, 1520]);
  await page.getByRole("link", { name: "All cameras" }).click();
  await expect(page.getByRole("main", { name: "All cameras" })).toHaveAttribute("data-ready", "true");
  await expect(page.locator(".contact canvas")).toHaveCount(7);
});
