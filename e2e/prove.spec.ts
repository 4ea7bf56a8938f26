/**
 * Prove: the walk test on a phone with the network cut in the middle; half a year later a knocked camera, a dirty cover and a grown tree
 * told apart, and the visit done from what is due; ten questions of the trainer; pictures that cannot be compared.
 */
import { deflateSync } from "node:zlib";
import { type APIRequestContext, type Page, expect, test } from "@playwright/test";
import { choose, demo, keep, kept } from "./support/aim";

const PHONE = { width: 390, height: 844 };
const SENSOR: [number, number] = [2688, 1520];

interface Proving {
  proofs?: { target: string; night?: boolean; how: { kind: string }; picture?: { picture: string }; moved?: string }[];
  snapshots?: { camera: string; at: string; picture: { picture: string }; against?: { found: { says: string[] } } }[];
  visits?: { date: string; closed?: boolean; done?: { id: string; note?: string; oldest?: string }[] }[];
}
const proving = async (request: APIRequestContext, id: string): Promise<Proving> =>
  (await kept(request, id)).site as unknown as Proving;

interface Line {
  pixel: [number, number];
  px_per_m: number;
  px_per_m_up: number;
}

/** Where a head has a target, by the server's own figures. */
async function lineOf(request: APIRequestContext, camera: string, target: string): Promise<Line> {
  const answer = await request.post("/api/evaluate", { data: demo() });
  const { sight_lines } = (await answer.json()) as { sight_lines: (Line & { camera: string; target: string })[] };
  const found = sight_lines.find((line) => line.camera === camera && line.target === target);
  if (!found) throw new Error("no such sight line");
  return found;
}

/** Clicks in a frame, in pixels of the full picture. */
async function click(page: Page, [u, v]: [number, number], [width, height] = SENSOR): Promise<void> {
  const frame = page.getByTestId("prove-frame");
  await frame.scrollIntoViewIfNeeded();
  const box = await frame.boundingBox();
  if (!box) throw new Error("no frame");
  await frame.click({ position: { x: (u / width) * box.width, y: (v / height) * box.height } });
}

/** Takes the stand-in's picture; answers once it is there. */
async function standIn(page: Page, frame: string): Promise<void> {
  const said = page.waitForResponse((response) => response.url().endsWith("/api/stand-in/picture"));
  await page.getByRole("button", { name: "Stand-in", exact: true }).click();
  expect((await said).status()).toBe(200);
  await expect(page.getByTestId(frame)).toHaveAttribute("data-coming", "false");
  await expect(page.getByText("From the stand-in.")).toBeVisible();
}

test("the walk test on a phone, the network cut in the middle, and all of it at the desk", async ({
  page,
  request,
  context,
}) => {
  const id = await keep(request);
  await page.setViewportSize(PHONE);
  await page.goto(`/#/site/${id}/prove`);
  await expect(page.getByTestId("proved-count")).toHaveText("0 of 9 proved");
  await page.getByTestId("prove-t1").click();
  await expect(page.getByRole("heading", { name: /Fuel berth till/ })).toBeVisible();
  await standIn(page, "prove-frame");
  // A board of 1.6 m at the target, as the plan has it there.
  const { pixel, px_per_m_up } = await lineOf(request, "c4", "t1");
  const half = 0.8 * px_per_m_up;
  await click(page, [pixel[0], pixel[1] - half]);
  await expect(page.getByTestId("prove-click")).toHaveText("Click the second mark.");
  // The network goes: what is measured goes on, and is kept.
  await context.setOffline(true);
  await click(page, [pixel[0], pixel[1] + half]);
  const result = page.getByTestId("prove-result");
  await expect(result).toHaveAttribute("data-settled", "true");
  const got = Number(/(\d+) px\/m of 250/.exec(await result.innerText())?.[1]);
  // A pixel of the phone is seven of the sensor's: a click is off by half of one at each end.
  expect(Math.abs(got - px_per_m_up)).toBeLessThan(8);
  await page.getByRole("textbox", { name: "Turned or moved to get there?" }).fill("turned a little");
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByTestId("prove-tries").getByRole("listitem")).toHaveCount(1);
  await expect(page.getByText(/The server does not answer/)).toBeVisible();
  // By night the client says so; without a picture.
  await page.getByText("By night", { exact: true }).click();
  await page.getByText("Client says", { exact: true }).click();
  await page.getByRole("button", { name: "They know who it is" }).click();
  await expect(page.getByTestId("prove-tries").getByRole("listitem")).toHaveCount(1);
  await context.setOffline(false);
  await expect.poll(async () => (await proving(request, id)).proofs?.length ?? 0).toBe(2);
  const [by_day, by_night] = (await proving(request, id)).proofs ?? [];
  expect([by_day?.how.kind, by_day?.moved, by_night?.how.kind, by_night?.night]).toEqual([
    "marks",
    "turned a little",
    "yes",
    true,
  ]);
  const name = by_day?.picture?.picture ?? "";
  await expect.poll(async () => (await request.get(`/api/pictures/${name}`)).status()).toBe(200);
  // What the server has is what was taken, to the last byte.
  const bytes = await (await request.get(`/api/pictures/${name}`)).body();
  const digest = await crypto.subtle.digest("SHA-256", new Uint8Array(bytes));
  expect(Buffer.from(digest).toString("hex")).toBe(name);
  // At the desk, after a reload: it stands, and an undo takes it back.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.reload();
  await expect(page.getByTestId("prove-t1")).toHaveAttribute("data-night", "kept");
  await page.keyboard.press("Control+z");
  await expect(page.getByTestId("prove-t1")).toBeVisible();
});

