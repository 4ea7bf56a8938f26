/** The Aim screen as the tests take it in hand. */
import { readFileSync } from "node:fs";
import { type APIRequestContext, type Locator, type Page, expect } from "@playwright/test";

export const ROOT = new URL("../..", import.meta.url).pathname;
export const DEMO = `${ROOT}demo/tern-quay.json`;

export interface Camera {
  id: string;
  name: string;
  height_m: number;
  position: [number, number];
  model: { name: string };
  heads: { pan_deg: number; tilt_deg: number; focal_mm: number }[];
}

export interface Site {
  private?: unknown[];
  name: string;
  targets: { id: string; name: string; shape: { points: [number, number][] } }[];
  cameras: Camera[];
}

export const demo = (): Site => JSON.parse(readFileSync(DEMO, "utf8")) as Site;

/** The demo that has a camera of every form. */
export const umber = (): Site => JSON.parse(readFileSync(`${ROOT}demo/umber-yard.json`, "utf8")) as Site;

/** The demo with a plate on its way, an own wall and a low sun. */
export const saltpan = (): Site => JSON.parse(readFileSync(`${ROOT}demo/saltpan-lane.json`, "utf8")) as Site;

/** Keeps a site on the server and answers its id. */
export async function keep(request: APIRequestContext, site: unknown = demo()): Promise<string> {
  const made = await request.post("/api/sites", { data: { says: "Test", site } });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { site_id: string }).site_id;
}

/** The newest revision that the server has. */
export async function kept(request: APIRequestContext, id: string): Promise<{ number: number; site: Site }> {
  const answer = await request.get(`/api/sites/${id}`);
  return (await answer.json()) as { number: number; site: Site };
}

/** The id of the site that a page has open. */
export const openId = (page: Page): string => /site\/([0-9a-f-]{36})/.exec(page.url())?.[1] ?? "";

/** Chooses from a list. One that opens while the page is still being filled may close again under the pointer: it is opened once more. */
export async function choose(page: Page, name: string, option: string): Promise<void> {
  const one = page.locator(".ant-select-dropdown:visible").getByText(option, { exact: true });
  await expect(async () => {
    if (!(await one.isVisible())) await page.getByRole("combobox", { name }).click({ force: true, timeout: 5_000 });
    await one.click({ timeout: 5_000 });
  }).toPass();
}

/** Takes something from a menu. One that opens while the page is still being filled may close again under the pointer: it is opened once more. */
export async function fromMenu(page: Page, opens: Locator, item: string | RegExp): Promise<void> {
  const one = page.getByRole("menuitem", { name: item });
  await expect(async () => {
    if (!(await one.isVisible())) await opens.click({ timeout: 5_000 });
    await one.click({ timeout: 5_000 });
  }).toPass();
}

export class Aim {
  readonly promises: Locator;
  readonly evidence: Locator;
  readonly section: Locator;
  readonly verdict: Locator;
  readonly density: Locator;
  readonly saving: Locator;
  readonly screen: Locator;

  constructor(readonly page: Page) {
    this.promises = page.getByRole("region", { name: "Promises" });
    this.evidence = page.getByRole("region", { name: "Evidence" });
    this.section = page.getByRole("region", { name: "Side view along the sight line" });
    this.verdict = page.getByTestId("verdict");
    this.density = page.getByTestId("density");
    this.saving = page.getByTestId("saving");
    this.screen = page.locator(".aim");
  }

  /** Opens a site and waits for its figures. */
  async open(id: string): Promise<void> {
    await this.page.goto(`/#/site/${id}`);
    await expect(this.verdict).toHaveText(/kept|tight|broken|unknown/);
  }

  /** Waits until all figures are those of the site as it is. */
  async settled(): Promise<void> {
    await expect(this.screen).toHaveAttribute("data-settled", "true");
    await expect(this.page.getByTestId("relief")).toHaveAttribute("data-settled", "true");
  }

  promise(name: string): Locator {
    return this.promises.getByRole("listitem").filter({ hasText: name });
  }

  /** Takes a promise in hand. */
  async take(name: string): Promise<void> {
    await this.promise(name).locator(".promise-face").click();
    await expect(this.evidence.getByRole("heading", { level: 2 })).toContainText(name);
  }

  /** The ways offered, once they are there. */
  ways(): Locator {
    return this.evidence.locator(".ways").getByRole("button", { name: /^Try: / });
  }

  dial(label: string): Locator {
    return this.evidence.getByRole("textbox", { name: label, exact: true });
  }

  async type(label: string, text: string): Promise<void> {
    await this.dial(label).fill(text);
    await this.dial(label).press("Enter");
  }

  async saved(): Promise<void> {
    await expect(this.saving).toHaveText(/^Saved \d/);
  }

  /** Turns to a tool. */
  async turnTo(tool: "section" | "beside" | "lane" | "night" | "sun" | "ground" | "designs"): Promise<void> {
    await this.page.getByTestId(`tool-${tool}`).click();
  }

  /** Waits until the picture of the head in hand is of the site as it is. */
  async viewSettled(): Promise<void> {
    await expect(this.page.getByTestId("view-panel")).toHaveAttribute("data-settled", "true");
  }

  /** Waits until what is told about the ground is of the site as it is. */
  async groundSettled(): Promise<void> {
    await expect(this.page.getByTestId("ground-layers")).toHaveAttribute("data-settled", "true");
  }

  /** Taps a place of the plan, metres east and north, reckoned from where two cameras are drawn. */
  async tapAt(at: [number, number], [first, second]: [Camera, Camera]): Promise<void> {
    const on = (camera: Camera): Promise<[number, number]> =>
      centre(this.page.getByTestId(`camera-${camera.id}`).locator("circle.reach"));
    const [[u, v], [w]] = [await on(first), await on(second)];
    const scale = (w - u) / (second.position[0] - first.position[0]);
    await this.page.mouse.click(u + (at[0] - first.position[0]) * scale, v - (at[1] - first.position[1]) * scale);
  }

  /** Presses on one thing, drags through the way's points and lets go. */
  async drag(handle: Locator, by: [number, number]): Promise<void> {
    const [x, y] = await centre(handle);
    const mouse = this.page.mouse;
    await mouse.move(x, y);
    await mouse.down();
    for (let step = 1; step <= 8; step++) await mouse.move(x + (by[0] * step) / 8, y + (by[1] * step) / 8);
    await mouse.up();
  }
}

/** The middle of something on the screen. */
export async function centre(of: Locator): Promise<[number, number]> {
  const box = await of.boundingBox();
  if (!box) throw new Error("not on the screen");
  return [box.x + box.width / 2, box.y + box.height / 2];
}
