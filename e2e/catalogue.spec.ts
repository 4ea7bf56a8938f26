/** A camera of the firm's own, from a pasted data sheet into a site; the catalogue out and in again; five thousand models searched. */
import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { Aim, ROOT, keep, kept, openId, choose } from "./support/aim";

const SHEET = readFileSync(`${ROOT}crates/core/tests/sheets/01-list.txt`, "utf8");

test.beforeEach(async ({ request }) => {
  // The catalogue is one for all: each test begins with an empty one.
  const { number } = (await (await request.get("/api/catalogue/own")).json()) as { number: number };
  const catalogue = { format: "bright-angle/catalogue", version: 1, models: [] };
  const put = await request.put("/api/catalogue/own", { data: { based_on: number, says: "Empty", catalogue } });
  expect(put.status()).toBe(200);
});

test("a pasted sheet becomes a camera of one's own, is taken in a site, and newer figures are told", async ({
  page,
  request,
}) => {
  await page.goto("/#/cameras");
  await page.getByRole("button", { name: "Read a data sheet" }).click();
  const reader = page.getByRole("region", { name: "Read a data sheet" });
  await reader.getByRole("textbox").fill("Terms and conditions apply.");
  await reader.getByRole("button", { name: "Read it" }).click();
  await expect(reader.getByText("Nothing was found in it")).toBeVisible();
  await reader.getByRole("textbox").fill(SHEET);
  await reader.getByRole("button", { name: "Read it" }).click();
  // Each figure stands beside the line that it was read from; what is not there is asked.
  const found = reader.getByTestId("sheet-model");
  await expect(found.getByRole("row", { name: /Infrared range/ })).toContainText("IR range: up to 30 m (98 ft)");
  await expect(reader.getByText(/Not found, to be entered: Sensor’s active width/)).toBeVisible();
  await reader.getByRole("button", { name: "Confirm and go on" }).click();
  const form = page.getByRole("form", { name: "Camera" });
  await expect(form.getByLabel("Focal length, shortest")).toHaveValue("2.8");
  await expect(form.getByRole("button", { name: "Keep it" })).toBeDisabled();
  await form.getByLabel("Sensor’s active width").fill("5.4");
  await form.getByLabel("Sensor’s active height").fill("3.05");
  await form.getByLabel("Name").fill("Our turret");
  // What the lens does stands there at once: its field is the published one.
  await expect(form.getByRole("table", { name: "What the lens does" })).toContainText("103 ×");
  await form.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByTestId("own-model")).toContainText("Our turret");

  // In a site, with the figures of the sheet.
  const id = await keep(request);
  const aim = new Aim(page);
  await aim.open(id);
  await aim.take("Fuel berth till");
  await page.getByRole("combobox", { name: "Model and lens" }).fill("Our tur");
  await page.getByTitle("Our turret").click();
  await expect(aim.saving).toHaveText(/^Saved/);
  const models = async () =>
    (await kept(request, openId(page))).site.cameras.map((camera) => camera.model as Record<string, unknown>);
  await expect
    .poll(async () => (await models()).find((model) => model["name"] === "Our turret")?.["infrared_m"])
    .toBe(30);

  // The catalogue moves on: the site is told, and keeps what it has until somebody takes it.
  const own = (await (await request.get("/api/catalogue/own")).json()) as {
    number: number;
    catalogue: { models: Record<string, unknown>[] };
  };
  const [model] = own.catalogue.models;
  const catalogue = { ...own.catalogue, models: [{ ...model, infrared_m: 40 }] };
  await request.put("/api/catalogue/own", { data: { based_on: own.number, says: "Newer", catalogue } });
  await page.reload();
  await expect(page.getByText("My cameras has other figures for this model")).toBeVisible();
  expect((await models()).find((held) => held["name"] === "Our turret")?.["infrared_m"]).toBe(30);
  await page.getByRole("button", { name: "Take them" }).click();
  await expect
    .poll(async () => (await models()).find((held) => held["name"] === "Our turret")?.["infrared_m"])
    .toBe(40);

  // The firm's own come first where one stands, from a worker that was told of them once.
  await page.goto(`/#/site/${openId(page)}/survey/lines/t5`);
  // Opened anew, as on a phone: nothing but the survey asks for them.
  await page.reload();
  await choose(page, "Spot for the camera", "A new spot");
  await page.getByRole("button", { name: /Near enough/ }).click();
  await expect(page.getByTestId("finished-line").first()).toContainText("Our turret");
});

