/** Wire: which runs fail and why, what moves with the recorder, routing, budgets, the store, the switch, labels. */
import { type Page, expect, test } from "@playwright/test";
import { demo, keep, kept, fromMenu } from "./support/aim";

async function open(page: Page, id: string): Promise<void> {
  await page.goto(`/#/site/${id}/wire`);
  await settled(page);
}

const settled = (page: Page): Promise<void> => expect(page.locator(".wire[data-settled=true]")).toBeVisible();

const run = (page: Page, camera: string) =>
  page.getByRole("region", { name: "Runs" }).locator("li.promise", { hasText: camera });

/** The length that a run's row says, m. */
const metres = async (page: Page, camera: string): Promise<number> =>
  Number(/(\d+) m/.exec(await run(page, camera).innerText())?.[1]);

const dial = async (page: Page, name: string, value: string): Promise<void> => {
  const field = page.getByRole("complementary", { name: "Selected" }).getByRole("textbox", { name, exact: true });
  await field.fill(value);
  await field.press("Enter");
};

interface Wired {
  network?: { nodes: { id: string; position: number[] }[]; cables: { id: string; from: string; to: string }[] };
}
const network = async (request: Parameters<typeof kept>[0], id: string): Promise<NonNullable<Wired["network"]>> =>
  ((await kept(request, id)).site as Wired).network ?? { nodes: [], cables: [] };

test("two runs fail and say why; the recorder is moved, and one of them holds", async ({ page, request }) => {
  const id = await keep(request, demo());
  await open(page, id);
  await expect(page.getByRole("region", { name: "Runs" }).getByText("5 of 7 kept")).toBeVisible();
  await expect(run(page, "C1")).toContainText("class 5 wanted, Recorder, office gives class 4");
  await expect(run(page, "C6")).toContainText("103 m, 100 m at most");
  // The whole way of a camera at once, on the list, on the riser and at its side.
  await run(page, "C6").getByRole("button").click();
  await expect(page.getByRole("list", { name: "Its way" })).toContainText("Recorder, office");
  await expect(page.getByTestId("riser-k2")).toHaveClass(/riser-lit/);

  // By keys, a pixel at a time: to the west, and the figures follow.
  await page.getByTestId("node-nvr1").focus();
  const before = await metres(page, "C6");
  for (let step = 0; step < 3; step++) await page.keyboard.press("Control+Shift+ArrowLeft");
  await settled(page);
  await expect.poll(() => metres(page, "C6")).toBeLessThan(before - 3);
  await expect(run(page, "C6").getByRole("img", { name: "kept" })).toBeVisible();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(() => metres(page, "C6")).toBe(before);
});

test("a way mends the class, a budget that is over is split", async ({ page, request }) => {
  const id = await keep(request, demo());
  await open(page, id);
  await run(page, "C1").getByRole("button").click();
  await page.getByRole("list", { name: "Its way" }).getByRole("button", { name: /Cat 6/ }).click();
  await page.getByRole("button", { name: /^Do it: Put an injector beside Recorder, office/ }).click();
  await expect(run(page, "C1").getByRole("img", { name: "kept" })).toBeVisible();

  // A supply of 35 W is too little for what hangs on it.
  await run(page, "C7").getByRole("button").click();
  await page.getByRole("list", { name: "Its way" }).getByRole("button", { name: "Recorder, office" }).click();
  await dial(page, "Power budget", "30");
  await expect(page.getByTestId("wire-says")).toContainText("it gives 30");
  await page.getByRole("button", { name: /^Do it: Split it/ }).click();
  await expect(page.getByTestId("riser").getByRole("button", { name: /^Box Switch beside Recorder/ })).toBeVisible();
  await expect(run(page, "C7").getByRole("img", { name: "kept" })).toBeVisible();
  // Recorder, injector and outlet of the demo; another injector, and the switch.
  await expect.poll(async () => (await network(request, id)).nodes.length).toBe(5);
});

test("routed anew: three answers, the cheapest is taken, and nothing is broken", async ({ page, request }) => {
  const id = await keep(request, demo());
  await open(page, id);
  await page.getByTestId("tool-route").click();
  await page.getByRole("button", { name: "Take all off and route anew" }).click();
  await expect(page.getByRole("button", { name: "Take it: Least lost together" })).toBeEnabled();
  await expect(page.getByTestId("route-answers")).toContainText("Nothing better is possible");
  await page.getByRole("button", { name: "Take it: Cheapest" }).click();
  await expect(page.getByRole("region", { name: "Runs" }).getByText("7 of 7 kept")).toBeVisible();
  await expect(page.getByText("Every camera has a cable.")).toBeVisible();
  await expect.poll(async () => (await network(request, id)).cables.length).toBeGreaterThan(6);
  // An answer to another state is not taken.
  await expect(page.getByTestId("route-answers")).toHaveAttribute("data-settled", "false");
});

