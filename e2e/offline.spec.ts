/** Offline from cold: the server is stopped before the page is loaded, on a phone; everything is there once when it is back. */
import { readFileSync } from "node:fs";
import { type Page, expect, test } from "@playwright/test";
import { Aim, ROOT, type Site, fromMenu } from "./support/aim";
import { OwnServer } from "./support/own";
import { onDevice } from "./support/phone";

test.use({ serviceWorkers: "allow", viewport: { width: 390, height: 844 }, hasTouch: true });

const own = new OwnServer(8157);
test.beforeAll(() => own.start());
test.afterAll(() => own.end());

interface Surveyed extends Site {
  spots: { id: string; photos?: { picture: string }[] }[];
  readings: { id: string; from: string; to: string; slope_m: number; shots_m?: number[] }[];
}
interface Revision {
  number: number;
  site: Surveyed;
}
const asked = async <T>(path: string): Promise<T> => (await (await fetch(`${own.address}${path}`)).json()) as T;

const sites = async (): Promise<{ id: string; name: string }[]> =>
  (await asked<{ sites: { id: string; name: string }[] }>("/api/sites")).sites;

async function typeReading(page: Page, target: string, distance: string, shots: number): Promise<void> {
  await page.goto(page.url().replace(/readings.*$/, `readings/${target}`));
  await page.getByRole("button", { name: "Type it" }).click();
  await page.getByRole("textbox", { name: "Distance" }).fill(distance);
  await page.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByLabel("Shots").locator(".shot")).toHaveCount(shots);
}

test("a site opens, is surveyed and re-aimed without a server; later all is there once, and an old revision is brought back", async ({
  context,
}) => {
  let page = await context.newPage();
  const id = (await sites()).find(({ name }) => name === "Tern Quay Boatyard")?.id ?? "";
  await page.goto(`${own.address}/#/site/${id}`);
  let aim = new Aim(page);
  await expect(aim.verdict).toHaveText(/kept|tight|broken|unknown/);
  await onDevice(page);
  const before = await asked<Revision>(`/api/sites/${id}`);
  await page.close();
  await own.stop();

  // Cold: no server, a new page.
  page = await context.newPage();
  aim = new Aim(page);
  await page.goto(own.address);
  await expect(page.getByText("The server does not answer", { exact: true })).toBeVisible();
  await page.getByRole("link", { name: "Tern Quay Boatyard" }).click();
  await expect(aim.verdict).toHaveText(/kept|tight|broken|unknown/);

  await page.goto(`${own.address}/#/site/${id}/survey/readings/t1`);
  await typeReading(page, "t1", "19,12", 4);
  await typeReading(page, "t1", "19.16", 5);
  await typeReading(page, "t2", "15.5", 4);
  await page.goto(`${own.address}/#/site/${id}/survey/spots/s7`);
  for (const [place, file] of ["demo/tern-quay.png", "docs/screenshots/survey-drawing.png"].entries()) {
    const buffer = readFileSync(`${ROOT}${file}`);
    await page.getByTestId("photo-s7").setInputFiles({ name: "photo.png", mimeType: "image/png", buffer });
    await expect(page.getByText(`${place + 1} on this device until the server has`)).toBeVisible();
  }

  await page.goto(`${own.address}/#/site/${id}`);
  await aim.take("Fuel berth till");
  await aim.settled();
  const was = await aim.verdict.textContent();
  await aim.ways().first().click();
  await expect(aim.verdict).not.toHaveText(was ?? "");
  const now = await aim.verdict.textContent();
  await expect(aim.saving).toHaveText("On this device, server away");

  // The page is loaded once more, cold.
  await page.close();
  page = await context.newPage();
  aim = new Aim(page);
  await page.goto(`${own.address}/#/site/${id}`);
  await aim.take("Fuel berth till");
  await expect(aim.verdict).toHaveText(now ?? "");

  await own.start();
  await expect(aim.saving).toHaveText(/^Saved \d/, { timeout: 60_000 });
  const photos = async (): Promise<number> =>
    (await asked<Revision>(`/api/sites/${id}`)).site.spots.find((spot) => spot.id === "s7")?.photos?.length ?? 0;
  const had = before.site.spots.find((spot) => spot.id === "s7")?.photos?.length ?? 0;
  await expect.poll(photos, { timeout: 60_000 }).toBe(had + 2);
  await expect(aim.saving).toHaveText(/^Saved \d/);
  const after = await asked<Revision>(`/api/sites/${id}`);
  const shots = (revision: Revision, target: string): number =>
    revision.site.readings.filter((one) => [one.from, one.to].includes(target)).flatMap((one) => one.shots_m ?? [0])
      .length;
  expect(shots(after, "t1") - shots(before, "t1")).toBe(2);
  expect(shots(after, "t2") - shots(before, "t2")).toBe(1);
  await page.getByRole("button", { name: "Where this site is saved" }).click();
  await expect(page.getByText("yes, with every site that was opened here")).toBeVisible();
  await page.keyboard.press("Escape");

  // An old revision is compared, looked at and brought back.
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), "Revisions");
  const first = page.getByTestId(`revision-${before.number}`);
  await first.getByRole("button", { expanded: false }).click();
  await expect(first.getByRole("list", { name: "What changed since then" })).toContainText("Reading");
  await first.getByRole("button", { name: "Look at it" }).click();
  await expect(
    page.getByText(`This is revision ${before.number}, to look at. Nothing here can be changed.`),
  ).toBeVisible();
  await aim.take("Fuel berth till");
  await expect(aim.verdict).toHaveText(was ?? "");
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(aim.saving).toHaveText(/^Saved \d/);
  const back = await asked<Revision>(`/api/sites/${id}`);
  expect(back.number).toBe(after.number + 1);
  expect(back.site).toEqual(before.site);
});

test("the application is put on the device though one of its parts does not come at first", async ({ context }) => {
  let failed = 0;
  await context.route(/mark\.svg/, (route) =>
    route.request().serviceWorker() !== null && failed++ < 2 ? route.abort() : route.continue(),
  );
  const page = await context.newPage();
  await page.goto(own.address);
  await onDevice(page);
  expect(failed).toBeGreaterThan(2);
  await page.close();
  await own.stop();
  const cold = await context.newPage();
  await cold.goto(own.address);
  await expect(cold.getByText("The server does not answer", { exact: true })).toBeVisible();
});
