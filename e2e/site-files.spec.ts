/** Site files in and out of the browser. */
import { readFileSync } from "node:fs";
import { type Page, expect, test } from "@playwright/test";
import { Aim, DEMO, demo, keep, openId, fromMenu } from "./support/aim";

async function bringIn(page: Page, name: string, text: string): Promise<void> {
  const chooser = page.waitForEvent("filechooser");
  await page.getByRole("button", { name: "Bring in a site file" }).click();
  await (await chooser).setFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
}

async function sites(page: Page): Promise<number> {
  return ((await (await page.request.get("/api/sites")).json()) as { total: number }).total;
}

test("a bad file is answered with its faults, each with its place, and nothing is stored", async ({ page }) => {
  await page.goto("/");
  const before = await sites(page);
  const site = demo();
  if (site.cameras[2]?.heads[0]) site.cameras[2].heads[0].focal_mm = 30;
  if (site.targets[1]) site.targets[1].id = "t1";
  await bringIn(page, "bad.json", JSON.stringify(site));
  const alert = page.getByRole("alert").filter({ hasText: "bad.json was not brought in, nothing was stored" });
  await expect(alert).toContainText("Camera 3, head 1, focal: 30 is not the lens's 2.8");
  await expect(alert).toContainText('Target 2, id: "t1" stands twice in targets');
  for (const [name, text, says] of [
    ["cut.json", readFileSync(DEMO, "utf8").slice(0, 400), "cut.json was not brought in"],
    ["other.json", '{"format": "other/thing", "version": 1}', "is not a site file"],
    ["newer.json", JSON.stringify({ ...demo(), version: 9 }), "9 is newer than this program reads"],
  ] as const) {
    await bringIn(page, name, text);
    await expect(page.getByRole("alert").filter({ hasText: says }).first()).toBeVisible();
  }
  expect(await sites(page)).toBe(before);
});

test("a good file is brought in and comes out as it went in", async ({ page }) => {
  const aim = new Aim(page);
  await page.goto("/");
  await bringIn(page, "tern-quay.json", readFileSync(DEMO, "utf8"));
  await expect(aim.verdict).toHaveText(/kept|tight|broken|unknown/);
  await page.getByRole("button", { name: "Site", exact: true }).click();
  const download = page.waitForEvent("download");
  await page.getByRole("menuitem", { name: "Save as a site file" }).click();
  const file = await download;
  expect(file.suggestedFilename()).toBe("tern-quay-boatyard.json");
  const out: unknown = JSON.parse(readFileSync(await file.path(), "utf8"));
  expect(out).toEqual(demo());
  // Out, in again, and the same site stands there.
  await page.goto("/");
  await bringIn(page, "again.json", JSON.stringify(out));
  await expect(aim.verdict).toHaveText(/kept|tight|broken|unknown/);
  const answer = await page.request.get(`/api/sites/${openId(page)}`);
  expect(((await answer.json()) as { site: unknown }).site).toEqual(demo());
});

test("the limits of a site are changed and its verdicts with them", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), "Limits and settings");
  await page.getByRole("radio", { name: "IEC 62676-4:2025, from memory" }).check();
  await page.getByRole("dialog").getByRole("button", { name: "Close" }).click();
  await aim.take("Pontoon head");
  await aim.evidence.getByText("Pixel density", { exact: true }).click();
  await expect(aim.evidence).toContainText("from memory");

  // A face may be seen from 15° above; the till's is seen from less. Where only 2° were allowed it would not be.
  await aim.take("Fuel berth till");
  const rule = aim.evidence.locator(".rule").filter({ hasText: "Face seen from above" });
  await expect(rule.getByRole("img", { name: "kept" })).toBeVisible();
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), "Limits and settings");
  const limits = page.getByRole("dialog");
  for (const [label, degrees] of [
    ["Kept up to", "2"],
    ["Tight up to", "3"],
  ] as const) {
    await limits.getByRole("textbox", { name: label }).first().fill(degrees);
    await limits.getByRole("textbox", { name: label }).first().press("Enter");
  }
  await limits.getByRole("button", { name: "Close" }).click();
  await expect(rule.getByRole("img", { name: "broken" })).toBeVisible();
});
