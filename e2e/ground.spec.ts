/** The ground as it is: drawn, explained, seen by every form of camera, and designs side by side. */
import { type Page, expect, test } from "@playwright/test";
import { Aim, ROOT, centre, demo, keep, kept, umber, fromMenu } from "./support/aim";

/** Chooses from a list by what it says. */
async function choose(page: Page, list: string, says: string): Promise<void> {
  await page.getByRole("combobox", { name: list }).click({ force: true });
  await page
    .locator(".ant-select-dropdown:visible")
    .locator(".ant-select-item-option-content")
    .getByText(says, { exact: true })
    .click();
}

const square = async (page: Page, row: string): Promise<number> => {
  const text = await page.locator(".ground-shares > div", { hasText: row }).locator("dd").first().innerText();
  return Number(text.replace(/[^\d]/g, ""));
};

test("a shed is drawn with typed lengths, and a wall that is raised throws a longer shadow", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request, demo());
  await aim.open(id);
  await page.keyboard.press("d");
  for (const [one, other] of [
    ["98", "40"],
    ["6.2", "90"],
    ["4", "0"],
    ["6.2", "270"],
  ] as const) {
    await page.keyboard.type(one);
    await page.keyboard.press("Tab");
    await page.keyboard.type(other);
    await page.keyboard.press("Enter");
  }
  // Enter on nothing ends it.
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: /^Obstacle Building/ })).toBeVisible();
  await aim.saved();
  const drawn = (await kept(request, id)).site as unknown as { obstacles: { outline: number[][] }[] };
  expect(drawn.obstacles.at(-1)?.outline).toEqual([
    [98, 40],
    [104.2, 40],
    [104.2, 44],
    [98, 44],
  ]);
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("region", { name: /^Obstacle Building/ })).toHaveCount(0);

  // A wall across the dinghy park: low, then high.
  await page.getByRole("button", { name: "Draw walls and objects" }).click();
  await choose(page, "What is drawn", "wall");
  for (const [one, other] of [
    ["60", "41"],
    ["20", "90"],
  ] as const) {
    await page
      .getByRole("region", { name: "Drawing" })
      .getByRole("textbox", { name: /^(East|Length) of/ })
      .fill(one);
    await page
      .getByRole("region", { name: "Drawing" })
      .getByRole("textbox", { name: /^(North|Bearing) of/ })
      .fill(other);
    await page.keyboard.press("Enter");
  }
  const top = page.getByRole("region", { name: "Drawing" }).getByRole("textbox", { name: "Top" });
  await top.fill("1.2");
  await top.press("Enter");
  await page.getByRole("button", { name: "Finish" }).click();
  await aim.turnTo("ground");
  await aim.groundSettled();
  const before = await square(page, "by no camera");
  const raised = page.getByRole("region", { name: /^Obstacle Wall/ }).getByRole("textbox", { name: "Top" });
  await raised.fill("2.4");
  await raised.press("Enter");
  await expect.poll(() => square(page, "by no camera")).toBeGreaterThan(before + 20);
});

test("why a place is unseen is told head by head, and moves with the site", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, umber()));
  await page.keyboard.press("w");
  // The bins lie behind the lime while it is in leaf.
  const { cameras } = umber();
  const [, second, third] = cameras;
  if (!second || !third) throw new Error("the demo has its cameras");
  await aim.tapAt([46.5, 6.9], [second, third]);
  const card = page.getByRole("region", { name: "Why this place is seen or not" });
  await expect(card).toContainText("No camera sees this place");
  await expect(card.locator("li", { hasText: "C3 · Bin store" })).toContainText(
    "behind Lime tree; free once the leaves are off",
  );
  await expect(card.locator("li", { hasText: "C4 behind" })).toContainText("behind the camera's back");
  // And which cameras somebody who stands there sees himself.
  await expect(card.getByTestId("seen-here")).toContainText(/sees (\d of 4 cameras|no camera)/);
  await page.keyboard.press("Escape");
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), /Limits/);
  await page.getByRole("radio", { name: "Leaves off" }).check();
  await page.getByRole("button", { name: "Close" }).click();
  await expect(card.locator("li", { hasText: "C3 · Bin store" })).toContainText("only until the leaves come");
});

test("the least-seen route closes while a camera is turned", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, demo()));
  await aim.promise("Pontoon head").click();
  await aim.turnTo("ground");
  await choose(page, "Where the least-seen route leads", "to Mast racks");
  await aim.groundSettled();
  const path = page.getByTestId("quiet-path");
  await expect(path).toHaveAttribute("data-seen", /^\d/);
  const seen = async (): Promise<number> => Number(await path.getAttribute("data-seen"));
  const before = await seen();
  await page.getByTestId("camera-c6").click();
  // Turned away from the racks, step by step, it leaves a way; turned back, it closes it.
  for (let step = 0; step < 12; step++) await page.keyboard.press("Shift+ArrowRight");
  await expect.poll(seen).toBeLessThan(before);
  for (let step = 0; step < 12; step++) await page.keyboard.press("Shift+ArrowLeft");
  await expect.poll(seen).toBe(before);
});

