/** From an empty sheet to a kept promise, the way a new user goes. */
import { expect, test } from "@playwright/test";
import { Aim, kept, openId } from "./support/aim";

test("one target 18.9 m away: from an empty site to a kept promise that is found again", async ({ page, request }) => {
  const aim = new Aim(page);
  await page.goto("/");
  await page.getByRole("button", { name: "New site" }).first().click();
  await page.getByRole("textbox", { name: "Name of the site" }).fill("Back yard");
  await page.getByRole("button", { name: "Begin" }).click();
  // A new site begins with what the client is asked.
  await expect(page.getByRole("heading", { level: 1, name: "Brief" })).toBeVisible();
  await page.getByRole("navigation", { name: "Stages" }).getByRole("link", { name: "Aim" }).click();
  await page.getByRole("button", { name: "Begin with a promise" }).click();
  const sheet = page.getByRole("group", { name: /^Plan/ });
  await sheet.click({ position: { x: 450, y: 180 } });
  await expect(aim.promises).toContainText("identify · no camera");
  await page.getByRole("button", { name: "Add a camera" }).click();
  await sheet.click({ position: { x: 180, y: 330 } });
  await expect(aim.verdict).toHaveText(/kept|tight|broken/);

  // What the rangefinder reads goes straight in; the target moves along its bearing.
  await aim.type("Laser shot", "18.9");
  await expect(aim.dial("Laser shot")).toHaveValue("18.90 m");
  await expect(aim.verdict).toHaveText("broken");
  await aim.ways().first().click();
  await expect(aim.verdict).toHaveText("kept");
  await aim.saved();
  const id = openId(page);
  const { site } = await kept(request, id);
  const [from, to] = [site.cameras[0], site.targets[0]];
  const [x, y] = to?.shape.points[0] ?? [0, 0];
  const ground = Math.hypot(x - (from?.position[0] ?? 0), y - (from?.position[1] ?? 0));
  expect(Math.hypot(ground, (from?.height_m ?? 0) - 1.6)).toBeCloseTo(18.9, 2);

  await page.reload();
  await expect(aim.verdict).toHaveText("kept");
  await expect(page.getByRole("textbox", { name: "Name of the site" })).toHaveValue("Back yard");
});

test("an empty list, a site that is not there, and an empty site each say what to do", async ({ page }) => {
  await page.route("**/api/sites?*", (route) => route.fulfill({ json: { sites: [], total: 0, next: null } }));
  await page.goto("/");
  await expect(page.getByText("No site yet. Begin one, or bring in a site file.")).toBeVisible();
  await page.unroute("**/api/sites?*");
  await page.goto("/#/site/00000000-0000-4000-8000-000000000000");
  await expect(page.getByText("There is no such site here")).toBeVisible();
  await page.getByRole("link", { name: "All sites", exact: true }).click();
  await expect(page.getByRole("heading", { name: "Sites", exact: true })).toBeVisible();
});