test("what was turned for a walk test is taken over by the same picture, and what was typed is still there", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/prove/walk/t1`);
  await standIn(page, "prove-frame");
  const moved = page.getByRole("textbox", { name: "Turned or moved to get there?" });
  await moved.fill("turned a little");
  await moved.press("Tab");
  await page.getByRole("button", { name: "aim by this picture" }).click();
  await expect(page).toHaveURL(/fit\/c4\/h1/);
  await expect(page.getByRole("img", { name: "The real picture" })).toBeVisible();
  await expect(page.getByText("Click 3 more")).toBeVisible();
  await page.goBack();
  await expect(moved).toHaveValue("turned a little");
  await expect(page.getByRole("img", { name: "The real picture" })).toBeVisible();
});

test("a plate is read, a character too few, and marks of one camera count no more once it is turned", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/prove/walk`);
  const plate = demo().targets.find(({ name }) => name.includes("plates in"))?.id ?? "";
  await page.getByTestId(`prove-${plate}`).click();
  const shown = page.getByRole("textbox", { name: "On the plate" });
  await shown.fill("TQ 27 BRT");
  await page.getByRole("textbox", { name: /^Read in the picture/ }).fill("TQ27BR?");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("prove-result")).toContainText("6 of 7 characters read right");
  await page.getByRole("textbox", { name: /^Read in the picture/ }).fill("tq27brt");
  await page.keyboard.press("Enter");
  await expect(page.getByTestId("prove-result")).toContainText("all 7 characters read");
  await expect(page.getByTestId("prove-result")).toHaveAttribute("data-settled", "true");
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByTestId(`prove-${plate}`)).toHaveAttribute("data-day", "kept");
  // Somebody turns the camera on the plan: what was read then says nothing of what hangs now.
  await expect.poll(async () => (await proving(request, id)).proofs?.length ?? 0).toBe(1);
  const { number, site } = await kept(request, id);
  for (const { heads } of site.cameras) for (const head of heads) head.pan_deg += 2;
  const saved = await request.put(`/api/sites/${id}`, { data: { based_on: number, says: "Turn all", site } });
  expect(saved.status(), await saved.text()).toBeLessThan(300);
  await page.reload();
  await expect(page.getByTestId(`prove-${plate}`)).toHaveAttribute("data-day", "unknown");
  await expect(page.getByTestId("prove-tries")).toContainText("it looks elsewhere now");
});

/** Takes the stand-in's picture on the page of a camera's pictures, with what is wrong with it, as of a day. */
async function later(page: Page, order: string, day: string): Promise<string> {
  if (order !== "") await choose(page, "The stand-in is", order);
  await standIn(page, "look-frame");
  await page.locator('input[type="datetime-local"]').fill(`${day}T10:00`);
  const found = page.getByTestId("look-found");
  await expect(found).toBeVisible({ timeout: 60_000 });
  return (await found.getAttribute("data-says")) ?? "";
}

