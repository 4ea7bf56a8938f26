/** A phone on the local network, in a browser of its own on a second address: let in by the desk, named in the history, ended. */
import { expect, test } from "@playwright/test";
import { fromMenu } from "./support/aim";
import { OwnServer } from "./support/own";
import { DOOR, Phone, drawCode } from "./support/phone";

const own = new OwnServer(8167, ["--share-address", DOOR, "--share-port", "8177"]);
test.beforeAll(() => own.start());
test.afterAll(() => own.end());

test("the desk opens the door, a phone is paired, works, is named in the history, and is ended", async ({ page }) => {
  await page.goto(`${own.address}/#/`);
  await page.getByRole("link", { name: "Phones" }).click();
  await page.getByRole("switch", { name: "Let phones in on this network" }).check();
  const phone = await Phone.start(false);
  const there = await phone.context.newPage();
  // Nothing but the page to pair at.
  await there.goto(`https://${DOOR}:8177/`);
  await expect(there.getByRole("heading", { name: "Pair this device" })).toBeVisible();
  const code = await drawCode(page);
  await phone.pair(there, code, "Roof phone");
  expect(there.url()).not.toContain("#" + (code.split("#")[1] ?? ""));
  const devices = page.getByTestId("device");
  await expect(devices).toHaveCount(1);
  await expect(devices).toContainText("Roof phone");
  // A browser that was only told to go on keeps nothing, and the application says so.
  await expect(there.getByText("This device does not trust the desk yet")).toBeVisible();
  await there.getByRole("link", { name: "Trust it" }).tap();
  await expect(there.getByText("This device is paired as Roof phone")).toBeVisible();
  const loaded = there.waitForEvent("download");
  await there.getByRole("link", { name: "Load the certificate" }).tap();
  expect((await loaded).suggestedFilename()).toBe("bright-angle.crt");
  const figures = (await there.locator(".fingerprint").textContent()) ?? "";
  expect(figures).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/);
  await expect(page.locator(".fingerprint")).toHaveText(figures);

  // It works as at the desk, and what it saves goes by its name.
  await there.goto(`https://${DOOR}:8177/#/`);
  await there.getByRole("link", { name: "Umber Yard Self-storage" }).first().tap();
  const name = there.getByRole("textbox", { name: "Name of the site" });
  await name.fill("Umber Yard, seen from the roof");
  await name.press("Enter");
  await expect(there.getByTestId("saving")).toHaveText(/^Saved/);
  await page.goto(`${own.address}/#/`);
  await page.getByRole("link", { name: "Umber Yard, seen from the roof" }).click();
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), "Revisions");
  const lines = page.locator(".revision-head");
  await expect(lines.first()).toContainText("Roof phone");
  await expect(lines.last()).toContainText("at the desk");

  // Ended while it works: it is told, and keeps what it does.
  await page.goto(`${own.address}/#/phones`);
  await page.getByRole("button", { name: "End Roof phone" }).click();
  await expect(page.getByText("No phone is paired yet")).toBeVisible();
  await name.fill("Not sent yet");
  await name.press("Enter");
  await expect(there.getByText("This device is not paired any more")).toBeVisible();
  await expect(there.getByTestId("saving")).not.toHaveText(/^Saved/);
  // Paired anew, it is sent.
  const again = await drawCode(page);
  await phone.pair(there, again, "Roof phone");
  await expect(there.getByRole("link", { name: "Not sent yet" })).toBeVisible();
  const sent = async (): Promise<string[]> => {
    const { sites } = (await (await fetch(`${own.address}/api/sites`)).json()) as { sites: { name: string }[] };
    return sites.map((site) => site.name);
  };
  await expect.poll(sent).toContain("Not sent yet");
  await phone.browser.close();
});