test("a four-head is laid beside four fixed cameras, and one of them is adopted", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request, umber());
  await aim.open(id);
  await aim.turnTo("designs");
  await page.getByRole("button", { name: "Side by side" }).click();
  const sides = page.getByTestId("side-by-side");
  await expect(sides).toHaveAttribute("data-settled", "true");
  await expect(sides.getByRole("list", { name: "What differs" })).toContainText(
    "Lane between the units: broken with One four-head on the corner, kept with Four fixed turrets",
  );
  const figures = sides.getByLabel("Figures of both options");
  await expect(figures.locator("div", { hasText: "Cable drops" })).toContainText(/4\s*7/);
  await expect(figures.locator("div", { hasText: "Cameras to pay" })).toContainText(/1830\s*1490/);
  await page.getByRole("button", { name: "Use this option" }).click();
  await expect(aim.screen).toBeVisible();
  await expect(page.getByTestId("camera-c7")).toBeVisible();
  await aim.saved();
  const { site } = (await kept(request, id)) as unknown as {
    site: { design: string; variants: { name: string }[]; cameras: unknown[] };
  };
  expect([site.design, site.variants.map((v) => v.name), site.cameras.length]).toEqual([
    "Four fixed turrets",
    ["One four-head on the corner"],
    7,
  ]);
});

test("the tour of a PTZ is shortened until it keeps what it promises", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, umber()));
  await aim.promise("Sliding gate, who comes in").click();
  await expect(page.getByTestId("verdict")).toHaveText("broken");
  await expect(aim.evidence).toContainText("PTZ elsewhere for");
  await expect(page.getByTestId("tour-says")).toContainText("Tour of 3, 31 s around");
  await page.getByRole("button", { name: /^Try: Stay .* at each preset/ }).click();
  await expect(page.getByTestId("verdict")).toHaveText("kept");
  // One preset more, and it is away for too long again.
  await page.getByRole("button", { name: "Add a preset" }).click();
  await page.getByTestId("preset-p1").getByRole("button").first().click();
  await expect(page.getByTestId("verdict")).toHaveText("broken");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("tour-says")).toContainText("Tour of 3");
});

test("each head of a ring is turned by its own grip, and stops before the next", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request, umber());
  await aim.open(id);
  await page.getByTestId("camera-c1").click();
  await page.getByRole("radiogroup", { name: "Selected camera view" }).getByText("h2 135°").click();
  const [cx, cy] = await centre(page.getByTestId("camera-c1").locator("circle.reach"));
  const [gx, gy] = await centre(page.getByTestId("aim-c1").locator("circle.reach"));
  await page.mouse.move(gx, gy);
  await page.mouse.down();
  // Towards its neighbour at 172°, straight south.
  await page.mouse.move(cx + 3, cy + 60, { steps: 6 });
  await page.mouse.up();
  await aim.saved();
  const { site } = await kept(request, id);
  expect(site.cameras[0]?.heads[1]?.pan_deg).toBeCloseTo(142, 0);
});

test("a drawing is brought in by layers, and a broken one changes nothing", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request, demo());
  await aim.open(id);
  const count = async (): Promise<number> =>
    ((await kept(request, id)).site as unknown as { obstacles: unknown[] }).obstacles.length;
  const before = await count();
  await page.getByRole("button", { name: "Bring in a drawing" }).click();
  const dialog = page.getByRole("dialog", { name: "Bring in a drawing" });
  const file = dialog.locator("input[type=file]");
  await file.setInputFiles(`${ROOT}outside/exchange/crossing.dxf`);
  await expect(dialog.getByRole("alert")).toContainText("crosses or touches itself");
  await expect(dialog.getByRole("button", { name: /^Take/ })).toBeDisabled();
  await file.setInputFiles(`${ROOT}outside/exchange/yard.dxf`);
  await expect(dialog).toContainText("read as millimetres, by its header");
  await expect(dialog).toContainText("1 thing is left out");
  await dialog.getByRole("checkbox", { name: /FENCE/ }).uncheck();
  await dialog.getByRole("button", { name: "Take 7 obstacles" }).click();
  await expect(page.getByRole("region", { name: "Obstacles selected together" })).toContainText("7 obstacles");
  await aim.saved();
  expect(await count()).toBe(before + 7);
  await page.keyboard.press("Control+z");
  await aim.saved();
  await expect.poll(count).toBe(before);

  // A rangefinder's points, in the letters of its time: chosen one by one, at their heights.
  await page.getByRole("button", { name: "Bring in a drawing" }).click();
  await file.setInputFiles(`${ROOT}outside/exchange/letters-cp1251.dxf`);
  const measured = dialog.getByRole("list", { name: "Measured points" });
  await expect(measured.getByRole("listitem")).toHaveCount(3);
  await dialog.getByRole("checkbox", { name: /Здание/ }).uncheck();
  await expect(dialog.getByRole("button", { name: /^Take/ })).toBeDisabled();
  await dialog.getByRole("button", { name: "All are spots" }).click();
  await dialog.getByRole("combobox", { name: "What P2 is" }).click();
  await page.getByTitle("a target", { exact: true }).last().click();
  await dialog.getByText("where its own coordinates say").click();
  await dialog.getByRole("button", { name: "Take 3 points" }).click();
  await aim.saved();
  const { spots, targets } = (await kept(request, id)).site as unknown as {
    spots: { name: string; position: number[]; height_m: number; ground_m?: number }[];
    targets: { name: string; height_m: number; shape: { points: number[][] } }[];
  };
  expect(spots.slice(-2)).toMatchObject([
    { name: "P1", position: [20, 1], height_m: 1.25 },
    { name: "P3", position: [30, -3], height_m: 0, ground_m: -0.4 },
  ]);
  expect(targets.at(-1)).toMatchObject({ name: "P2", height_m: 2.9, shape: { points: [[21.5, 4]] } });

  await page.getByRole("button", { name: "Site", exact: true }).click();
  const saved = page.waitForEvent("download");
  await page.getByRole("menuitem", { name: "Save the plan as DXF" }).click();
  expect((await saved).suggestedFilename()).toBe("tern-quay-boatyard.dxf");
});
