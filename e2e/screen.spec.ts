/** How the screen is laid out: the work list, what a promise's row says, tools that grow, and a phone's pages. */
import { expect, test } from "@playwright/test";
import { Aim, centre, demo, keep, kept } from "./support/aim";

test("the work list tells where each site stands and finds it by whose it is; demo sites lie apart", async ({
  page,
  request,
}) => {
  const name = `Listed ${Date.now()}`;
  await keep(request, { ...demo(), name, brief: { client: `Board ${name}`, address: "3 Cooper's Row" } });
  await page.goto("/");
  const row = page.getByTestId("site-row").filter({ hasText: name }).first();
  await expect(row).toContainText(`Board ${name}, 3 Cooper's Row`);
  await expect(row).toContainText(/\d broken/);
  await expect(row).toContainText(/\d kept/);
  await expect(row.getByRole("img", { name: `Plan of ${name}` })).toBeVisible();
  const demos = page.getByRole("region", { name: "Demo sites" });
  await page.getByRole("searchbox", { name: "Find a site" }).fill(`board ${name.toLowerCase()}`);
  await expect(page.getByTestId("site-row")).toHaveCount(1);
  await expect(demos).toBeHidden();
  await page.getByRole("searchbox", { name: "Find a site" }).fill("umber yard");
  await expect(demos.getByTestId("site-row")).toHaveCount(1);
  await page.getByRole("searchbox", { name: "Find a site" }).fill("no such client");
  await expect(page.getByText("No site has “no such client”")).toBeVisible();
});

test("a promise's row says in words what decides, and shows a bar only where pixels do", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await expect(aim.promise("Fuel berth till").getByTestId("promise-says")).toHaveText(/^\d+ % too few pixels$/);
  await expect(aim.promise("Fuel berth till").locator(".need-bar")).toBeVisible();
  const slipway = aim.promise("Slipway foot");
  await expect(slipway.getByTestId("promise-says")).toHaveText("behind Boat on blocks");
  await expect(slipway.locator(".need-bar")).toHaveCount(0);
  // Kept, it says nothing more.
  await aim.take("Fuel berth till");
  await aim.ways().first().click();
  await expect(aim.verdict).toHaveText("kept");
  await expect(aim.promise("Fuel berth till").getByTestId("promise-says")).toHaveCount(0);
});

test("tools are drawn taller and stay so, fill the middle with the plan as an inset, and go back", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  const tall = async (): Promise<number> => (await aim.section.boundingBox())?.height ?? 0;
  const edge = page.getByRole("separator", { name: "Height of the tools" });
  const before = await tall();
  await edge.press("ArrowUp");
  await edge.press("ArrowUp");
  await expect.poll(tall).toBeGreaterThan(before + 40);
  const box = await edge.boundingBox();
  const [x, y] = [(box?.x ?? 0) + 100, (box?.y ?? 0) + 4];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y - 60, { steps: 4 });
  await page.mouse.up();
  await expect.poll(tall).toBeGreaterThan(before + 95);
  const drawn = await tall();
  await page.reload();
  await expect(aim.verdict).toHaveText(/kept|tight|broken/);
  await expect.poll(tall).toBeCloseTo(drawn, 0);

  const plan = page.locator(".plan");
  const wide = async (): Promise<number> => (await plan.boundingBox())?.width ?? 0;
  const usual = await wide();
  await page.getByTestId("tool-section").dblclick();
  await expect.poll(wide).toBeLessThan(300);
  await expect.poll(tall).toBeGreaterThan(600);
  // The inset shows all of the site, and is worked with like the plan.
  await expect(page.getByTestId("camera-c1")).toBeInViewport();
  await page.locator(".plan-sheet").focus();
  await page.keyboard.press("f");
  await expect.poll(wide).toBeCloseTo(usual, 0);
});

