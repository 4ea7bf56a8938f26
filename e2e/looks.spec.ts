/** What the screens are to everybody: contrast and names, narrow screens, nothing from elsewhere. */
import AxeBuilder from "@axe-core/playwright";
import { type Page, expect, test } from "@playwright/test";
import { Aim, keep, saltpan, umber } from "./support/aim";

async function faultless(page: Page): Promise<void> {
  const found = await new AxeBuilder({ page }).withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]).analyze();
  const words = found.violations.map(
    (v) =>
      `${v.id}: ${v.help}\n${v.nodes.map((node) => `  ${node.html.slice(0, 160)}\n  ${node.failureSummary ?? ""}`).join("\n")}`,
  );
  expect(words, words.join("\n")).toEqual([]);
}

const inLight = (page: Page, light: string): Promise<unknown> =>
  page.addInitScript((dark) => {
    localStorage.setItem("bright-angle/settings", JSON.stringify({ state: { units: "metres", dark }, version: 0 }));
  }, light === "night");

for (const light of ["day", "night"]) {
  test(`the screens meet WCAG AA by ${light}`, async ({ page, request }) => {
    const aim = new Aim(page);
    await inLight(page, light);
    await page.goto("/");
    await expect(page.getByRole("heading", { name: "Sites" })).toBeVisible();
    await expect(page.getByRole("table").getByRole("link").first()).toBeVisible();
    await faultless(page);
    await aim.open(await keep(request));
    await aim.take("Fuel berth till");
    await expect(aim.ways().first()).toBeVisible();
    await aim.promise("Fuel berth till").getByText("Figures of this promise").click();
    await aim.evidence.getByText("Pixel density", { exact: true }).click();
    await faultless(page);
    const surveyed = page.url();
    // The ground, a tour, the drawing and two designs, where every form of camera is.
    await aim.open(await keep(request, umber()));
    await aim.take("Sliding gate, who comes in");
    await aim.turnTo("Ground");
    await aim.groundSettled();
    await expect(page.getByTestId("losses")).toHaveAttribute("data-settled", "true");
    await expect(page.getByTestId("picture-use")).toBeVisible();
    await page.getByRole("button", { name: "Draw what stands there" }).click();
    await faultless(page);
    await page.getByRole("button", { name: "Leave it" }).click();
    await aim.turnTo("Designs");
    await faultless(page);
    await page.getByRole("button", { name: "Side by side" }).click();
    await expect(page.getByTestId("side-by-side")).toHaveAttribute("data-settled", "true");
    await faultless(page);
    await page.getByRole("button", { name: "Back to the plan" }).click();
    for (const step of ["brief", "drawing", "spots/s3", "targets/t1", "readings", "sheet"]) {
      await page.goto(`${surveyed}/survey/${step}`);
      await expect(page.getByTestId("before-you-leave")).toHaveText(/left$/);
      if (step === "readings") await expect(page.getByText("Thumb rule")).toBeVisible();
      await faultless(page);
    }
  });

  test(`plates on their way, the night and the sun meet WCAG AA by ${light}`, async ({ page, request }) => {
    const aim = new Aim(page);
    await inLight(page, light);
    await aim.open(await keep(request, saltpan()));
    await aim.take("Plates coming in");
    await aim.turnTo("Lane");
    await expect(page.getByTestId("lane-schools")).toBeVisible();
    await faultless(page);
    await aim.take("Side door");
    await aim.turnTo("Night");
    await expect(page.getByTestId("night-panel")).toHaveAttribute("data-settled", "true");
    await faultless(page);
    await aim.turnTo("Sun");
    await expect(page.getByTestId("sun-panel")).toHaveAttribute("data-settled", "true", { timeout: 20_000 });
    await faultless(page);
    await page.goto(`${page.url()}/settings/${encodeURIComponent("c1/h1/")}`);
    await expect(page.getByRole("main")).toHaveAttribute("data-ready", "true");
    await faultless(page);
  });
}

test("on a phone nothing hangs over the edge, and what is touched is 44 px tall", async ({ browser, request }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  const aim = new Aim(page);
  const site = `/#/site/${await keep(request)}`;
  const survey = ["brief", "drawing", "spots/s3", "targets/t1", "readings", "sheet"].map(
    (step) => `${site}/survey/${step}`,
  );
  for (const address of ["/", site, ...survey]) {
    await page.goto(address);
    await expect(page.getByRole("banner")).toBeVisible();
    if (address === site) await expect(aim.verdict).toHaveText(/kept|tight|broken/);
    if (address.includes("survey")) await expect(page.getByTestId("before-you-leave")).toHaveText(/left$/);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
    let seen = 0;
    for (const button of await page.getByRole("button").filter({ visible: true }).all()) {
      // On a drawing what takes the finger is the reach around a mark; a solid is as large as it is.
      const drawn = (await button.evaluate((element) => element.tagName)) !== "BUTTON";
      const taken = drawn ? button.locator("circle.reach").first() : button;
      if (drawn && (await taken.count()) === 0) continue;
      const box = await taken.boundingBox();
      const name = (await button.getAttribute("aria-label")) ?? (await button.innerText());
      expect(box?.height ?? 0, name).toBeGreaterThanOrEqual(43.5);
      seen++;
    }
    expect(seen, address).toBeGreaterThan(2);
  }
  // The promises are pushed up to with a finger.
  await page.goto(site);
  await expect(aim.verdict).toHaveText(/kept|tight|broken/);
  const last = aim.promises.getByRole("listitem").last();
  await last.scrollIntoViewIfNeeded();
  await expect(last).toBeInViewport();
  await context.close();
});

test("everything comes from the application itself, and the policy lets nothing else in", async ({ page, request }) => {
  const elsewhere: string[] = [];
  const complaints: string[] = [];
  page.on("request", (asked) => {
    if (!/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(asked.url())) elsewhere.push(asked.url());
  });
  page.on("console", (message) => {
    if (message.type() === "error") complaints.push(message.text());
  });
  page.on("pageerror", (error) => complaints.push(error.message));
  const aim = new Aim(page);
  await page.goto("/");
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await aim.ways().first().click();
  await aim.saved();
  await page.evaluate(() => document.fonts.ready);
  const fonts = await page.evaluate(() =>
    [...document.fonts].filter((font) => font.status === "loaded").map((font) => font.family.replaceAll('"', "")),
  );
  expect(new Set(fonts)).toEqual(new Set(["Barlow", "Barlow Semi Condensed", "IBM Plex Mono"]));
  expect(elsewhere).toEqual([]);
  expect(complaints).toEqual([]);
});
