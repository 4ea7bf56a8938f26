/** One current picture of each main view, from demo data, in docs/screenshots/. */
import { readFileSync } from "node:fs";
import { type Page, expect, test } from "@playwright/test";
import { Aim, ROOT, keep, umber } from "./support/aim";

const shoot = async (page: Page, name: string): Promise<void> => {
  await page.evaluate(() => document.fonts.ready);
  const view = page.getByTestId("view-panel");
  if ((await view.count()) > 0) await expect(view).toHaveAttribute("data-settled", "true");
  await page.mouse.move(0, 0);
  await page.screenshot({ path: `${ROOT}docs/screenshots/${name}.png`, animations: "disabled" });
};

async function openDemo(page: Page, site: string): Promise<Aim> {
  await page.goto("/");
  await page.getByRole("link", { name: site }).click();
  const aim = new Aim(page);
  await aim.verdict.filter({ hasText: /kept|tight|broken/ }).waitFor();
  return aim;
}

test("the list of sites", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "Tern Quay Boatyard" }).waitFor();
  await expect(page.getByRole("img", { name: /^Plan of/ })).toHaveCount(4);
  await shoot(page, "sites");
});

test("Aim, a broken promise and the ways to keep it", async ({ page }) => {
  const aim = await openDemo(page, "Tern Quay Boatyard");
  await aim.take("Fuel berth till");
  await aim.ways().first().waitFor();
  await shoot(page, "aim");
});

test("two lenses side by side", async ({ page }) => {
  const aim = await openDemo(page, "Tern Quay Boatyard");
  await aim.take("Gate lane, plates in");
  await aim.turnTo("beside");
  const focal = page.getByRole("textbox", { name: "Focal length to compare" });
  await focal.fill("8");
  await focal.press("Enter");
  await expect(page.getByTestId("beside").locator("figure").last()).toContainText("broken");
  for (const half of await page.getByTestId("beside").locator("figure").all())
    await expect(half).toHaveAttribute("data-settled", "true");
  await aim.viewSettled();
  await shoot(page, "aim-picture");
});

test("a plate on its way, the light of a night, the sun", async ({ page }) => {
  const aim = await openDemo(page, "Saltpan Lane Depot");
  await aim.take("Plates coming in");
  await aim.turnTo("lane");
  await page.getByTestId("lane-schools").waitFor();
  await shoot(page, "aim-lane");
  await aim.take("Side door");
  await aim.turnTo("night");
  await expect(page.getByTestId("night-panel")).toHaveAttribute("data-settled", "true");
  await shoot(page, "aim-light");
  await aim.take("Pumps");
  await aim.turnTo("sun");
  await expect(page.getByTestId("sun-panel")).toHaveAttribute("data-settled", "true");
  await shoot(page, "aim-sun");
});

test("the ground, a tour, two designs", async ({ page }) => {
  const aim = await openDemo(page, "Umber Yard Self-storage");
  await aim.take("Bin store");
  await aim.turnTo("ground");
  await page.getByRole("combobox", { name: "Where the least-seen route leads" }).click({ force: true });
  await page.locator(".ant-select-item-option-content").getByText("to Office door").click();
  await aim.groundSettled();
  const [, second, third] = umber().cameras;
  if (!second || !third) throw new Error("the demo has its cameras");
  await page.getByRole("button", { name: "Ask why" }).click();
  await aim.tapAt([46.5, 6.9], [second, third]);
  await page.getByRole("region", { name: "Why this place is seen or not" }).waitFor();
  await page.getByTestId("quiet-path").waitFor();
  await shoot(page, "aim-ground");
  await page.keyboard.press("Escape");
  await page
    .getByRole("region", { name: "Why this place is seen or not" })
    .getByRole("button", { name: "Done" })
    .click();
});

test("Wire: two runs fail, the riser shows where", async ({ page }) => {
  await openDemo(page, "Tern Quay Boatyard");
  await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Wire" }).click();
  await page.getByRole("region", { name: "Runs" }).locator("li.promise", { hasText: "C6" }).getByRole("button").click();
  await page.getByRole("list", { name: "Its way" }).getByRole("button", { name: /Cat 6/ }).click();
  await expect(page.getByTestId("wire-ways")).toContainText("repeater half-way");
  await shoot(page, "wire");
});

test("Fit: the day at the desk", async ({ page }) => {
  await openDemo(page, "Tern Quay Boatyard");
  await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Fit" }).click();
  await expect(page.getByTestId("fit-days")).toContainText("after: Bench");
  await shoot(page, "fit");
});

