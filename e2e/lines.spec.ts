/** A home surveyed on a paired phone with the network cut: five cameras, each written as one line where one stands, on the desk's plan later. */
import { type Page, expect, test } from "@playwright/test";
import { Aim } from "./support/aim";
import { OwnServer } from "./support/own";
import { DOOR, Phone, drawCode, onDevice } from "./support/phone";

const own = new OwnServer(8187, ["--share", "--share-address", DOOR, "--share-port", "8197"]);
test.beforeAll(() => own.start());
test.afterAll(() => own.end());

interface Kept {
  site: {
    cameras: { id: string; name: string; model: { name: string }; heads: { focal_mm: number }[] }[];
    targets: { id: string; name: string; importance?: number }[];
  };
}

/** Counts what a thumb does from the measured distance to the taken camera. */
class Thumb {
  taps = 0;

  constructor(readonly page: Page) {}

  async tap(name: string | RegExp): Promise<void> {
    await this.page.getByRole("button", { name }).first().tap();
    this.taps++;
  }

  /** Types a distance: a tap into the field, and the key that ends it. */
  async type(distance: string): Promise<void> {
    const field = this.page.getByRole("textbox", { name: "Distance" });
    await field.tap();
    await field.fill(distance);
    await field.press("Enter");
    this.taps += 2;
  }
}

test("with the network cut five lines are taken in under six taps each; at the desk the cameras stand on the plan", async ({
  page,
}) => {
  await page.goto(`${own.address}/#/phones`);
  const code = await drawCode(page);
  const phone = await Phone.start(true);
  const there = await phone.context.newPage();
  await phone.pair(there, code, "Survey phone");
  await onDevice(there);
  await phone.context.setOffline(true);

  // A new home.
  await there.goto(`https://${DOOR}:8197/`);
  await there.getByRole("button", { name: "New site" }).first().tap();
  await there.getByRole("textbox", { name: "Name of the site" }).fill("Bramble Cottage");
  await there.getByRole("button", { name: "Begin" }).tap();
  await there.getByRole("link", { name: /^Brief/ }).tap();
  await there.getByText("Home", { exact: true }).tap();
  await there.getByRole("button", { name: "Add these 5 targets" }).tap();
  await there.getByRole("link", { name: /^Cameras/ }).tap();

  const thumb = new Thumb(there);
  const lines = there.getByTestId("finished-line");
  const takenLines = there.getByTestId("taken-line");
  const counts: number[] = [];
  for (const [place, how] of ["6.5", "9,2", "near", "last 3.5", "18.4"].entries()) {
    thumb.taps = 0;
    if (how === "near") await thumb.tap("Near enough for a wide lens");
    else await thumb.type(how.replace("last ", ""));
    await expect(lines.first()).toBeVisible();
    // A line is a finished camera: how it stands, its lens and its setting, how high.
    await expect(lines.first()).toContainText(/(kept|tight|broken|unknown)/);
    await expect(lines.first()).toContainText(/2\.8 m up/);
    await thumb.tap(how.startsWith("last") ? /^Same as the last/ : /^Take /);
    await expect(takenLines).toHaveCount(place + 1);
    counts.push(thumb.taps);
  }
  expect(Math.max(...counts)).toBeLessThan(6);
  await expect(there.getByTestId("saving")).toContainText("server away");

  // The page is left and loaded cold: nothing is lost.
  await there.reload();
  await expect(takenLines).toHaveCount(5);

  // Connected again it is sent, once.
  await phone.context.setOffline(false);
  const listed = async (): Promise<{ id: string; name: string }[]> => {
    const { sites } = (await (await fetch(`${own.address}/api/sites?named=Bramble`)).json()) as {
      sites: { id: string; name: string }[];
    };
    return sites;
  };
  await expect.poll(listed).toHaveLength(1);
  const id = (await listed())[0]?.id ?? "";
  const newest = async (): Promise<Kept> => (await (await fetch(`${own.address}/api/sites/${id}`)).json()) as Kept;
  await expect.poll(async () => (await newest()).site.cameras.length).toBe(5);
  const { site } = await newest();
  expect(site.targets.map(({ name }) => name)[0]).toBe("Main entrance");
  expect(site.targets.map(({ importance }) => importance)).toEqual([1, 2, 3, 4, 5]);
  const [, , third, fourth] = site.cameras;
  expect(fourth?.model.name).toBe(third?.model.name);
  expect(new Set(site.cameras.map((camera) => camera.name)).size).toBe(5);

  // At the desk.
  const aim = new Aim(page);
  await page.goto(`${own.address}/#/site/${id}`);
  await aim.settled();
  for (const camera of site.cameras) await expect(page.getByTestId(`camera-${camera.id}`)).toBeVisible();
  for (const target of site.targets) {
    const promise = aim.promise(target.name);
    await expect(promise).toContainText(/· C[1-5]/);
    await expect(promise.getByRole("img", { name: /^(kept|tight)$/ })).toBeVisible();
  }
  await phone.browser.close();
});