test("half a year later: knocked, dirty and grown over are told apart, and the visit is done from what is due", async ({
  page,
  request,
}) => {
  const site = demo() as object as { brief?: object };
  const id = await keep(request, { ...site, brief: { ...site.brief, retention_days: 14 } });
  await page.goto(`/#/site/${id}/prove/pictures`);
  await page.getByTestId("look-c6-day").click();
  await standIn(page, "look-frame");
  await page.locator('input[type="datetime-local"]').fill("2027-01-15T10:00");
  await page.getByRole("button", { name: "Keep it as the reference" }).click();
  const row = page.getByTestId("look-c6-day");
  await expect(row).toHaveAttribute("data-state", "kept");
  const keepIt = async (): Promise<void> => {
    await page.getByRole("button", { name: "Keep it", exact: true }).click();
    await expect(page.getByTestId("look-found")).toBeHidden();
  };
  // The same picture: nothing is told.
  expect(await later(page, "", "2027-02-01")).toBe("");
  expect(await later(page, "knocked, 1.5° to the right", "2027-05-01")).toBe("moved");
  await keepIt();
  // By the pinhole; this lens bends.
  await expect(page.getByTestId("look-faults")).toContainText(/it turned 1\.[456]° to the right/);
  expect(await later(page, "a dirty cover", "2027-05-08")).toContain("hazed");
  await keepIt();
  await expect(page.getByTestId("look-faults").locator("[data-kind=hazed]")).toBeVisible();
  for (const day of ["2027-06-01", "2027-06-08", "2027-06-15"]) {
    expect(await later(page, "grown over from above", day)).toBe("blocked");
    await keepIt();
  }
  await expect(page.getByTestId("look-faults").locator("[data-kind=grown]")).toBeVisible();
  expect(await later(page, "its clock 7 min fast", "2027-06-20")).toBe("");
  await keepIt();
  await expect(page.getByTestId("look-faults")).toContainText(/its clock is [67] min fast|its clock is 42\d s fast/);
  await expect.poll(async () => (await proving(request, id)).snapshots?.length ?? 0).toBe(7);

  // What is due half a year after, and the visit: on a phone.
  await page.setViewportSize(PHONE);
  await page.goto(`/#/site/${id}/prove/upkeep`);
  await page.getByLabel("On", { exact: true }).fill("2027-08-01");
  await expect(page.getByTestId("due-cover.c6")).toContainText("Clean the cover");
  await expect(page.getByTestId("not-begun")).toContainText("C1");
  await page.getByRole("button", { name: "Begin a visit" }).click();
  const cover = page.getByTestId("item-cover.c6");
  await cover.getByRole("button", { name: "Done" }).click();
  await expect(cover).toHaveAttribute("data-how", "done");
  await cover.getByRole("textbox", { name: "Found" }).fill("spider webs");
  const playback = page.locator("[data-testid^='item-playback.']");
  await playback.getByRole("button", { name: "Done" }).click();
  await playback.getByLabel("Oldest recording").fill("2027-07-27");
  await expect(playback.getByTestId("oldest-says")).toHaveText("5 days back, 14 promised");
  await page.getByRole("button", { name: /^Close/ }).click();
  await expect(page.getByRole("region", { name: "Visits" })).toContainText("2 done");
  // A yard’s covers come again in three months.
  await expect(page.getByTestId("due-cover.c6")).toContainText("2027-11-01");
  await expect.poll(async () => (await proving(request, id)).visits?.[0]?.closed ?? false).toBe(true);
  const [visit] = (await proving(request, id)).visits ?? [];
  expect(visit?.done?.map(({ note, oldest }) => note ?? oldest)).toEqual(["spider webs", "2027-07-27"]);
  const [csv] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Log as CSV" }).click(),
  ]);
  expect(csv.suggestedFilename()).toBe("tern-quay-boatyard-visits.csv");
  const [ics] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "What is due as a calendar" }).click(),
  ]);
  expect(ics.suggestedFilename()).toBe("tern-quay-boatyard-upkeep.ics");
  // The hand-over says what is kept.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/#/site/${id}/papers/handover`);
  await expect(page.getByText(/C6, by day: kept 2027-01-15/)).toBeVisible();
});

