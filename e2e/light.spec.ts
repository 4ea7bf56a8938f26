/** Moving plates, the night and the sun, as a new user would meet them. */
import { readFileSync } from "node:fs";
import { type Page, expect, test } from "@playwright/test";
import { Aim, keep, kept, openId, saltpan } from "./support/aim";

interface Lit {
  conditions?: { night?: boolean };
  lamps?: { id: string; lumens: number; position: [number, number] }[];
  place?: { latitude_deg: number; time_zone: string };
  cameras: { id: string; name: string; heads: { tilt_deg: number; exposure?: { shutter_s: number; fps: number } }[] }[];
}

const settled = (page: Page, panel: string) => expect(page.getByTestId(panel)).toHaveAttribute("data-settled", "true");

test("a gate lane becomes a way: where it reads, how fast is too fast, a spot that reads it, and its card", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Gate lane, plates in");
  await aim.turnTo("lane");
  await page.getByRole("button", { name: "Draw its path" }).click();
  await expect(page.getByTestId("lane-zone")).toBeVisible();
  await expect(page.getByTestId("lane-figures")).toContainText("Pictures of the plate");
  const looks = aim.evidence.locator("details", { hasText: "Pictures of the plate" });
  await expect(looks).toContainText("kept");
  // Faster until there are too few looks.
  const speed = page.getByTestId("lane-panel").getByRole("textbox", { name: "Speed" });
  const figure = page.getByTestId("lane-figures").locator("div", { hasText: "Pictures of the plate" }).locator("dd");
  const before = Number(await figure.textContent());
  await speed.fill("540");
  await speed.press("Enter");
  await expect(looks).toContainText(/tight|broken/);
  expect(Number(await figure.textContent())).toBeLessThan(before);
  await aim.type("Frame rate", "2");
  await expect(looks).toContainText("broken");
  await speed.fill("25");
  await speed.press("Enter");
  await aim.type("Frame rate", "25");
  // A way that never reads: turned off the lane there is a spot that does.
  await aim.type("Pan (bearing)", "300");
  await expect(aim.verdict).toHaveText(/broken|behind/);
  const choke = aim.evidence.getByRole("button", { name: /^Try: Read them from/ }).first();
  await expect(choke).toBeVisible();
  await choke.click();
  await expect(aim.verdict).toHaveText("kept");
  await page.getByRole("button", { name: "Settings sheet" }).click();
  const card = page.getByRole("article", { name: /Settings sheet of/ });
  for (const row of [
    "Shutter",
    "Gain limit",
    "Infrared power",
    "Day and night",
    "Region",
    "Plate size window",
    "Trigger line",
  ])
    await expect(card.getByRole("row", { name: new RegExp(row) })).toBeVisible();
  await expect(card.getByRole("row", { name: /Day and night/ })).toContainText("sunrise");
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as CSV" }).click();
  const csv = readFileSync(await (await saving).path(), "utf8");
  expect(csv.split("\n")[0]).toBe("camera,head,target,setting,value,why");
  await page.evaluate(() => {
    window.print = () => document.body.setAttribute("data-printed", "yes");
  });
  await page.getByRole("button", { name: "Print" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-printed", "yes");
});

test("a plate that its own light bleaches by night reads once that is turned down, and the picture shows both", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, { ...saltpan(), conditions: { night: true } }));
  await aim.take("Plates coming in");
  const bleached = aim.evidence.locator("summary", { hasText: "Plate overexposed" });
  await expect(bleached).toContainText("broken");
  await page.getByRole("radiogroup", { name: "Light of the picture" }).getByText("Night").click();
  const exposed = page.getByRole("radiogroup", { name: "Exposure of the picture" });
  await exposed.getByText("Automatic").click();
  await expect(exposed.getByRole("radio", { name: "Automatic" })).toBeChecked();
  const way = aim.evidence.getByRole("button", { name: /^Try: Set the infrared light to/ });
  await expect(way).toBeVisible();
  await way.click();
  await expect(bleached).toContainText("kept");
  await aim.saved();
  const { site } = await kept(request, openId(page));
  const share = (site as unknown as { cameras: { heads: { exposure: { infrared_share: number } }[] }[] }).cameras[0]
    ?.heads[0]?.exposure.infrared_share;
  expect(share).toBeLessThan(0.5);
});

test("how a camera hangs decides which aims it takes, and a housing what it withstands", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Chandlery door");
  const build = aim.evidence.locator("summary", { hasText: "Tilt range of this camera" });
  await expect(build).toContainText("kept");
  await page.getByRole("combobox", { name: "How the camera hangs" }).click();
  await page.getByTitle("under a ceiling").click();
  await expect(build).toContainText("broken");
  await page.getByRole("combobox", { name: "How the camera hangs" }).click();
  await page.getByTitle("on a wall").last().click();
  await expect(build).toContainText("kept");
  await page.getByRole("combobox", { name: "Housing" }).click();
  await page.getByTitle("IP66, IK10").click();
  await aim.saved();
  const { site } = await kept(request, openId(page));
  const camera = (site as unknown as { cameras: { id: string; housing?: object; mounted_as?: string }[] }).cameras.find(
    (held) => held.id === "c3",
  );
  expect([camera?.housing, camera?.mounted_as]).toEqual([{ ip: "IP66", ik: "IK10" }, "wall"]);
});

