/** The computation that does not come, ends, or falls over: it is said, started again, and nothing stands as if it were current. */
import { type Page, expect, test } from "@playwright/test";
import { Aim, keep, saltpan } from "./support/aim";

test("the core that fails to load once is loaded again, and is said to be missing meanwhile", async ({
  page,
  request,
}) => {
  const id = await keep(request);
  let refused = 0;
  await page.route("**/core_bg*.wasm", (route) => (++refused <= 3 ? route.abort() : route.continue()));
  const aim = new Aim(page);
  await page.goto(`/#/site/${id}`);
  await expect(page.getByTestId("core-trouble")).toContainText("cannot be loaded");
  await expect(aim.verdict).toHaveText(/kept|tight|broken|unknown/);
  await aim.settled();
  await expect(page.getByTestId("core-trouble")).toHaveCount(0);
});

/** Lets the tests see the page's workers. */
async function watchWorkers(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const made: Worker[] = [];
    (window as unknown as { made: Worker[] }).made = made;
    window.Worker = class extends Worker {
      constructor(url: string | URL, options?: WorkerOptions) {
        super(url, options);
        made.push(this);
      }
    };
  });
}

test("workers that end are replaced, and all that they were asked is asked again", async ({ page, request }) => {
  await watchWorkers(page);
  const id = await keep(request);
  const aim = new Aim(page);
  await aim.open(id);
  await aim.settled();
  await aim.viewSettled();
  // Every worker ends without a word, as when the browser runs out of memory.
  const ended = await page.evaluate(() => {
    const made = (window as unknown as { made: Worker[] }).made.splice(0);
    for (const worker of made) worker.terminate();
    return made.length;
  });
  expect(ended).toBeGreaterThan(3);
  await aim.type("Height", "4.9");
  await aim.settled();
  await aim.viewSettled();
  await expect(aim.dial("Height")).toHaveValue("4.90 m");
  await expect(aim.ways().first()).toBeVisible();
});

test("a trap in the computation is answered, and the chart is not shown as current meanwhile", async ({
  page,
  request,
}) => {
  // Stands before the worker's own code: the next steps of a picture or a relief fall over.
  await page.addInitScript(() => {
    window.Worker = class extends Worker {
      override postMessage(message: unknown, options?: unknown): void {
        const { relief, picture } = message as { relief?: { wish: object }; picture?: { wish: string } };
        const traps = (window as unknown as { traps?: number }).traps ?? 0;
        if (traps > 0 && (relief ?? picture)) {
          (window as unknown as { traps: number }).traps = traps - 1;
          // No wish at all: the core's own edge falls over on it.
          message = {
            ...(message as object),
            ...(relief ? { relief: null_(relief) } : {}),
            ...(picture ? { picture: { ...picture, head: 7 } } : {}),
          };
        }
        super.postMessage(message, options as never);
      }
    };
    function null_(relief: object): object {
      return { ...relief, wish: undefined };
    }
  });
  const id = await keep(request);
  const aim = new Aim(page);
  await aim.open(id);
  await aim.settled();
  await page.evaluate(() => {
    (window as unknown as { traps: number }).traps = 6;
  });
  await aim.type("Height", "5.1");
  await expect(page.getByTestId("core-trouble")).toBeVisible();
  await aim.settled();
  await aim.viewSettled();
  await expect(page.getByTestId("core-trouble")).toHaveCount(0);
});

test("figures of a state before are marked on every panel, and those of another camera are not shown", async ({
  page,
  request,
}) => {
  // A computation that takes its time: what is asked waits until it is let go.
  await page.addInitScript(() => {
    const held: (() => void)[] = [];
    Object.assign(window, { holding: false, letGo: () => held.splice(0).forEach((send) => send()) });
    window.Worker = class extends Worker {
      override postMessage(message: unknown, options?: unknown): void {
        const send = (): void => super.postMessage(message, options as never);
        if ((window as unknown as { holding: boolean }).holding && "state" in (message as object)) held.push(send);
        else send();
      }
    };
  });
  const hold = (holding: boolean): Promise<void> =>
    page.evaluate((now) => {
      const here = window as unknown as { holding: boolean; letGo(): void };
      here.holding = now;
      if (!now) here.letGo();
    }, holding);
  const aim = new Aim(page);
  await aim.open(await keep(request, saltpan()));
  await aim.take("Plates coming in");
  const panels = {
    lane: ["lane-schools", "lane-panel"],
    night: ["night-panel"],
    sun: ["sun-panel", "sun-hours"],
    ground: ["losses", "picture-use"],
  } as const;
  for (const [tab, marked] of Object.entries(panels)) {
    await aim.turnTo(tab as keyof typeof panels);
    for (const panel of marked) await expect(page.getByTestId(panel)).toHaveAttribute("data-settled", "true");
    await aim.settled();
    await hold(true);
    await aim.dial("Height").press("ArrowUp");
    for (const panel of marked) await expect(page.getByTestId(panel)).toHaveAttribute("data-settled", "false");
    const dashed = page.locator(`.told[data-settled="false"]`).first();
    await expect(dashed).toHaveCSS("outline-style", "dashed");
    await hold(false);
    for (const panel of marked) await expect(page.getByTestId(panel)).toHaveAttribute("data-settled", "true");
  }
  // The use of one picture is not told as that of another.
  await expect(page.getByTestId("picture-use")).toBeVisible();
  await hold(true);
  await page.getByTestId("camera-c2").press("Enter");
  await expect(page.getByTestId("picture-use")).toHaveCount(0);
  await hold(false);
  await expect(page.getByTestId("picture-use")).toHaveAttribute("data-settled", "true");
});
