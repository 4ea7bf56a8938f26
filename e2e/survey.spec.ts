/** The walk around a site on a phone, from nothing to "nothing left to ask", and the same site at the desk. */
import { readFileSync } from "node:fs";
import { type APIRequestContext, type Locator, type Page, expect, test } from "@playwright/test";
import { Aim, ROOT, centre, demo, keep, openId } from "./support/aim";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

interface Surveyed {
  brief?: Record<string, unknown>;
  drawing?: { metres_per_px?: number; scale_from?: unknown[]; picture: string };
  spots?: { id: string; name: string; position: [number, number]; photos?: { picture: string }[] }[];
  targets: {
    id: string;
    name: string;
    shape: { points: [number, number][] };
    distance: { how: string; from?: { spot: string; plus_minus_m: number }[] };
  }[];
  readings?: { id: string; used: boolean; slope_m: number; shots_m: number[]; from: string; to: string }[];
}

async function surveyed(request: APIRequestContext, id: string): Promise<Surveyed> {
  return ((await (await request.get(`/api/sites/${id}`)).json()) as { site: Surveyed }).site;
}

class Walk {
  readonly left: Locator;
  constructor(readonly page: Page) {
    this.left = page.getByTestId("before-you-leave");
  }

  async step(name: string): Promise<void> {
    await this.page.getByRole("navigation", { name: "Steps of the survey" }).getByRole("link", { name }).click();
    await expect(this.page.getByRole("link", { name }).first()).toHaveAttribute("aria-current", "step");
  }

  field(label: string): Locator {
    return this.page.getByRole("textbox", { name: label, exact: true });
  }

  async choose(label: string, word: string): Promise<void> {
    await this.page.getByRole("radiogroup", { name: label, exact: true }).getByText(word, { exact: true }).click();
  }

  /** Taps the plan at a share of its width and height. */
  async tap(x: number, y: number): Promise<void> {
    const sheet = this.page.getByRole("group", { name: /^Plan/ });
    const box = await sheet.boundingBox();
    await sheet.click({ position: { x: (box?.width ?? 0) * x, y: (box?.height ?? 0) * y } });
  }

  async kept(): Promise<void> {
    await expect(this.page.getByTestId("saving")).toHaveText(/^Saved \d/);
  }
}

async function answerBrief(walk: Walk): Promise<void> {
  await walk.choose("Kind of site", "Yard");
  for (const [label, text] of [
    ["Client", "Somebody made up"],
    ["What must be seen", "Faces at the till"],
    ["Where the recorder goes", "Office"],
    ["Colour", "black"],
    ["Who may see recordings", "the owner"],
    ["Light at night", "one lamp"],
    ["Access for the fitters", "ladder"],
    ["Keep out of view", "nothing"],
    ["Who decides", "the owner"],
  ] as const)
    await walk.field(label).fill(text);
  // A yard's usual days of recording and no sound are filled in.
  await expect(walk.page.getByRole("textbox", { name: "Days", exact: true })).toHaveValue("30 days");
}

async function addSpot(walk: Walk, name: string, x: number, y: number): Promise<void> {
  await walk.page.getByRole("button", { name: "Add a spot" }).click();
  await walk.tap(x, y);
  await walk.field("Name").fill(name);
  await walk.choose("Kind", "Wall");
  await walk.field("Surface").fill("brick");
  await walk.choose("Back box needed", "Yes");
  await walk.choose("Outdoors", "Yes");
  await walk.choose("A hand can reach it", "No");
  await walk.page.getByRole("textbox", { name: "Length of the way" }).fill("25");
  await walk.page.getByRole("button", { name: new RegExp(`^\\d ?${name}`) }).click();
}

async function addTarget(walk: Walk, name: string, x: number, y: number): Promise<void> {
  await walk.page.getByRole("button", { name: "Add a target" }).click();
  await walk.tap(x, y);
  await walk.field("Name").fill(name);
  await walk.field("Light there at night").fill("none");
  await walk.page.getByRole("button", { name: new RegExp(`^\\d ?${name}`) }).click();
}

