/** What a hand types, drags and draws is kept, and belongs to the thing it was meant for. */
import { type Page, expect, test } from "@playwright/test";
import { Aim, centre, demo, keep, kept, umber } from "./support/aim";

interface Target {
  id: string;
  facing_deg?: number | null;
  distance?: { how: string };
}
const target = (site: { targets: unknown[] }, id: string): Target | undefined =>
  (site.targets as Target[]).find((held) => held.id === id);

const form = (page: Page): Promise<void> => page.getByText("Figures of this promise").click();

test("an empty dial takes a figure, and its word takes it back", async ({ page, request }) => {
  const site = demo();
  const id = await keep(request, site);
  const aim = new Aim(page);
  await aim.open(id);
  await aim.take("Fuel berth till");
  await form(page);
  const faces = page.getByRole("textbox", { name: "Faces", exact: true });
  await expect(faces).toHaveValue("any");
  await faces.fill("90,5");
  await faces.press("Enter");
  await expect(faces).toHaveValue("90.5°");
  await aim.saved();
  expect(target((await kept(request, id)).site, "t1")?.facing_deg).toBe(90.5);
  await faces.fill("");
  await faces.press("Enter");
  await expect(faces).toHaveValue("any");
  // One grammar: a comma is the decimal sign here, too.
  const need = page.getByRole("textbox", { name: "Own need", exact: true });
  await need.fill("62,5");
  await need.press("Enter");
  await expect(need).toHaveValue("62.5 px/m");
});

test("a refused figure stays with its camera, and one without Enter is taken when its dial goes", async ({
  page,
  request,
}) => {
  const site = demo();
  const id = await keep(request, site);
  const aim = new Aim(page);
  await aim.open(id);
  const [first, second] = site.cameras;
  if (!first || !second) throw new Error("the demo has cameras");
  await page.getByTestId(`camera-${first.id}`).locator("circle.reach").click();
  const height = aim.dial("Height");
  await height.fill("4000");
  await height.press("Enter");
  await expect(page.getByRole("alert").filter({ hasText: "from" })).toBeVisible();
  await page.getByTestId(`camera-${second.id}`).locator("circle.reach").click();
  await expect(height).toHaveValue(`${second.height_m.toFixed(2)} m`);
  // Typed and left by taking another camera.
  await height.fill("4.4");
  await page.getByTestId(`camera-${first.id}`).locator("circle.reach").click();
  await expect(height).toHaveValue(`${first.height_m.toFixed(2)} m`);
  await aim.saved();
  const heights = (await kept(request, id)).site.cameras.map((camera) => camera.height_m);
  expect(heights.slice(0, 2)).toEqual([first.height_m, 4.4]);
});

test("a figure typed without Enter is there after Back, and after a reload", async ({ page, request }) => {
  const id = await keep(request);
  const aim = new Aim(page);
  await page.goto("/#/");
  await aim.open(id);
  await aim.dial("Height").fill("4.41");
  await page.goBack();
  await expect(page.getByRole("heading", { name: "Sites", exact: true })).toBeVisible();
  await expect
    .poll(async () => (await kept(request, id)).site.cameras.filter((camera) => camera.height_m === 4.41).length)
    .toBe(1);
  await aim.open(id);
  await aim.dial("Height").fill("4.42");
  await page.reload();
  await expect(aim.verdict).toHaveText(/kept|tight|broken|unknown/);
  await expect
    .poll(async () => (await kept(request, id)).site.cameras.filter((camera) => camera.height_m === 4.42).length)
    .toBe(1);
});

test("Escape breaks a drag off, a drag makes a place the hand's, and Ctrl+Z works after a tab", async ({
  page,
  request,
}) => {
  const site = demo();
  for (const held of site.targets as Target[]) held.distance = { how: "laser" };
  const id = await keep(request, site);
  const aim = new Aim(page);
  await aim.open(id);
  await aim.settled();
  const mark = page.getByTestId("target-t1").locator("circle.reach");
  const [x, y] = await centre(mark);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y + 10, { steps: 4 });
  await page.mouse.move(x + 40, y + 20, { steps: 4 });
  await page.keyboard.press("Escape");
  await page.mouse.move(x + 60, y + 30, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await centre(mark)).map(Math.round)).toEqual([x, y].map(Math.round));
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  expect(target((await kept(request, id)).site, "t1")?.distance?.how).toBe("laser");

  await aim.drag(mark, [30, 20]);
  await aim.saved();
  await expect.poll(async () => target((await kept(request, id)).site, "t1")?.distance?.how).toBe("plan");
  await aim.turnTo("ground");
  await page.keyboard.press("Control+z");
  await expect.poll(async () => target((await kept(request, id)).site, "t1")?.distance?.how).toBe("laser");
});

test("the survey has undo keys, and walls that are paced out outlast a look elsewhere and a reload", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/survey/drawing`);
  await page.getByText("No picture? Pace out a sketch").click();
  await page.getByRole("button", { name: "Add a wall" }).click();
  const wall = page.getByRole("textbox", { name: "Wall 1" });
  await wall.fill("7,25");
  await wall.press("Enter");
  await page.getByRole("link", { name: "Brief" }).click();
  await page.getByRole("textbox", { name: "Client", exact: true }).fill("Somebody made up");
  await page.getByRole("heading", { name: "Brief" }).click();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("textbox", { name: "Client", exact: true })).not.toHaveValue("Somebody made up");
  await page.reload();
  await page.getByRole("link", { name: "Drawing" }).click();
  await expect(wall).toHaveValue("7.25 m");
});

test("what was chosen in one site does nothing in the next", async ({ page, request }) => {
  const [first, second] = [await keep(request, umber()), await keep(request, umber())];
  const aim = new Aim(page);
  await aim.open(first);
  await aim.settled();
  await page.keyboard.press("b");
  await page.locator(".plan-sheet").focus();
  await page.keyboard.press("Enter");
  for (let step = 0; step < 5; step++) await page.keyboard.press("Control+ArrowRight");
  for (let step = 0; step < 4; step++) await page.keyboard.press("Control+ArrowDown");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("textbox", { name: "Top of all" })).toBeVisible();
  await aim.open(second);
  await aim.settled();
  await expect(page.getByRole("textbox", { name: "Top of all" })).toHaveCount(0);
  await page.keyboard.press("Delete");
  expect((await kept(request, second)).number).toBe(1);
});

test("what was made without a server goes out from the list", async ({ page, request, context }) => {
  const id = await keep(request);
  const aim = new Aim(page);
  await aim.open(id);
  await context.route("**/api/sites/**", (route) =>
    route.request().method() === "PUT" ? route.abort() : route.continue(),
  );
  await aim.type("Height", "4.43");
  await expect(aim.saving).toHaveText(/On this device/);
  await page.goto("/#/");
  await expect(page.getByText("not saved yet")).toBeVisible();
  await context.unroute("**/api/sites/**");
  await expect
    .poll(async () => (await kept(request, id)).site.cameras.some((camera) => camera.height_m === 4.43))
    .toBe(true);
  await expect(page.getByText("not saved yet")).toHaveCount(0);
});
