/**
 * A fixed view points a head that is turned from afar: the same things are clicked in both pictures. Where they are in each follows from the
 * lens's formula (handbook, section 4) for a site of the test's own, whose turned head counts its pan from a zero of its own.
 */
import { type Page, expect, test } from "@playwright/test";
import { Aim, keep, kept } from "./support/aim";

const SENSOR = { width_px: 1920, height_px: 1080, width_mm: 5.376, height_mm: 3.024 };
const FIXED = { at: [0, 0, 4], pan: 10, tilt: 16, focal: 4 };
const TURNED = { at: [4, 1, 5], pan: 20, tilt: 18, focal: 6 };
/** Where its own zero looks to. */
const ZERO = 35;
/** What both see, on the ground. */
const SEEN: [number, number][] = [
  [5, 13],
  [8, 14],
  [7, 20],
  [10, 21],
  [6, 25],
];
const ELSEWHERE: [number, number] = [7, 17];

const rad = (degrees: number): number => (degrees * Math.PI) / 180;

/** Where a camera without bend has a point of the ground, px. */
function pixel(
  { at: [x = 0, y = 0, z = 0], pan, tilt, focal }: typeof FIXED,
  [east, north]: [number, number],
): [number, number] {
  const [dx, dy, dz] = [east - x, north - y, -z];
  const [s, c] = [Math.sin(rad(pan)), Math.cos(rad(pan))];
  const [right, ahead] = [dx * c - dy * s, dx * s + dy * c];
  const [st, ct] = [Math.sin(rad(tilt)), Math.cos(rad(tilt))];
  const [forward, down] = [ahead * ct - dz * st, -ahead * st - dz * ct];
  const px = (focal / SENSOR.width_mm) * SENSOR.width_px;
  return [SENSOR.width_px / 2 + (px * right) / forward, SENSOR.height_px / 2 + (px * down) / forward];
}

/** The pan, on its own scale, and the tilt with which the turned head has a point of the ground in the middle. */
function aimAt([east, north]: [number, number]): [number, number] {
  const [x = 0, y = 0, z = 0] = TURNED.at;
  const [dx, dy] = [east - x, north - y];
  const bearing = (Math.atan2(dx, dy) * 180) / Math.PI;
  return [(bearing - ZERO + 360) % 360, (Math.atan2(z, Math.hypot(dx, dy)) * 180) / Math.PI];
}

function site(): object {
  const camera = (
    id: string,
    name: string,
    form: string,
    { at: [x = 0, y = 0, z = 0], pan, tilt, focal }: typeof FIXED,
  ) => ({
    id,
    name,
    position: [x, y],
    height_m: z,
    model: {
      name: `${name} generic`,
      form,
      sensor: SENSOR,
      lens: { focal_min_mm: 3, focal_max_mm: form === "ptz" ? 60 : 12 },
    },
    heads: [{ id: "h1", pan_deg: pan, tilt_deg: tilt, focal_mm: focal }],
  });
  return {
    format: "bright-angle/site",
    version: 1,
    name: "Two that see the same",
    targets: [
      {
        id: "t1",
        name: "Way in",
        task: "detect",
        subject: "person",
        height_m: 1.5,
        shape: { kind: "point", points: [[3, 18]] },
        distance: { how: "laser" },
      },
    ],
    cameras: [camera("c1", "C1", "bullet", FIXED), camera("c2", "C2", "ptz", TURNED)],
  };
}

/** Clicks in a frame, in pixels of the full picture. */
async function click(page: Page, frame: string, [u, v]: [number, number]): Promise<void> {
  const shown = page.getByTestId(frame);
  await expect(shown).toHaveAttribute("data-coming", "false");
  await shown.scrollIntoViewIfNeeded();
  const box = await shown.boundingBox();
  if (!box) throw new Error("no frame");
  await shown.click({ position: { x: (u / SENSOR.width_px) * box.width, y: (v / SENSOR.height_px) * box.height } });
}