/** A PNG whose head says so many pixels; only its first row is there. */
function png(width: number, height: number): Buffer {
  const chunk = (kind: string, content: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(kind), content]);
    let sum = ~0;
    for (const byte of body) {
      sum ^= byte;
      for (let bit = 0; bit < 8; bit++) sum = (sum >>> 1) ^ (0xedb88320 & -(sum & 1));
    }
    const [length, check] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(content.length);
    check.writeUInt32BE(~sum >>> 0);
    return Buffer.concat([length, body, check]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const rows = width * height > 1e7 ? Buffer.alloc(10) : Buffer.alloc((1 + 3 * width) * height, 90);
  for (let row = 0; row < height && row * (1 + 3 * width) < rows.length; row++) rows[row * (1 + 3 * width)] = 0;
  const signature = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
  return Buffer.concat([
    signature,
    chunk("IHDR", head),
    chunk("IDAT", deflateSync(rows)),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}

test("pictures that cannot be compared are each answered, and nothing is lost", async ({ page, request }) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/prove/pictures`);
  await page.getByTestId("look-c4-day").click();
  await standIn(page, "look-frame");
  await page.getByRole("button", { name: "Keep it as the reference" }).click();
  await expect(page.getByTestId("look-c4-day")).toHaveAttribute("data-state", "kept");
  const file = page.getByTestId("fit-file");
  const refused = page.getByTestId("look-refused");
  await file.setInputFiles({ name: "small.png", mimeType: "image/png", buffer: png(640, 360) });
  await expect(refused).toContainText("is 640 × 360 px, and the reference 1280 ×", { timeout: 60_000 });
  const says = page.getByRole("alert");
  await file.setInputFiles({ name: "words.png", mimeType: "image/png", buffer: Buffer.from("no picture") });
  await expect(says.filter({ hasText: "It is no picture that this browser can read." })).toBeVisible();
  await file.setInputFiles({ name: "huge.png", mimeType: "image/png", buffer: png(10_000, 10_000) });
  await expect(says.filter({ hasText: "10000 × 10000 pixels, more than 40 million" })).toBeVisible();
  const many = Array.from({ length: 400 }, (_, place) => ({
    name: `p${place}.png`,
    mimeType: "image/png",
    buffer: Buffer.from("x"),
  }));
  await page.getByTestId("look-series").setInputFiles(many);
  await expect(
    page.getByText("400 pictures are more than the 24 that are taken at once: none was taken."),
  ).toBeVisible();
  await page.getByTestId("look-series").setInputFiles([
    { name: "words.png", mimeType: "image/png", buffer: Buffer.from("no picture") },
    { name: "small.png", mimeType: "image/png", buffer: png(640, 360) },
  ]);
  await expect(page.getByText("0 of 2 kept.")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText(/^words.png is no picture/)).toBeVisible();
  await expect(page.getByText(/^small.png is 640 × 360 px/)).toBeVisible();
  expect((await proving(request, id)).snapshots?.length).toBe(1);
});

test("ten questions of the trainer: answered by dragging, told why, and what is missed comes again", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  await page.goto(`/#/site/${id}/prove/trainer`);
  const kinds = new Set<string>();
  for (let number = 0; number < 10; number++) {
    if (number === 5) await page.getByText("A made-up yard", { exact: true }).click();
    const question = page.getByTestId("question");
    await expect(page.getByTestId("lesson")).toHaveAttribute("data-settled", "true");
    kinds.add((await question.getAttribute("data-kind")) ?? "");
    const slider = page.getByRole("slider", { name: "Your answer" });
    if (await slider.isVisible()) {
      await slider.focus();
      await page.keyboard.press("ArrowRight");
      await expect(page.getByTestId("said")).not.toHaveText("drag it");
    } else await question.getByRole("listitem").first().getByRole("button").click();
    await page.getByRole("button", { name: "That is it" }).click();
    await expect(page.getByTestId("truth")).toBeVisible();
    await page.getByRole("button", { name: "Next", exact: true }).click();
    await expect(page.getByTestId("truth")).toBeHidden();
  }
  expect(kinds.size).toBe(4);
  const figures = await page.getByTestId("scores").locator("td").allInnerTexts();
  expect(figures.reduce((sum, figure) => sum + Number(figure), 0)).toBe(10);
  // They stay on this device.
  await page.reload();
  await expect(page.getByTestId("scores").locator("td").first()).toHaveText(figures[0] ?? "");
});
