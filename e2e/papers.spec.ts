/** Papers: options in the client's words, the fewest cameras, prices, the quote without a network, agreed, and what is otherwise since. */
import { readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { Aim, ROOT, demo, keep, kept, umber } from "./support/aim";
import { sign } from "./support/sign";

const papers = (id: string, step: string): string => `/#/site/${id}/papers/${step}`;

test("three options in the client’s words with their prices; one is taken, and undone", async ({ page, request }) => {
  const id = await keep(request, umber());
  await page.goto(papers(id, "options"));
  const all = page.getByTestId("option-all");
  const fewer = page.getByTestId("option-one_fewer");
  await expect(all).toContainText("Nothing falls away");
  await expect(page.getByTestId("option-important")).toContainText("kept");
  await expect(fewer.getByRole("listitem").first()).toContainText(/^Without C/);
  // What nobody has priced is named, and is not nothing.
  await expect(all).toContainText(/not priced yet/);
  const own = page.getByTestId("option-own");
  await own.getByRole("checkbox", { name: "C1" }).uncheck();
  await expect(own).toContainText("Without C1");
  const before = (await kept(request, id)).site.cameras.length;
  await fewer.getByRole("button", { name: "Take it" }).click();
  await expect(page.getByTestId("saving")).toHaveText(/^Saved/);
  await expect.poll(async () => (await kept(request, id)).site.cameras.length).toBeLessThan(before);
  await page.keyboard.press("Control+z");
  await expect.poll(async () => (await kept(request, id)).site.cameras.length).toBe(before);
});

test("the fewest cameras are found from the surveyed spots, can be stopped, and are taken", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  await page.goto(papers(id, "fewest"));
  await page.getByRole("button", { name: "Find them" }).click();
  await page.getByRole("button", { name: "Stop" }).click();
  await expect(page.getByRole("button", { name: "Find them" })).toBeVisible();
  await page.getByRole("button", { name: "Find them" }).click();
  const first = page.getByTestId("fewest-count");
  await expect(first).toContainText(/\d+ cameras/);
  await expect(page.getByTestId("fewest-trips")).toContainText("Put up anew");
  await expect(page.getByTestId("fewest-back_up")).toContainText("Kept twice");
  const count = Number(/(\d+) cameras/.exec((await first.textContent()) ?? "")?.[1]);
  await first.getByRole("button", { name: "Take it: Fewest cameras" }).click();
  await expect.poll(async () => (await kept(request, id)).site.cameras.length).toBe(count);
});