test("the same things are clicked in both pictures, and a click in the one then points the other", async ({
  page,
  request,
}) => {
  const aim = new Aim(page);
  const id = await keep(request, site());
  await aim.open(id);
  await page.getByTestId("camera-c2").locator("circle.reach").click();
  await page.getByRole("combobox", { name: "Fixed view that points it" }).click();
  await page.locator(".ant-select-dropdown:visible").getByText("C1", { exact: true }).click();
  await page.getByRole("button", { name: "Click them in the pictures" }).click();
  const next = page.getByTestId("pairs-next");
  const both = page.getByRole("dialog");
  const fixed = both.getByRole("region", { name: "The fixed view, C1" });
  const turned = both.getByRole("region", { name: "The head that turns, C2" });
  const standIn = async (of: typeof fixed): Promise<void> => {
    await of.getByRole("button", { name: "Stand-in", exact: true }).click();
    await expect(of.getByText("From the stand-in.")).toBeVisible();
  };
  const type = async (label: string, text: string): Promise<void> => {
    await turned.getByRole("textbox", { name: label, exact: true }).fill(text);
    await turned.getByRole("textbox", { name: label, exact: true }).press("Enter");
  };

  await expect(next).toHaveText("Take the picture of the view that stays.");
  await standIn(fixed);
  await expect(next).toContainText("Type the pan and tilt");
  // Its own scale counts from another zero.
  await type("Its pan", String((TURNED.pan - ZERO + 360) % 360));
  await type("Its tilt", String(TURNED.tilt));
  await type("Its lens", String(TURNED.focal));
  await standIn(turned);
  for (const [place, seen] of SEEN.entries()) {
    await expect(next).toContainText("Click a thing on the ground");
    await click(page, "pairs-fixed", pixel(FIXED, seen));
    await expect(next).toContainText(
      "Click the same thing in the picture of the head that turns, taken at 345.00° pan",
    );
    await click(page, "pairs-turned", pixel(TURNED, seen));
    await expect(both.getByRole("list", { name: "Pairs of what both see" }).getByRole("listitem")).toHaveCount(
      place + 1,
    );
  }

  // What was typed and taken is there again after a look elsewhere.
  await page.getByRole("button", { name: "Close" }).click();
  await expect(
    page.getByText(/The pairs agree to 0\.[0-3]\d°\. Its pan of zero looks to (34\.[5-9]|35\.[0-5])°/),
  ).toBeVisible();
  await page.reload();
  await page.getByTestId("camera-c2").locator("circle.reach").click();
  await page.getByRole("button", { name: "Click them in the pictures" }).click();
  await expect(turned.getByRole("textbox", { name: "Its pan", exact: true })).toHaveValue("345.00°");
  await click(page, "pairs-fixed", pixel(FIXED, ELSEWHERE));
  await fixed.getByRole("button", { name: "Point C2 there" }).click();
  const told = (await page.getByTestId("pairs-through").locator(".figure").textContent()) ?? "";
  const [pan = NaN, tilt = NaN] = (told.match(/\d+\.\d+/g) ?? []).map(Number);
  const [wantedPan, wantedTilt] = aimAt(ELSEWHERE);
  expect(Math.abs(pan - wantedPan)).toBeLessThan(0.3);
  expect(Math.abs(tilt - wantedTilt)).toBeLessThan(0.3);
  await expect(page.getByTestId("pairs-through")).not.toContainText("Not to be trusted");

  // In the sky nothing is pointed at, and the pairs stay.
  await click(page, "pairs-fixed", [960, 40]);
  await fixed.getByRole("button", { name: "Point C2 there" }).click();
  await expect(both.getByRole("alert")).toContainText("shows no ground");

  await page.getByRole("button", { name: "Close" }).click();
  await aim.saved();
  const kept_ = (await kept(request, id)).site.cameras[1]?.heads[0] as unknown as {
    pointed_by: { pairs: unknown[]; hung?: unknown };
  };
  expect(kept_.pointed_by.pairs).toHaveLength(SEEN.length);
  expect(kept_.pointed_by.hung).toBeDefined();
});
