/** Nothing that was done is lost: server away, database away, a colleague in between, a closed window. */
import { execFileSync } from "node:child_process";
import { expect, test } from "@playwright/test";
import { Aim, ROOT, demo, keep, kept } from "./support/aim";

const cluster = (verb: "start" | "stop"): void => {
  const folder = `${process.env["BRIGHT_ANGLE_DATA"] ?? ""}/postgres`;
  execFileSync(`${ROOT}tools/cluster`, verb === "start" ? [verb, folder, "8118"] : [verb, folder]);
};

test("a database that goes away and comes back: work goes on, and is kept when it is back", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Fuel berth till");
  cluster("stop");
  try {
    await aim.type("Height", "4.2");
    await expect(aim.saving).toHaveText("In this browser, server away");
    await expect(aim.dial("Height")).toHaveValue("4.20 m");
    await expect(aim.verdict).toHaveText("broken");
    expect((await request.get("/api/health")).status()).toBe(503);
  } finally {
    cluster("start");
  }
  await aim.saved();
  expect((await kept(request, id)).site.cameras[3]?.height_m).toBe(4.2);
});

test("a lost connection and a closed window lose nothing", async ({ page, context, request }) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Fuel berth till");
  await context.setOffline(true);
  await aim.type("Height", "5");
  await expect(page.getByText("The server does not answer: figures are paused.")).toBeVisible();
  await expect(aim.saving).toHaveText("In this browser, server away");
  // No figure of the old height stands beside the new one.
  await expect(aim.density).toHaveCount(0);
  await page.close();
  await context.setOffline(false);
  expect((await kept(request, id)).site.cameras[3]?.height_m).toBe(3.6);

  const again = new Aim(await context.newPage());
  await again.open(id);
  await again.saved();
  await expect.poll(async () => (await kept(request, id)).site.cameras[3]?.height_m).toBe(5);
});

test("two people at one site: the second is told, and both versions stay on record", async ({ page, request }) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Fuel berth till");
  const theirs = { ...demo(), name: "Renamed by a colleague" };
  expect((await request.put(`/api/sites/${id}`, { data: { based_on: 1, says: "Rename the site", site: theirs } })).status()).toBe(200);
  await aim.type("Height", "4.2");
  const notice = page.getByRole("dialog", { name: "Somebody else kept a change to this site" });
  await expect(notice).toContainText("Rename the site");
  await notice.getByRole("button", { name: "Take theirs" }).click();
  await expect(page.getByRole("textbox", { name: "Name of the site" })).toHaveValue("Renamed by a colleague");
  await expect(aim.dial("Height")).toHaveValue("3.60 m");

  expect((await request.put(`/api/sites/${id}`, { data: { based_on: 2, says: "Once more", site: theirs } })).status()).toBe(200);
  await aim.type("Height", "4.4");
  await notice.getByRole("button", { name: "Keep mine as revision 4" }).click();
  await aim.saved();
  const newest = await kept(request, id);
  expect([newest.number, newest.site.cameras[3]?.height_m]).toEqual([4, 4.4]);
  const third = (await (await request.get(`/api/sites/${id}/revisions/3`)).json()) as { site: { cameras: { height_m: number }[] } };
  expect(third.site.cameras[3]?.height_m).toBe(3.6);
});

test("an old answer never stands beside a new position", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await expect(aim.density).toBeVisible();
  let release = (): void => {};
  const held = new Promise<void>((resolve) => { release = resolve; });
  await page.route("**/api/study", async (route) => {
    await held;
    await route.continue().catch(() => undefined);
  });
  await aim.type("Height", "5.5");
  await expect(aim.dial("Height")).toHaveValue("5.50 m");
  await expect(aim.density).toHaveCount(0);
  await expect(aim.promises).toContainText("working …");
  await aim.type("Height", "2.4");
  release();
  // The answer for 5.5 m, had it come, would say 11.6° from above; 2.4 m is 2.4°.
  await expect(aim.evidence.locator(".rule").filter({ hasText: "Face seen from above" })).toContainText("2.4°");
  await expect(aim.dial("Height")).toHaveValue("2.40 m");
});

test("the list of sites says when the server is away, and comes back by itself", async ({ page, context }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Sites" })).toBeVisible();
  await page.route("**/api/sites", (route) => route.abort());
  await page.reload();
  await expect(page.getByText("The server does not answer", { exact: true })).toBeVisible();
  await page.unroute("**/api/sites");
  await expect(page.getByRole("link").filter({ hasText: /Tern Quay|Quay/ }).first()).toBeVisible();
  await context.setOffline(false);
});
