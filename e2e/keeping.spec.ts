/** Nothing that was done is lost: server away, database away, a colleague in between, a closed window. */
import { execFileSync } from "node:child_process";
import { expect, test } from "@playwright/test";
import { Aim, ROOT, centre, demo, keep, kept } from "./support/aim";

const cluster = (verb: "start" | "stop"): void => {
  const folder = `${process.env["BRIGHT_ANGLE_DATA"] ?? ""}/postgres`;
  execFileSync(`${ROOT}tools/cluster`, verb === "start" ? [verb, folder, "8118"] : [verb, folder]);
};

test("a database that goes away and comes back: work goes on, and is kept when it is back", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Fuel berth till");
  cluster("stop");
  try {
    await aim.type("Height", "4.2");
    await expect(aim.saving).toHaveText("On this device, server away");
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
  await expect(aim.saving).toHaveText("On this device, server away");
  // Figures need no server: those of the new height stand there.
  await aim.settled();
  await expect(aim.evidence.locator(".rule").filter({ hasText: "Face seen from above" })).toContainText("10.3°");
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
  expect(
    (await request.put(`/api/sites/${id}`, { data: { based_on: 1, says: "Rename the site", site: theirs } })).status(),
  ).toBe(200);
  await aim.type("Height", "4.2");
  // What only one of them changed is taken from that one.
  await expect(page.getByText("Revision 2 was saved elsewhere (“Rename the site”) and is taken in.")).toBeVisible();
  await expect(page.getByRole("textbox", { name: "Name of the site" })).toHaveValue("Renamed by a colleague");
  await aim.saved();
  const both = await kept(request, id);
  expect([both.number, both.site.name, both.site.cameras[3]?.height_m]).toEqual([3, "Renamed by a colleague", 4.2]);

  // What both changed is shown side by side, and chosen.
  const site = structuredClone(both.site);
  if (site.cameras[3]) site.cameras[3].height_m = 5;
  if (site.cameras[2]) site.cameras[2].height_m = 2.9;
  expect((await request.put(`/api/sites/${id}`, { data: { based_on: 3, says: "Heights", site } })).status()).toBe(200);
  await aim.type("Height", "4.4");
  const notice = page.getByRole("dialog", { name: "Somebody else changed the same things" });
  const row = notice.getByRole("row").filter({ hasText: "4.40 m" });
  await expect(row).toContainText("height 4.20 m → 5.00 m");
  await expect(notice.getByRole("row")).toHaveCount(2);
  await expect(notice.getByRole("button", { name: "Go on as chosen" })).toBeDisabled();
  await row.getByText("height 4.20 m → 4.40 m").click();
  await notice.getByRole("button", { name: "Go on as chosen" }).click();
  await aim.saved();
  const newest = await kept(request, id);
  expect([newest.number, newest.site.cameras[3]?.height_m, newest.site.cameras[2]?.height_m]).toEqual([5, 4.4, 2.9]);
  const fourth = (await (await request.get(`/api/sites/${id}/revisions/4`)).json()) as {
    site: { cameras: { height_m: number }[] };
  };
  expect(fourth.site.cameras[3]?.height_m).toBe(5);
});

test("figures of a state before are marked until those of the new one are there, and never taken for them", async ({
  page,
  request,
}) => {
  // Holds what the core answers back while the test says so.
  await page.addInitScript(() => {
    const held: (() => void)[] = [];
    const hands = {
      holding: false,
      release: () => {
        hands.holding = false;
        held.splice(0).forEach((go) => {
          go();
        });
      },
    };
    Object.assign(window, { hands });
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      override set onmessage(listen: ((event: MessageEvent) => void) | null) {
        super.onmessage = (event) => {
          if (hands.holding) held.push(() => listen?.(event));
          else listen?.(event);
        };
      }
    };
  });
  const hands = (what: "hold" | "release"): Promise<void> =>
    page.evaluate((said) => {
      const { hands: they } = window as unknown as { hands: { holding: boolean; release(): void } };
      if (said === "hold") they.holding = true;
      else they.release();
    }, what);
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await aim.settled();
  const before = await aim.density.textContent();
  await hands("hold");
  await aim.type("Height", "5.5");
  await expect(aim.dial("Height")).toHaveValue("5.50 m");
  // Nothing is taken away, and the old figure is told from a new one.
  await expect(aim.density).toHaveText(before ?? "");
  await expect(aim.screen).toHaveClass(/unsettled/);
  await expect(aim.screen).toHaveAttribute("data-settled", "false");
  await aim.type("Height", "2.4");
  await hands("release");
  // The answer for 5.5 m, had it stayed, would say 11.6° from above; 2.4 m is 2.4°.
  await aim.settled();
  await expect(aim.evidence.locator(".rule").filter({ hasText: "Face seen from above" })).toContainText("2.4°");
  await expect(aim.screen).not.toHaveClass(/unsettled/);
});