test("what is changed while the server is away, and meanwhile elsewhere, is all there", async ({
  page,
  request,
  context,
}) => {
  const table =
    "name,form,width_px,height_px,width_mm,height_mm,focal_min_mm,focal_max_mm,price\nAway turret,turret,2688,1520,5.4,3.05,2.8,2.8,99\n";
  await page.goto("/#/cameras");
  await expect(page.getByText("None yet.")).toBeVisible();
  await context.setOffline(true);
  await page
    .getByLabel("Catalogue file")
    .setInputFiles({ name: "ours.csv", mimeType: "text/csv", buffer: Buffer.from(table) });
  await expect(page.getByTestId("own-model")).toHaveCount(1);
  await expect(page.getByText("On this device; it is sent when the server answers")).toBeVisible();
  // Somebody else saves in between.
  const { number } = (await (await request.get("/api/catalogue/own")).json()) as { number: number };
  const model = {
    name: "Desk bullet",
    form: "bullet",
    sensor: { width_px: 2688, height_px: 1520, width_mm: 5.4, height_mm: 3.05 },
    lens: { focal_min_mm: 4, focal_max_mm: 4 },
  };
  const catalogue = { format: "bright-angle/catalogue", version: 1, models: [model] };
  await request.put("/api/catalogue/own", { data: { based_on: number, says: "Meanwhile", catalogue } });
  await context.setOffline(false);
  await expect(page.getByTestId("own-model")).toHaveCount(2);
  const names = async (): Promise<string[]> => {
    const found = (await (await request.get("/api/catalogue/own")).json()) as {
      catalogue: { models: { name: string }[] };
    };
    return found.catalogue.models.map(({ name }) => name).sort();
  };
  await expect.poll(names).toEqual(["Away turret", "Desk bullet"]);
  // What makes no sense changes nothing.
  const wrong = table.replace("2.8,2.8", "28,2.8");
  await page
    .getByLabel("Catalogue file")
    .setInputFiles({ name: "wrong.csv", mimeType: "text/csv", buffer: Buffer.from(wrong) });
  await expect(page.getByText("wrong.csv was not brought in, nothing was changed")).toBeVisible();
  expect(await names()).toEqual(["Away turret", "Desk bullet"]);
});

test("a part of one's own is entered, refused where it makes no sense, and hung before the generic ones", async ({
  page,
  request,
}) => {
  await page.goto("/#/cameras");
  await page.getByRole("button", { name: "New part" }).click();
  const form = page.getByRole("form", { name: "Part of a mount" });
  await form.getByLabel("Name").fill("Our wall arm, 300 mm");
  await form.getByLabel("Kind").selectOption("arm");
  await form.getByLabel("Weight").fill("-1");
  await expect(form.getByRole("status")).toContainText("Weight");
  await expect(form.getByRole("button", { name: "Keep it" })).toBeDisabled();
  await form.getByLabel("Weight").fill("1,1");
  await form.getByLabel("Carries").fill("15");
  await form.getByLabel("Brings the camera out").fill("0.3");
  await form.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByTestId("own-part")).toContainText("Our wall arm, 300 mm");
  await expect(page.getByTestId("own-part")).toContainText("arm, 1.1 kg, carries 15 kg");
  await expect(page.getByText("On this device; it is sent when the server answers")).toBeHidden();

  // Hung: the camera comes out by as much as it reaches.
  const id = await keep(request);
  await page.goto(`/#/site/${id}/fit`);
  await page.getByTestId("camera-c4").press("Enter");
  await page.getByTestId("tool-mount").click();
  const before = (await kept(request, id)).site.cameras[3]?.position ?? [0, 0];
  await page.getByRole("combobox", { name: "Add a part" }).click();
  await page.locator(".ant-select-dropdown:visible").getByText("Our wall arm, 300 mm").click();
  await expect(page.getByRole("listitem").filter({ hasText: "Our wall arm, 300 mm" })).toBeVisible();
  const moved = async (): Promise<number> => {
    const now = (await kept(request, id)).site.cameras[3]?.position ?? [0, 0];
    return Math.hypot(now[0] - before[0], now[1] - before[1]);
  };
  await expect.poll(moved).toBeCloseTo(0.3, 6);
});