test("prices are typed, read from a table and refused where they make no sense", async ({ page, request }) => {
  const id = await keep(request, umber());
  await page.goto(papers(id, "prices"));
  const bill = page.getByTestId("bill");
  await expect(bill).toContainText("no price yet");
  await page.getByLabel("Money, three letters").fill("EUR");
  const hour = page.getByLabel("An hour of one person’s work");
  await hour.fill("-5");
  await expect(page.getByText("an amount such as 12.50, not negative")).toBeVisible();
  await hour.fill("60");
  await hour.press("Enter");
  await expect(bill.getByRole("row", { name: /from a ladder/ })).not.toContainText("not known");
  const read = async (text: string): Promise<void> =>
    page
      .locator(".papers-lists input[type=file]")
      .setInputFiles({ name: "prices.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
  await read("what,each,currency\nLanyard,2.50,EUR\nDesiccant bag,1,USD\n");
  await expect(page.getByRole("alert")).toContainText("line 3: is in USD, and what is before it in EUR");
  await read("what,each,currency\nLanyard,-2,EUR\n");
  await expect(page.getByRole("alert")).toContainText('"-2" is negative');
  await read("what,each,currency\nLanyard,2.50,EUR\ntax per cent,20,EUR\n");
  await expect(bill.getByRole("row", { name: /^Lanyard/ })).toContainText(/2\.50|5\.00|7\.50|10\.00|12\.50/);
  // Typed, left and come back to.
  await page.reload();
  await expect(page.getByLabel("An hour of one person’s work")).toHaveValue("60");
  await expect(page.getByTestId("bill")).toContainText("Together, EUR");
});

test("the quote stands without a network, prints, and comes as a PDF; names of all scripts are only names", async ({
  page,
  context,
  request,
}) => {
  const site = demo() as ReturnType<typeof demo> & { brief?: object };
  site.brief = { client: "<img src=x onerror=alert(1)>", address: "שדרות הים 12" };
  const [first] = site.targets;
  if (first) first.name = `${"Gate ".repeat(30)}&<b>`;
  const id = await keep(request, site);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(papers(id, "options"));
  await expect(page.getByTestId("option-all")).toBeVisible();
  await page.goto(papers(id, "quote"));
  await expect(page.getByTestId("paper-view")).toHaveCount(site.cameras.length);
  // What works them out is there; a service worker brings it where there is one.
  await expect(page.getByTestId("paper-view").first()).toHaveAttribute("data-settled", "true");
  await context.setOffline(true);
  for (const view of await page.getByTestId("paper-view").all())
    await expect(view).toHaveAttribute("data-settled", "true");
  await expect(page.getByTestId("paper")).toContainText("<img src=x onerror=alert(1)>");
  await expect(page.getByTestId("paper")).toContainText("What it does not do");
  const printed = await page.pdf({ format: "A4" });
  expect(printed.subarray(0, 5).toString()).toBe("%PDF-");
  await page.getByRole("button", { name: "Save as PDF" }).click();
  await expect(page.getByText("Print the page instead")).toBeVisible();
  await context.setOffline(false);
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as PDF" }).click();
  const file = await (await coming).path();
  expect(readFileSync(file).subarray(0, 5).toString()).toBe("%PDF-");
});

test("what was agreed by signature is kept, and a lens changed after that is shown against it", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  await page.goto(papers(id, "agree"));
  await page.getByLabel("Who agrees").fill("A. Client");
  await expect(page.getByRole("button", { name: "Agree", exact: true })).toBeDisabled();
  await sign(page);
  await page.getByRole("button", { name: "Agree", exact: true }).click();
  await expect(page.getByTestId("agreed")).toContainText("Agreed by A. Client");
  await expect(page.getByTestId("agreed")).toContainText("Nothing is otherwise");
  await expect(page.getByTestId("saving")).toHaveText(/^Saved/);
  const aim = new Aim(page);
  await aim.open(id);
  await aim.take("Gate lane, plates in");
  await page.getByRole("combobox", { name: "Model and lens" }).fill("Turret 4 MP 2.8");
  await page.getByTitle("Turret 4 MP 2.8 mm").click();
  await page.goto(papers(id, "agree"));
  await expect(page.getByTestId("agreed")).toContainText(
    /Gate lane, plates in: kept when it was agreed, (broken|tight) now/,
  );
  await expect(page.getByTestId("agreed")).toContainText("What was changed since");
  await page.goto(papers(id, "handover"));
  await expect(page.getByTestId("paper")).toContainText("By A. Client");
});

test("a page that was sent comes back signed; one that is of another state, or none at all, is turned away", async ({
  page,
  request,
  browser,
}) => {
  const id = await keep(request);
  await page.goto(papers(id, "agree"));
  const coming = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save the page to send" }).click();
  const sent = await (await coming).path();
  // The client opens it somewhere else, without any server.
  const elsewhere = await browser.newPage();
  await elsewhere.setContent(readFileSync(sent, "utf8"));
  await elsewhere.getByLabel("Who agrees").fill("B. Client");
  await sign(elsewhere);
  const saved = elsewhere.waitForEvent("download");
  await elsewhere.getByRole("button", { name: "Save the signed copy" }).click();
  const copy = readFileSync(await (await saved).path());
  await elsewhere.close();
  const take = async (buffer: Buffer): Promise<void> =>
    page
      .locator(".papers-agree input[type=file]")
      .setInputFiles({ name: "signed-copy.json", mimeType: "application/json", buffer });
  await take(Buffer.from("not json"));
  await expect(page.getByRole("alert")).toContainText("This is no signed copy");
  await take(Buffer.from(JSON.stringify({ ...(JSON.parse(copy.toString()) as object), of: "0".repeat(64) })));
  await expect(page.getByRole("alert")).toContainText("The site has changed since that was made");
  await take(copy);
  await expect(page.getByTestId("agreed")).toContainText("Agreed by B. Client");
});

test("a view is laid into a photo from its spot by known points; points that fit nothing leave the computed picture", async ({
  page,
  request,
}) => {
  const site = demo() as ReturnType<typeof demo> & { spots: { id: string; photos?: unknown[] }[] };
  const camera = site.cameras.find(({ id }) => id === "c6");
  const head = camera?.heads[0];
  const spot = site.spots.find(({ id }) => id === "s7");
  if (!camera || !head || !spot) throw new Error("the demo has this camera at this spot");
  const kept = await request.post("/api/pictures", {
    data: readFileSync(`${ROOT}demo/tern-quay.png`),
    headers: { "Content-Type": "image/png" },
  });
  const picture = (await kept.json()) as { name: string; width_px: number; height_px: number };
  // A pinhole at the camera's place, turned a little from it: where it sees six places in front of it.
  const size: [number, number] = [picture.width_px, picture.height_px];
  const [pan, tilt] = [head.pan_deg + 3, 12].map((angle) => (angle * Math.PI) / 180) as [number, number];
  const forward = [Math.sin(pan) * Math.cos(tilt), Math.cos(pan) * Math.cos(tilt), -Math.sin(tilt)];
  const right = [Math.cos(pan), -Math.sin(pan), 0];
  const down = [-Math.sin(pan) * Math.sin(tilt), -Math.cos(pan) * Math.sin(tilt), -Math.cos(tilt)];
  const focal = (20 / 36) * size[0];
  const marks = [
    [-0.4, -0.2, 9],
    [0.3, -0.25, 14],
    [-0.2, 0.2, 7],
    [0.4, 0.15, 11],
    [0.05, 0.05, 20],
    [-0.05, -0.1, 16],
  ].map(([across = 0, under = 0, far = 0], place) => ({
    id: `p${place}`,
    at: [...camera.position, camera.height_m].map(
      (eye, axis) => eye + far * ((forward[axis] ?? 0) + across * (right[axis] ?? 0) + under * (down[axis] ?? 0)),
    ),
    px: [size[0] / 2 + focal * across, size[1] / 2 + focal * under],
  }));
  spot.photos = [{ picture: picture.name, size_px: size, marks }];
  const id = await keep(request, site);
  await page.goto(papers(id, "quote"));
  const view = page.getByTestId("paper-view").filter({ has: page.getByRole("heading", { name: camera.name }) });
  await expect(view).toContainText("A photo from its spot, turned to what the camera will see");
  await view.getByRole("button", { name: /^Lay it into a photo/ }).click();
  const laid = page.getByRole("dialog");
  await expect(laid.getByTestId("photo-laid")).toContainText("It fits: the points are off by 0.0 %");
  await laid.getByRole("button", { name: "Begin again" }).click();
  await expect(laid.getByRole("status")).toHaveText("4 more: far from each other, near and far.");
  const box = (await laid.getByTestId("photo-to-click").boundingBox()) ?? { x: 0, y: 0, width: 1, height: 1 };
  for (const [x, y] of [
    [0.1, 0.9],
    [0.9, 0.1],
    [0.5, 0.5],
    [0.2, 0.2],
  ] as const)
    await laid.getByTestId("photo-to-click").click({ position: { x: x * box.width, y: y * box.height } });
  await expect(laid.getByText(/taken from elsewhere|do not tell|cannot tell|too/)).toBeVisible();
  await laid.getByRole("button", { name: "Close" }).click();
  await expect(view).toContainText("Computed picture");
  // It can be taken back.
  await expect(page.getByTestId("saving")).toHaveText(/^Saved/);
});