test("boxes and cables are put down by hand, and deleted with what hangs on them", async ({ page, request }) => {
  const site: ReturnType<typeof demo> & Wired = demo();
  delete site.network;
  const id = await keep(request, site);
  await open(page, id);
  await expect(run(page, "C4")).toContainText("not wired");
  await fromMenu(page, page.getByRole("button", { name: "Add a box" }), "Recorder");
  const plan = page.getByRole("group", { name: /^Plan\. Click/ });
  const box = await plan.boundingBox();
  if (!box) throw new Error("no plan");
  await page.mouse.click(box.x + box.width * 0.6, box.y + box.height * 0.7);
  await expect(page.getByRole("complementary", { name: "Selected" })).toContainText("Recorder");
  await page.getByRole("button", { name: "Lay a cable" }).click();
  await page.getByTestId("camera-c6").locator(".camera-body").click({ force: true });
  await page.getByTestId("node-nvr1").locator("rect").click({ force: true });
  await expect(run(page, "C6")).not.toContainText("not wired");
  await expect
    .poll(async () => (await network(request, id)).cables.map(({ from, to }) => [from, to]))
    .toEqual([["c6", "nvr1"]]);
  // A cable way, corner by corner.
  await page.getByRole("button", { name: "Draw a cable way" }).click();
  await page.mouse.click(box.x + box.width * 0.5, box.y + box.height * 0.75);
  await page.mouse.click(box.x + box.width * 0.7, box.y + box.height * 0.75);
  await page.getByRole("button", { name: "Done" }).click();
  await expect(page.getByRole("complementary", { name: "Selected" })).toContainText("Cable way");
  await page.getByTestId("node-nvr1").focus();
  await page.keyboard.press("Delete");
  await expect(run(page, "C6")).toContainText("not wired");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(run(page, "C6")).not.toContainText("not wired");
});

test("three weeks in place of two: what gives, and what it costs", async ({ page, request }) => {
  const id = await keep(request, demo());
  await open(page, id);
  await page.getByTestId("tool-store").click();
  const told = page.getByTestId("store-told");
  await expect(told.getByRole("img", { name: "kept" }).first()).toBeVisible();
  await page.getByRole("slider", { name: "Days of recording" }).focus();
  for (let day = 14; day < 21; day++) await page.keyboard.press("ArrowRight");
  await expect(told).toContainText("for 21 days");
  await expect(told.getByRole("heading", { name: "What gives" })).toBeVisible();
  await expect(told).toContainText("Record half the pixels");
  await page.getByRole("button", { name: "Promise 21 days" }).click();
  await expect
    .poll(async () => ((await kept(request, id)).site as { brief?: { retention_days?: number } }).brief?.retention_days)
    .toBe(21);
  await page.getByRole("button", { name: /^Do it: Disks of/ }).click();
  await expect(told.getByRole("heading", { name: "What gives" })).toHaveCount(0);
});

test("the switch is read: the bad joint is found; labels are there for both ends", async ({ page, request }) => {
  const id = await keep(request, demo());
  await open(page, id);
  await run(page, "C6").getByRole("button").click();
  await page.getByRole("list", { name: "Its way" }).getByRole("button", { name: "Recorder, office" }).click();
  await page.getByRole("button", { name: "Read the recorder" }).click();
  const found = page.getByTestId("switch-differs");
  await expect(found).toContainText("Port 2, C6: bad joint 80 m from Recorder, office");
  await expect(found).toContainText("Port 3, C7");
  await found.getByRole("button", { name: /bad joint/ }).click();
  await expect(page.getByRole("region", { name: "Cable k2" })).toBeVisible();

  await page.getByTestId("tool-sheet").click();
  await expect(page.getByTestId("labels").getByRole("listitem")).toHaveCount(16);
  await expect(page.getByTestId("labels")).toContainText("Recorder, office port 2");
  const download = page.waitForEvent("download");
  await fromMenu(page, page.getByRole("button", { name: "Save as …" }), "Labels, CSV");
  expect((await download).suggestedFilename()).toBe("tern-quay-boatyard.labels.csv");
  // On paper there are the labels only.
  await page.emulateMedia({ media: "print" });
  await expect(page.getByTestId("labels")).toBeVisible();
  await expect(page.getByRole("region", { name: "Runs" })).toBeHidden();
});