test("without a server cameras, walls and targets are dragged, and verdicts, section, relief and ways answer", async ({
  page,
  context,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await expect(aim.ways().first()).toBeVisible();
  await aim.settled();
  await context.setOffline(true);
  const relief = (): Promise<Buffer> => page.getByTestId("relief").screenshot();
  const density = (): Promise<string | null> => aim.density.textContent();
  const wedge = (): Promise<string | null> => page.getByTestId("picture-wedge").getAttribute("d");

  let before = { relief: await relief(), density: await density(), wedge: await wedge() };
  const [cx, cy] = await centre(page.getByTestId("camera-c4").locator(".camera-body"));
  const [tx, ty] = await centre(page.getByTestId("target-t1").locator(".reach"));
  await aim.drag(page.getByTestId("camera-c4"), [0.25 * (tx - cx), 0.25 * (ty - cy)]);
  await aim.settled();
  expect(await density()).not.toBe(before.density);
  expect(await wedge()).not.toBe(before.wedge);
  await expect.poll(async () => (await relief()).equals(before.relief)).toBe(false);
  await expect(aim.saving).toHaveText("On this device, server away");

  before = { relief: await relief(), density: await density(), wedge: await wedge() };
  await aim.drag(page.getByTestId("target-t1"), [0.3 * (tx - cx), 0.3 * (ty - cy)]);
  await aim.settled();
  expect(await density()).not.toBe(before.density);

  // A wall is put into the way, dragged out of it and back; near by, so that its corners lie apart.
  for (let step = 0; step < 2; step++) await page.getByRole("button", { name: "Zoom in", exact: true }).click();
  const [ax, ay] = await centre(page.getByTestId("camera-c4").locator(".camera-body"));
  const [bx, by] = await centre(page.getByTestId("target-t1").locator(".reach"));
  const found = aim.evidence.locator(".rule").filter({ hasText: "Clear line" }).locator(".rule-value");
  await page.getByRole("button", { name: "Add an obstacle" }).click();
  await page.mouse.click(0.5 * (ax + bx), 0.5 * (ay + by));
  await expect(found).toHaveText("Obstacle 11");
  await aim.drag(page.getByTestId("obstacle-o11"), [-110, 70]);
  await expect(found).toHaveText("nothing in the way");
  await page.keyboard.press("Control+Z");
  await expect(found).toHaveText("Obstacle 11");
  await aim.settled();
  // The ways of what is broken now, or why there is none.
  await expect(aim.evidence.locator(".ways .way, .ways .hint").first()).toBeVisible();
  await context.setOffline(false);
  await aim.saved();
});

test("the list of sites says when the server is away, and comes back by itself", async ({ page, context }) => {
  await page.goto("/");
  await expect(page.getByRole("heading", { name: "Sites", exact: true })).toBeVisible();
  await page.route("**/api/sites?*", (route) => route.abort());
  await page.reload();
  await expect(page.getByText("The server does not answer", { exact: true })).toBeVisible();
  await page.unroute("**/api/sites?*");
  await expect(
    page
      .getByRole("link")
      .filter({ hasText: /Tern Quay|Quay/ })
      .first(),
  ).toBeVisible();
  await context.setOffline(false);
});