test("an overview camera is missed beside who reads plates, and the way that is offered brings it", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, saltpan()));
  await aim.take("Plates coming in");
  await expect(page.getByTestId("overview")).toContainText("no other camera");
  const way = aim.evidence.getByRole("button", { name: /^Try: Put up an overview camera/ });
  await expect(way).toBeVisible();
  await way.click();
  await expect(page.getByTestId("overview")).toContainText(/C4, kept/);
  await expect(aim.promise("Plates coming in").getByRole("img", { name: "kept" })).toBeVisible();
});

test("the night picture of a camera that faces its own wall: why it is white, and what mends it", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, saltpan()));
  await aim.take("Side door");
  await aim.turnTo("night");
  await settled(page, "night-panel");
  const why = page.getByRole("region", { name: "What light does to this picture" });
  await expect(why).toContainText("Its dome cover hangs under Office eave");
  await expect(why).toContainText(/Office, 0\.5 m away/);
  const mends = page.getByRole("list", { name: "Ways that mend the night picture" });
  await mends
    .getByRole("button", { name: /^Try: / })
    .first()
    .click();
  await settled(page, "night-panel");
  await expect(why).not.toContainText("Its dome cover hangs under");
  // Judged by night there is a rule for the light.
  await page.getByRole("switch", { name: "Judge the promises by night" }).click();
  await expect(aim.evidence.locator("details", { hasText: "Light at the target" })).toBeVisible();
  await aim.saved();
  const { site } = await kept(request, openId(page));
  expect((site as unknown as Lit).conditions?.night).toBe(true);
});

test("a lamp is put up, and what makes no sense of it is refused", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request, saltpan()));
  await aim.turnTo("night");
  await page.getByRole("button", { name: "Add a lamp" }).click();
  const box = await page.getByLabel(/^Plan\. Click/).boundingBox();
  if (!box) throw new Error("there is a plan");
  await page.mouse.click(box.x + box.width * 0.7, box.y + box.height * 0.75);
  const card = page.getByRole("region", { name: "Lamp Lamp 3" });
  const light = card.getByRole("textbox", { name: "Light" });
  await light.fill("1000000000000");
  await light.press("Enter");
  await expect(card.getByRole("alert")).toContainText("from 0 lm to 1000000 lm");
  await light.fill("2500");
  await light.press("Enter");
  await aim.saved();
  const { site } = await kept(request, openId(page));
  expect((site as unknown as Lit).lamps?.find((lamp) => lamp.id === "l3")?.lumens).toBe(2500);
});

test("the sun stands in C6 in winter; a way out of it is taken, with its price", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Mast racks");
  await aim.turnTo("sun");
  await settled(page, "sun-panel");
  const hours = page.getByTestId("sun-says").locator("strong").first();
  const before = parseFloat((await hours.textContent()) ?? "");
  expect(before).toBeGreaterThan(50);
  await expect(page.getByTestId("sun-bearings")).toBeVisible();
  // By keys: from where it stands in the picture first. They read the calendar, and turn no camera.
  await page.getByTestId("sun-chart").focus();
  await page.keyboard.press("ArrowRight");
  await expect(page.getByTestId("sun-read")).toContainText(/in the picture at \d+, \d+ px/);
  await expect(aim.dial("Pan (bearing)")).toHaveValue("129.0°");
  // By the hand: high summer at noon it is far over the picture.
  const box = await page.getByTestId("sun-chart").boundingBox();
  if (!box) throw new Error("there is a calendar");
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.55);
  await expect(page.getByTestId("sun-read")).toContainText("out of the picture");
  await expect(page.getByTestId("sun-hours")).toHaveAttribute("data-settled", "true");
  await expect(page.getByTestId("sun-hours").getByRole("listitem")).toHaveCount(7);
  const ways = page.getByRole("list", { name: "Ways out of the sun" });
  await expect(ways).toContainText("picture used");
  await ways
    .getByRole("button", { name: /^Try: / })
    .first()
    .click();
  await expect.poll(async () => parseFloat((await hours.textContent()) ?? "")).toBeLessThan(before * 0.75);
});

test("where a site is, is typed or read out of a file; a map grid is refused", async ({ page, request }) => {
  const aim = new Aim(page);
  const site = saltpan() as unknown as Record<string, unknown>;
  delete site.place;
  await aim.open(await keep(request, site));
  await aim.turnTo("sun");
  const file = (name: string, text: string) => ({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
  const chosen = page.getByLabel("A GeoJSON or world file");
  await chosen.setInputFiles(file("plan.wld", "0.1\n0\n0\n-0.1\n430000\n220000\n"));
  await expect(page.getByText("is not in degrees")).toBeVisible();
  await chosen.setInputFiles(
    file("yard.geojson", JSON.stringify({ type: "Feature", geometry: { type: "Point", coordinates: [1.05, 52.93] } })),
  );
  await aim.saved();
  const { site: now } = await kept(request, openId(page));
  expect((now as unknown as Lit).place?.latitude_deg).toBe(52.93);
});
