/** The client agrees by a link, on a device of their own that is not paired. */
import { expect, test } from "@playwright/test";
import { fromMenu } from "./support/aim";
import { OwnServer } from "./support/own";
import { DOOR } from "./support/phone";
import { sign } from "./support/sign";

const own = new OwnServer(8207, ["--share", "--share-address", DOOR, "--share-port", "8217"]);
test.beforeAll(() => own.start());
test.afterAll(() => own.end());

test("a link shows the promises and views and nothing else, is signed once, taken over, and ended", async ({
  page,
  browser,
}) => {
  await page.goto(`${own.address}/#/`);
  await page.getByRole("link", { name: "Tern Quay" }).first().click();
  await expect(page).toHaveURL(/#\/site\//);
  await page.goto(`${page.url().replace(/\/(survey|aim|wire|fit|papers).*$/, "")}/papers/agree`);
  await page.getByRole("button", { name: "Make a link" }).click();
  const link = page.getByTestId("made-link").getByRole("link");
  const url = (await link.textContent()) ?? "";
  expect(url).toMatch(/^https:\/\/127\.0\.0\.\d+:8217\/sign#[A-Z2-7]{52}$/);
  await expect(page.getByTestId("sign-link")).toContainText("not signed yet");

  const client = await browser.newContext({ ignoreHTTPSErrors: true, viewport: { width: 390, height: 844 } });
  const there = await client.newPage();
  await there.goto(url);
  await expect(there.getByRole("heading", { name: "Tern Quay" })).toBeVisible();
  await expect(there.getByRole("img", { name: /^What .* will see$/ })).not.toHaveCount(0);
  await expect(there.getByRole("listitem").first()).toContainText("—");
  // The rest of the application is shut.
  expect((await client.request.get(`https://${DOOR}:8217/api/sites`)).status()).toBe(401);
  await there.getByLabel("Who agrees").fill("C. Client");
  await sign(there);
  await there.getByRole("button", { name: "Agree", exact: true }).click();
  await expect(there.getByRole("status")).toContainText("Agreed. Thank you");
  await there.reload();
  await expect(there.getByRole("status")).toContainText("This was signed, by C. Client");

  const line = page.getByTestId("sign-link");
  await expect(line).toContainText("Signed by C. Client");
  await line.getByRole("button", { name: "Take it over" }).click();
  await expect(page.getByTestId("agreed")).toContainText("Agreed by C. Client");
  await expect(line).toHaveCount(0);
  await there.reload();
  await expect(there.getByRole("status")).toContainText("This link is over");

  // The state that was agreed has a name of its own.
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), "Revisions");
  await expect(page.locator(".revision-head", { hasText: "Agreed by C. Client" }).first()).toBeVisible();
  await client.close();
});