/** One shot, again where nothing came back. */
async function shoot(walk: Walk, target: string, spot: string): Promise<void> {
  const { page } = walk;
  await page.getByRole("heading", { level: 1, name: target }).waitFor();
  await page.getByRole("combobox", { name: "Spot to shoot at" }).click();
  await page.locator(".ant-select-item-option", { hasText: spot }).click();
  await expect(page.getByRole("button", { name: "Measure", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Measure", exact: true }).click();
  await expect(page.getByTestId("slope")).toBeVisible();
}

test("the whole walk on a phone: measured, an outlier named and thrown out, nothing left to ask, and all of it at the desk", async ({
  browser,
  request,
}) => {
  const context = await browser.newContext(PHONE);
  const page = await context.newPage();
  const walk = new Walk(page);
  await page.goto("/");
  await page.getByRole("button", { name: "New site" }).first().click();
  await page.getByRole("textbox", { name: "Name of the site" }).fill("Walked yard");
  await page.getByRole("button", { name: "Begin" }).click();
  await page.getByRole("link", { name: "Survey", exact: true }).click();
  await expect(walk.left).toHaveText(/^Before you leave: \d+ left$/);
  await answerBrief(walk);

  await walk.step("Drawing");
  await page.locator("input[type=file]").setInputFiles(`${ROOT}demo/tern-quay.png`);
  await expect(page.getByTestId("drawing")).toBeVisible();
  await expect(page.getByTestId("drawing-scale")).toHaveText("not set yet");
  await page.getByRole("button", { name: "All", exact: true }).click();
  for (const [place, from, to] of [
    [1, [0.2, 0.3], [0.8, 0.3]],
    [2, [0.3, 0.4], [0.3, 0.65]],
  ] as const) {
    await page.getByRole("button", { name: /^Mark (a|another) distance$/ }).click();
    await walk.tap(from[0], from[1]);
    await walk.tap(to[0], to[1]);
    const measure = page.getByRole("button", { name: `Measure distance ${place}` });
    const before = await page.getByRole("textbox", { name: `Distance ${place}` }).inputValue();
    // The laser may find no return; a surveyor shoots again.
    await expect(async () => {
      await measure.click();
      await expect(page.getByRole("textbox", { name: `Distance ${place}` })).not.toHaveValue(before, { timeout: 1500 });
    }).toPass();
  }
  await expect(page.getByTestId("drawing-scale")).toHaveText(/^\d+\.\d\d cm per pixel$/);

  await walk.step("Spots");
  await page.getByRole("button", { name: "All", exact: true }).click();
  await addSpot(walk, "House corner", 0.25, 0.35);
  await addSpot(walk, "Shed", 0.75, 0.35);
  await addSpot(walk, "Pole", 0.5, 0.68);
  await walk.step("Targets");
  await addTarget(walk, "Till", 0.5, 0.45);
  await addTarget(walk, "Door", 0.35, 0.55);
  await addTarget(walk, "Hatch", 0.65, 0.55);
  await addTarget(walk, "Gate", 0.5, 0.33);

  // Six readings; the fourth one hits the thing behind (playwright.config.ts says so to the stand-in).
  await walk.step("Readings");
  for (const [target, spots] of [
    ["Till", ["House corner", "Shed"]],
    ["Door", ["House corner", "Pole"]],
    ["Hatch", ["Shed"]],
    ["Gate", ["Pole"]],
  ] as const) {
    for (const spot of spots) await shoot(walk, target, spot);
    if (target === "Till") await expect(page.getByRole("region", { name: "First answer" })).toContainText("Thumb rule");
    await page.getByRole("button", { name: "Next target" }).click();
  }
  await expect(page.getByText(/Door to Pole is doubtful: about \d\.\d m too long/)).toBeVisible();
  await expect(walk.left).toHaveText(/^Before you leave: \d left$/);
  await page.getByRole("button", { name: "Throw it out" }).click();
  await expect(page.getByText(/is doubtful/)).toHaveCount(0);
  await page.getByRole("button", { name: "Accept the adjusted positions" }).click();
  await expect(walk.left).toHaveText("Nothing left to ask");
  await walk.kept();

  const id = openId(page);
  const site = await surveyed(request, id);
  expect(site.readings?.map((reading) => reading.used)).toEqual([true, true, true, false, true, true]);
  // Every target is known along the lines that were measured, not by a blanket figure.
  for (const target of site.targets)
    expect(Math.min(...(target.distance.from ?? []).map((from) => from.plus_minus_m))).toBeLessThan(0.06);
  await context.close();

  // At the desk it is all there.
  const desk = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  const aim = new Aim(desk);
  await desk.goto(`/#/site/${id}`);
  await expect(aim.promises.getByRole("listitem")).toHaveCount(4);
  await expect(desk.getByTestId("drawing")).toBeVisible();
  // A camera that is put down by a spot sits on it, as high as it is, and knows its measured distance.
  await aim.promises.getByRole("button", { name: /Door/ }).first().click();
  await desk.getByRole("button", { name: "Add a camera" }).click();
  const [x, y] = await centre(desk.locator(".spots-known .spot-plate").first());
  await desk.mouse.click(x + 6, y - 5);
  await expect(aim.verdict).toHaveText(/kept|tight|broken/);
  await aim.saved();
  const placed = (await surveyed(request, id)) as unknown as {
    cameras: { spot?: string; position: unknown }[];
    spots: { id: string; position: unknown }[];
  };
  expect(placed.cameras[0]).toMatchObject({
    spot: placed.spots[0]?.id,
    position: placed.spots[0]?.position,
    height_m: 3,
  });
  await desk.context().close();
});

test("a doubtful reading of the demo is named, thrown out, and the positions are accepted", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  const walk = new Walk(page);
  await page.goto(`/#/site/${id}/survey/readings`);
  await expect(
    page.getByText(/Fuel berth till to Workshop SE corner is doubtful: about 5\.\d m too long/),
  ).toBeVisible();
  await page.getByRole("button", { name: "Throw it out" }).click();
  await expect(page.getByText(/is doubtful/)).toHaveCount(0);
  await page.getByRole("button", { name: "Accept the adjusted positions" }).click();
  await expect(page.getByText("They agree.")).toBeVisible();
  await walk.kept();
  const before = demo().targets[0]?.shape.points[0] as [number, number];
  const after = (await surveyed(request, id)).targets[0]?.shape.points[0] as [number, number];
  expect(Math.hypot(after[0] - before[0], after[1] - before[1])).toBeGreaterThan(0.05);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => (await surveyed(request, id)).targets[0]?.shape.points[0]).toEqual(before);
});

test("a stray among repeated shots is left out and said so", async ({ page, request }) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/survey/readings/t1`);
  await expect(page.getByTestId("slope")).toBeVisible();
  await page.getByRole("button", { name: "Type it" }).click();
  await page.getByRole("textbox", { name: "Distance" }).fill("24.61");
  await page.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByText(/The fourth shot went past: 5\.\d\d m long\. Left out\./)).toBeVisible();
  // The mean did not move.
  await expect(page.getByTestId("slope")).toHaveText("19.14 m");
});

test("the walk goes on while the server is away, and a closed window loses nothing", async ({ browser, request }) => {
  const id = await keep(request);
  const context = await browser.newContext(PHONE);
  let page = await context.newPage();
  await page.goto(`/#/site/${id}/survey/brief`);
  await expect(page.getByTestId("before-you-leave")).toHaveText(/left$/);
  await context.setOffline(true);
  await page.getByRole("textbox", { name: "Address of the site" }).fill("12 Quay Road");
  await expect(page.getByText("The server does not answer. Go on:")).toBeVisible();
  await page
    .getByRole("link", { name: /^Spots/ })
    .first()
    .click();
  await page.getByRole("button", { name: /^7 ?Workshop SW corner/ }).click();
  await page.getByRole("textbox", { name: "Surface" }).fill("steel");
  await page
    .getByTestId("photo-s7")
    .setInputFiles({ name: "wall.png", mimeType: "image/png", buffer: readFileSync(`${ROOT}demo/tern-quay.png`) });
  await expect(page.getByText("1 on this device until the server has it.")).toBeVisible();
  await page
    .getByRole("link", { name: /^Readings/ })
    .first()
    .click();
  await page.getByRole("button", { name: "Measure again" }).click();
  await expect(page.getByText("the server does not answer", { exact: true })).toBeVisible();
  await page.close();
  await context.setOffline(false);

  page = await context.newPage();
  await page.goto(`/#/site/${id}/survey/spots`);
  await expect(page.getByTestId("saving")).toHaveText(/^Saved \d/);
  await expect.poll(async () => (await surveyed(request, id)).spots?.[6]?.photos?.length).toBe(1);
  const site = await surveyed(request, id);
  expect(site.brief?.["address"]).toBe("12 Quay Road");
  expect((site.spots?.[6] as unknown as { surface: string }).surface).toBe("steel");
  await context.close();
});

