/** What the camera will see: by day and by night, pixel for pixel, and aimed in the picture itself. */
import { type Page, expect, test } from "@playwright/test";
import { Aim, centre, keep, kept } from "./support/aim";

const picture = async (page: Page): Promise<void> => {
  await page.getByRole("radiogroup", { name: "Under the plan" }).getByText("Picture", { exact: true }).click();
  await settled(page);
};
const settled = (page: Page): Promise<void> =>
  expect(page.getByTestId("picture-panel")).toHaveAttribute("data-settled", "true");

/** The mean light of the whole picture, 0 to 255, and how many different colours it has. */
const looks = (page: Page): Promise<{ light: number; colours: number }> =>
  page.locator("canvas.picture-pixels").evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
    const colours = new Set<number>();
    let sum = 0;
    for (let at = 0; at < data.length; at += 4) {
      sum += data[at + 1] ?? 0;
      colours.add(((data[at] ?? 0) << 16) | ((data[at + 1] ?? 0) << 8) | (data[at + 2] ?? 0));
    }
    return { light: sum / (data.length / 4), colours: colours.size };
  });

test("the gate lane by day and by night: the plate reads in the loupe, and picture and verdict agree", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Gate lane, plates in");
  await picture(page);
  const day = await looks(page);
  expect(day.colours).toBeGreaterThan(50);
  await expect(page.getByTestId("loupe")).toContainText(/^354 px\/m to read: kept/);
  await page.getByRole("radiogroup", { name: "Light of the picture" }).getByText("Night").click();
  await settled(page);
  // Exposed for plates it shows nothing else.
  await expect.poll(async () => (await looks(page)).light).toBeLessThan(day.light / 4);
  const stops = page.getByRole("textbox", { name: "Exposure" });
  await stops.fill("5");
  await stops.press("Enter");
  await expect(page.getByText(/of it is burnt out/)).toBeVisible();
});

test("dragging the picture turns the head, the wheel zooms its lens, and one undo takes a drag back", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request);
  await aim.open(id);
  await aim.take("Gate lane, plates in");
  await picture(page);
  const ground = page.getByTestId("picture-aim");
  const pan = async (): Promise<number> => Number((await aim.dial("Bearing").inputValue()).replace("°", ""));
  const before = await pan();
  await aim.drag(ground, [60, 0]);
  await settled(page);
  // Dragged to the right the head looks more to the left.
  await expect.poll(pan).toBeLessThan(before - 0.5);
  await page.keyboard.press("Control+z");
  await expect.poll(pan).toBe(before);
  const [x, y] = await centre(ground);
  const focal = await aim.dial("Focal").inputValue();
  await page.mouse.move(x, y);
  await page.mouse.wheel(0, 200);
  await expect.poll(() => aim.dial("Focal").inputValue()).not.toBe(focal);
  await aim.saved();
  expect((await kept(request, id)).site.cameras[0]?.heads[0]?.focal_mm).toBeLessThan(32);
});

test("a promise is taken in hand by its bracket in the picture", async ({ page, request }) => {
  const aim = new Aim(page);
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await picture(page);
  await page.getByTestId("mark-t5").press("Enter");
  await expect(aim.evidence.getByRole("heading", { level: 2 })).toContainText("Pontoon head");
});