test("marks are taken and moved right on a plan that was moved and zoomed", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.settled();
  const sheet = page.locator(".plan-sheet");
  const box = await sheet.boundingBox();
  const [x, y] = [(box?.x ?? 0) + 60, (box?.y ?? 0) + 220];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 70, y + 35, { steps: 5 });
  await page.mouse.up();
  await page.mouse.wheel(0, -180);
  const scale = async (): Promise<number> => {
    const place = async (camera: string): Promise<[number, number]> =>
      centre(page.getByTestId(camera).locator(".camera-body"));
    const [[u0, v0], [u1, v1]] = [await place("camera-c5"), await place("camera-c4")];
    const { site } = await kept(request, id);
    const at = (of: string): [number, number] => site.cameras.find((camera) => camera.id === of)?.position ?? [0, 0];
    return Math.hypot(u1 - u0, v1 - v0) / Math.hypot(at("c4")[0] - at("c5")[0], at("c4")[1] - at("c5")[1]);
  };
  const before = (await kept(request, id)).site.cameras.find((camera) => camera.id === "c5")?.position ?? [0, 0];
  // At once, while the marks are still drawn at the scale before.
  const pixels = await scale();
  const [cu, cv] = await centre(page.getByTestId("camera-c5").locator(".camera-body"));
  await page.mouse.move(cu, cv);
  await page.mouse.down();
  await page.mouse.move(cu + 40, cv - 20, { steps: 4 });
  await page.mouse.up();
  const moved = async (): Promise<[number, number]> => {
    const after = (await kept(request, id)).site.cameras.find((camera) => camera.id === "c5")?.position ?? [0, 0];
    return [after[0] - before[0], after[1] - before[1]];
  };
  await expect.poll(async () => (await moved())[0]).toBeCloseTo(40 / pixels, 0);
  expect((await moved())[1]).toBeCloseTo(20 / pixels, 0);
  // It is in hand now, in a layer of its own, and the keys still move it.
  await page.getByTestId("camera-c5").focus();
  const [east] = await moved();
  await page.keyboard.press("Control+ArrowRight");
  await expect.poll(async () => (await moved())[0]).toBeGreaterThan(east);
  // One that is taken with Enter goes over into that layer, and keeps the focus.
  await page.getByTestId("camera-c6").focus();
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("camera-c6")).toHaveAttribute("aria-pressed", "true");
  await expect(page.getByTestId("camera-c6")).toBeFocused();
});

test("on a phone the head is one line, promises come first, and plan and camera are a tap or a swipe away", async ({
  browser,
  request,
}) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  const aim = new Aim(page);
  await aim.open(await keep(request));
  expect((await page.locator(".masthead").boundingBox())?.height).toBeLessThan(60);
  await expect(aim.promises).toBeInViewport();
  await expect(page.locator(".plan")).not.toBeInViewport();
  const pages = page.getByRole("navigation", { name: "Pages" });
  await pages.getByRole("button", { name: "Plan" }).tap();
  await expect(page.locator(".plan")).toBeInViewport({ ratio: 0.9 });
  await expect(pages.getByRole("button", { name: "Plan" })).toHaveAttribute("aria-current", "true");
  await pages.getByRole("button", { name: "Camera" }).tap();
  await expect(page.getByTestId("view-panel")).toBeInViewport({ ratio: 0.5 });
  await page.evaluate(() => document.querySelector(".aim-columns")?.scrollTo({ left: 0 }));
  await expect(aim.promises).toBeInViewport({ ratio: 0.9 });
  // What is to be put on the plan turns to it.
  await page.getByRole("button", { name: "Add a target" }).tap();
  await expect(page.locator(".plan")).toBeInViewport({ ratio: 0.9 });
  // What does not fit into the line is in the menu.
  await page.getByRole("button", { name: "Site", exact: true }).tap();
  await page.getByRole("menuitem", { name: "Keys and words" }).tap();
  const words = page.getByRole("dialog", { name: "Keys and words" });
  await expect(words).toContainText("least-seen route");
  await words.getByRole("button", { name: "Close" }).tap();
  await page.getByRole("button", { name: "Site", exact: true }).tap();
  await page.getByRole("menuitem", { name: "Show feet" }).tap();
  await pages.getByRole("button", { name: "Promises" }).tap();
  await expect(aim.promise("Fuel berth till")).toContainText("px/ft");
  await context.close();
});