test("Papers: options of a design", async ({ page }) => {
  await openDemo(page, "Umber Yard Self-storage");
  await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Papers" }).click();
  await expect(page.getByTestId("option-one_fewer")).toContainText("Without");
  await expect(page.getByTestId("option-own")).toContainText("kept");
  await shoot(page, "papers-options");
});

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

test("the phone: Aim, readings, a line on the spot", async ({ browser }) => {
  const context = await browser.newContext(PHONE);
  const page = await context.newPage();
  const aim = await openDemo(page, "Tern Quay Boatyard");
  await aim.take("Fuel berth till");
  await page.evaluate(() => window.scrollTo(0, 0));
  await shoot(page, "aim-phone");
  await page.goto(`${page.url().split("/survey")[0] ?? ""}/survey/readings`);
  await page.getByTestId("before-you-leave").filter({ hasText: "left" }).waitFor();
  await page.getByText("Thumb rule").waitFor();
  await shoot(page, "survey-readings-phone");
  await page.goto(`${page.url().split("/survey")[0] ?? ""}/survey/lines/t1`);
  await page.getByTestId("finished-line").first().waitFor();
  await page.evaluate(() => window.scrollTo(0, 0));
  await shoot(page, "survey-lines-phone");
  // A head aimed with the stand-in's picture: found by its edges.
  await page.goto(`${page.url().split("/survey")[0] ?? ""}/fit/c6/h1`);
  await page.getByRole("button", { name: "Stand-in", exact: true }).click();
  await page.getByRole("button", { name: "Find it without clicks" }).click();
  await page.getByRole("button", { name: /^Put \d+ crosses there$/ }).click();
  await expect(page.getByTestId("fit-found")).toHaveAttribute("data-settled", "true");
  await page.getByTestId("fit-frame").scrollIntoViewIfNeeded();
  await shoot(page, "fit-aim-phone");
  await page.goto(`${page.url().split("/fit")[0] ?? ""}/papers/quote`);
  await expect(page.getByTestId("paper-view").last()).toHaveAttribute("data-settled", "true");
  await shoot(page, "papers-quote-phone");
  await context.close();
});

test("the drawing at the desk", async ({ page }) => {
  await openDemo(page, "Tern Quay Boatyard");
  const address = page.url();
  await page.goto(`${address}/survey/drawing`);
  await page.getByTestId("before-you-leave").filter({ hasText: "left" }).waitFor();
  await page.locator("[data-testid=drawing]").waitFor();
  await shoot(page, "survey-drawing");
});

test("my cameras, a data sheet read", async ({ page }) => {
  await page.goto("/#/cameras");
  await page.getByRole("button", { name: "Read a data sheet" }).click();
  const sheet = readFileSync(`${ROOT}crates/core/tests/sheets/12-spaced-columns.txt`, "utf8");
  await page.getByRole("region", { name: "Read a data sheet" }).getByRole("textbox").fill(sheet);
  await page.getByRole("button", { name: "Read it" }).click();
  await page.getByTestId("sheet-model").first().waitFor();
  await shoot(page, "catalogue");
});

test("Prove: the walk test at the desk, and what is due on a phone", async ({ page, request }) => {
  const id = await keep(request);
  const standIn = async (frame: string): Promise<void> => {
    const said = page.waitForResponse((response) => response.url().endsWith("/api/stand-in/picture"));
    await page.getByRole("button", { name: "Stand-in", exact: true }).click();
    await said;
    await expect(page.getByTestId(frame)).toHaveAttribute("data-coming", "false");
    await expect(page.getByText("From the stand-in.")).toBeVisible();
  };
  await page.goto(`/#/site/${id}/prove/pictures`);
  await page.getByTestId("look-c4-day").click();
  await standIn("look-frame");
  await page.locator('input[type="datetime-local"]').fill("2027-01-15T10:00");
  await page.getByRole("button", { name: "Keep it as the reference" }).click();
  await expect(page.getByTestId("look-c4-day")).toHaveAttribute("data-state", "kept");
  await page.goto(`/#/site/${id}/prove/walk/t1`);
  await standIn("prove-frame");
  const frame = page.getByTestId("prove-frame");
  const box = (await frame.boundingBox()) ?? { width: 1, height: 1 };
  for (const down of [0.47, 0.6]) await frame.click({ position: { x: 0.5 * box.width, y: down * box.height } });
  await expect(page.getByTestId("prove-result")).toHaveAttribute("data-settled", "true");
  await shoot(page, "prove");
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`/#/site/${id}/prove/upkeep`);
  await page.getByLabel("On", { exact: true }).fill("2027-08-01");
  await expect(page.getByTestId("due-cover.c4")).toBeVisible();
  await expect(page.getByTestId("due")).toHaveAttribute("data-settled", "true");
  await shoot(page, "prove-due-phone");
});