test("pictures, world files and CSV that are no good are each answered clearly", async ({ page, request }) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/survey/drawing`);
  const input = page.locator("input[type=file]").first();
  const refused = async (files: { name: string; mimeType: string; buffer: Buffer }[], says: RegExp): Promise<void> => {
    await input.setInputFiles(files);
    await expect(page.getByRole("alert").filter({ hasText: says }).first()).toBeVisible();
    await page.getByRole("button", { name: "Close" }).click();
    await expect(page.getByRole("alert")).toHaveCount(0);
  };
  const picture = readFileSync(`${ROOT}demo/tern-quay.png`);
  await refused(
    [{ name: "disguised.png", mimeType: "image/png", buffer: Buffer.from("#!/bin/sh\nrm -rf nothing\n") }],
    /disguised\.png was not brought in.*is no picture/s,
  );
  await refused(
    [{ name: "half.png", mimeType: "image/png", buffer: picture.subarray(0, 3000) }],
    /half\.png was not brought in/,
  );
  await refused(
    [{ name: "huge.png", mimeType: "image/png", buffer: Buffer.alloc(7 * 1024 * 1024) }],
    /larger than 6 MiB/,
  );
  await refused(
    [{ name: "odd.pgw", mimeType: "text/plain", buffer: Buffer.from("far\naway\n") }],
    /odd\.pgw was not brought in.*six lines/s,
  );
  const was = (await surveyed(request, id)).drawing?.picture;
  await input.setInputFiles([
    { name: "yard.png", mimeType: "image/png", buffer: picture },
    { name: "yard.pgw", mimeType: "text/plain", buffer: readFileSync(`${ROOT}demo/tern-quay.pgw`) },
  ]);
  await expect(page.getByTestId("drawing-scale")).toHaveText("10.00 cm per pixel");
  expect(was).toBeTruthy();

  await page.goto(`/#/site/${id}/survey/readings`);
  await expect(page.getByRole("region", { name: "Log of readings" })).toBeVisible();
  const csv = "from;to;slope_m\nt1;s3;18,93\nt1;s99;4,2\nt1;s4;zwei\n";
  await page
    .getByRole("region", { name: "Log of readings" })
    .locator("input[type=file]")
    .setInputFiles({ name: "sheet.csv", mimeType: "text/csv", buffer: Buffer.from(csv) });
  const bad = page.getByRole("alert").filter({ hasText: "1 good lines of sheet.csv were kept" });
  await expect(bad.first()).toContainText("Line 4");
  await expect(bad.first()).toContainText("s99");
  await expect
    .poll(async () => (await surveyed(request, id)).readings?.some((reading) => reading.slope_m === 18.93))
    .toBe(true);
});

test("the sheet prints the brief, a line a camera, and a page for every five targets", async ({ page, request }) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/survey/sheet`);
  await expect(page.locator(".sheet-page")).toHaveCount(4);
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation", { name: "Steps of the survey" })).toBeHidden();
  await expect(page.getByText("Survey, page 4 of 4")).toBeVisible();
  const pdf = await page.pdf({ format: "A4" });
  // Four pages come out of the printer too: as many page objects (ISO 32000-1, 7.7.3.3), each of A4.
  const text = pdf.toString("latin1");
  expect(text.match(/\/Type\s*\/Page\b(?!s)/g)?.length).toBe(4);
  expect(text).toMatch(/\/MediaBox\s*\[0 0 59[45](\.\d+)? 84[12]/);
});
