/** What the screens are to everybody: contrast and names, narrow screens, nothing from elsewhere. */
import AxeBuilder from "@axe-core/playwright";
import { type Page, expect, test } from "@playwright/test";
import { Aim, demo, keep, saltpan, umber, fromMenu } from "./support/aim";

// Each looks at a page of its own.
test.describe.configure({ mode: "parallel" });

/** No finding; contrast takes long and is the same at every width, so it can be left out, or be all that is looked at. */
async function faultless(page: Page, contrast: "too" | "only" | "not" = "too"): Promise<void> {
  // Colours that are on their way from one theme to the other are nobody's contrast.
  await page.waitForFunction(() =>
    document.getAnimations().every((moving) => !(moving instanceof CSSTransition) || moving.playState !== "running"),
  );
  const axe = new AxeBuilder({ page });
  if (contrast === "only") axe.withRules(["color-contrast"]);
  else axe.withTags(["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]);
  if (contrast === "not") axe.disableRules(["color-contrast"]);
  const found = await axe.analyze();
  const words = found.violations.map(
    (v) =>
      `${v.id}: ${v.help}\n${v.nodes.map((node) => `  ${node.html.slice(0, 160)}\n  ${node.failureSummary ?? ""}`).join("\n")}`,
  );
  expect(words, words.join("\n")).toEqual([]);
}

/** What is on a page is tall enough for a finger, large enough to be read, and hangs over no edge. */
async function takenByAFinger(page: Page): Promise<void> {
  const found = await page.evaluate(() => {
    const shown = (element: Element): boolean => {
      const box = element.getBoundingClientRect();
      return (
        box.width > 0 && box.height > 0 && element.checkVisibility({ opacityProperty: true, visibilityProperty: true })
      );
    };
    const says = (element: Element): string =>
      `${element.tagName.toLowerCase()}.${element.getAttribute("class") ?? ""} “${(element.getAttribute("aria-label") ?? element.textContent).trim().slice(0, 40)}”`;
    // A control is as large as what takes the finger for it: its label, its frame.
    const FRAMES = "label, .ant-select, .ant-input-affix-wrapper, .ant-segmented-item, .ant-picker, .dial";
    const controls = [
      ...document.querySelectorAll("button, a[href], input, select, textarea, summary, [role=switch], [role=tab]"),
    ];
    const low = controls.filter((control) => {
      const frame = control.closest(FRAMES) ?? control;
      // On a drawing what takes the finger is the reach around a mark; what is drawn for itself is as large as it is.
      if (control.closest("svg, .ant-table-measure-row") || !shown(frame) || control.matches("[hidden], [type=file]"))
        return false;
      return frame.getBoundingClientRect().height < 43.5;
    });
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const small = new Set<string>();
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const of = node.parentElement;
      if (!of || !node.nodeValue?.trim() || !shown(of) || of.closest("script, style, noscript")) continue;
      const size = parseFloat(getComputedStyle(of).fontSize);
      if (size < 12) small.add(`${says(of)}: ${size} px`);
    }
    const reaches = [...document.querySelectorAll("circle.reach")].filter(
      (reach) => shown(reach) && reach.getBoundingClientRect().height < 43.5,
    );
    return {
      wide: document.documentElement.scrollWidth,
      low: [
        ...new Set(
          low.map(
            (control) =>
              `${says(control)}: ${Math.round((control.closest(FRAMES) ?? control).getBoundingClientRect().height)} px`,
          ),
        ),
      ],
      small: [...small],
      reaches: reaches.length,
      controls: controls.length,
    };
  });
  expect(found.controls).toBeGreaterThan(2);
  expect({ ...found, controls: 0 }).toEqual({ wide: 390, low: [], small: [], reaches: 0, controls: 0 });
}

interface Screen {
  name: string;
  site?: () => unknown;
  open(aim: Aim, page: Page, id: string): Promise<unknown>;
}

const survey = (step: string, then: (page: Page) => Promise<void> = () => Promise.resolve()): Screen => ({
  name: `the survey's ${step.split("/")[0] ?? step}`,
  async open(_, page, id) {
    await page.goto(`/#/site/${id}/survey/${step}`);
    await expect(page.getByTestId("before-you-leave")).toHaveText(/left$/);
    await then(page);
  },
});

const fromTheSite = async (page: Page, item: RegExp): Promise<void> => {
  await fromMenu(page, page.getByRole("button", { name: "Site", exact: true }), item);
};

const SCREENS: Screen[] = [
  {
    name: "the list of sites",
    async open(_, page) {
      await page.goto("/");
      await expect(page.getByTestId("site-row").first()).toContainText(/kept|tight|broken/);
    },
  },
  {
    name: "a promise with its figures, evidence and ways",
    async open(aim, _, id) {
      await aim.open(id);
      await aim.take("Fuel berth till");
      await expect(aim.ways().first()).toBeVisible();
      await aim.promise("Fuel berth till").getByText("Figures of this promise").click();
      await aim.evidence.getByText("Pixel density", { exact: true }).click();
    },
  },
  {
    name: "two lenses side by side",
    async open(aim, page, id) {
      await aim.open(id);
      await aim.turnTo("beside");
      await expect(page.locator(".beside-half")).toHaveCount(2);
    },
  },
  {
    name: "the ground, its losses and drawing",
    site: umber,
    async open(aim, page, id) {
      await aim.open(id);
      await aim.take("Sliding gate, who comes in");
      await aim.turnTo("ground");
      await aim.groundSettled();
      await expect(page.getByTestId("losses")).toHaveAttribute("data-settled", "true");
      await expect(page.getByTestId("picture-use")).toBeVisible();
      await page.getByRole("button", { name: "Draw walls and objects" }).click();
    },
  },
  {
    name: "designs",
    site: umber,
    async open(aim, page, id) {
      await aim.open(id);
      await aim.turnTo("designs");
      await expect(page.getByRole("button", { name: "Side by side" })).toBeVisible();
    },
  },
  {
    name: "two designs side by side",
    site: umber,
    async open(aim, page, id) {
      await aim.open(id);
      await aim.turnTo("designs");
      await page.getByRole("button", { name: "Side by side" }).click();
      await expect(page.getByTestId("side-by-side")).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "an obstacle in hand",
    site: umber,
    async open(aim, page, id) {
      await aim.open(id);
      await page.getByTestId("obstacle-o10").press("Enter");
      await expect(page.getByRole("textbox", { name: "Name of the obstacle" })).toBeVisible();
    },
  },
  ...["c1", "c2", "c3"].map((camera): Screen => ({
    name: `the form of camera ${camera}`,
    site: umber,
    async open(aim, page, id) {
      await aim.open(id);
      await page.getByTestId(`camera-${camera}`).press("Enter");
      await expect(aim.evidence.getByRole("group").first()).toBeVisible();
    },
  })),
  {
    name: "a plate on its way",
    site: saltpan,
    async open(aim, page, id) {
      await aim.open(id);
      await aim.take("Plates coming in");
      await aim.promise("Plates coming in").getByText("Figures of this promise").click();
      await aim.turnTo("lane");
      await expect(page.getByTestId("lane-schools")).toBeVisible();
    },
  },
  {
    name: "the night",
    site: saltpan,
    async open(aim, page, id) {
      await aim.open(id);
      await aim.take("Side door");
      await aim.turnTo("night");
      await expect(page.getByTestId("night-panel")).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "the sun",
    site: saltpan,
    async open(aim, page, id) {
      await aim.open(id);
      await aim.turnTo("sun");
      await expect(page.getByTestId("sun-panel")).toHaveAttribute("data-settled", "true");
      await expect(page.getByTestId("sun-hours")).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "settings sheet",
    site: saltpan,
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/settings/${encodeURIComponent("c1/h1/")}`);
      await expect(page.getByRole("main")).toHaveAttribute("data-ready", "true");
    },
  },
  {
    name: "the aiming sheet",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/cards/${encodeURIComponent("c4/h1/")}`);
      await expect(page.getByRole("main")).toHaveAttribute("data-ready", "true");
    },
  },
  {
    name: "Fit at the desk",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/fit`);
      await expect(page.getByTestId("fit-days")).toContainText("after: Bench");
    },
  },
  {
    name: "what a camera hangs by",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/fit`);
      await page.getByTestId("camera-c4").press("Enter");
      await page.getByTestId("tool-mount").click();
      await expect(page.getByTestId("mount-checks")).toBeVisible();
    },
  },
  {
    name: "a part of one's own",
    async open(_, page) {
      await page.goto("/#/cameras");
      await page.getByRole("button", { name: "New part" }).click();
      await expect(page.getByRole("form", { name: "Part of a mount" })).toBeVisible();
    },
  },
  {
    name: "pairs clicked in two pictures",
    site: linked,
    async open(aim, page, id) {
      await aim.open(id);
      await page.getByTestId("camera-c3").locator("circle.reach").first().click();
      await page.getByRole("button", { name: "Click them in the pictures" }).click();
      await expect(page.getByTestId("pairs-next")).toBeVisible();
    },
  },
  {
    name: "the card of a camera",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/fit/c3`);
      await expect(page.getByTestId("fit-step")).toBeVisible();
      await page.getByText("All steps").click();
    },
  },
  {
    name: "a head aimed by its picture",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/fit/c6/h1`);
      await page.getByRole("button", { name: "Stand-in", exact: true }).click();
      await page.getByRole("button", { name: "Find it without clicks" }).click();
      await page.getByRole("button", { name: /crosses there$/ }).click();
      await expect(page.getByTestId("fit-found")).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "the walk test",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/prove/walk/t1`);
      await page.getByRole("button", { name: "Stand-in", exact: true }).click();
      await expect(page.getByText("From the stand-in.")).toBeVisible();
      const frame = page.getByTestId("prove-frame");
      await frame.click({ position: { x: 100, y: 60 } });
      await frame.click({ position: { x: 100, y: 100 } });
      await expect(page.getByTestId("prove-result")).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "a camera's pictures",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/prove/pictures`);
      await page.getByTestId("look-c4-day").click();
      await page.getByRole("button", { name: "Stand-in", exact: true }).click();
      await page.getByRole("button", { name: "Keep it as the reference" }).click();
      await expect(page.getByTestId("look-c4-day")).toHaveAttribute("data-state", "kept");
      await page.getByText("Kept:").click();
    },
  },
  {
    name: "upkeep",
    site: handedOver,
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/prove/upkeep`);
      await page.getByLabel("On", { exact: true }).fill("2027-08-01");
      await page.getByRole("button", { name: "Begin a visit" }).click();
      await page.getByTestId("item-cover.c4").getByRole("button", { name: "Done" }).click();
    },
  },
  {
    name: "the trainer",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/prove/trainer`);
      await expect(page.getByTestId("lesson")).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "options on offer",
    site: umber,
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/papers/options`);
      await expect(page.getByTestId("option-own")).toContainText("kept");
    },
  },
  {
    name: "prices",
    site: umber,
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/papers/prices`);
      await expect(page.getByTestId("bill")).toContainText("no price yet");
    },
  },
  {
    name: "the hand-over",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/papers/handover`);
      await expect(page.getByTestId("paper-view").last()).toHaveAttribute("data-settled", "true");
    },
  },
  {
    name: "an agreement",
    async open(_, page, id) {
      await page.goto(`/#/site/${id}/papers/agree`);
      await expect(page.getByRole("img", { name: "Sign here" })).toBeVisible();
    },
  },
  {
    name: "the limits of a site",
    async open(aim, page, id) {
      await aim.open(id);
      await fromTheSite(page, /Limits/);
      await expect(page.getByRole("dialog")).toBeVisible();
    },
  },
  {
    name: "the revisions",
    async open(aim, page, id) {
      await aim.open(id);
      await fromTheSite(page, /Revisions/);
      await expect(page.getByRole("dialog").getByText("Test").first()).toBeVisible();
    },
  },
  survey("brief"),
  survey("drawing"),
  survey("spots/s3"),
  survey("targets/t1"),
  survey("readings", (page) => expect(page.getByText("Thumb rule")).toBeVisible()),
  survey("sheet"),
];

/** The demo with every form, its PTZ pointed by a fixed view. */
function linked(): object {
  const site = umber();
  const head = site.cameras.find(({ id }) => id === "c3")?.heads[0];
  const pairs = [{ pixel: [1300, 1100], pan_deg: 10, tilt_deg: 20 }];
  if (head) Object.assign(head, { pointed_by: { camera: "c4", head: "h1", pairs } });
  return site;
}

/** The demo with a picture of one camera kept. */
function handedOver(): object {
  const site = demo();
  const camera = site.cameras.find(({ id }) => id === "c4");
  const { pan_deg, tilt_deg, focal_mm } = camera?.heads[0] ?? { pan_deg: 0, tilt_deg: 0, focal_mm: 4 };
  const hung = {
    position: camera?.position,
    height_m: camera?.height_m,
    model: camera?.model.name,
    aimed: { pan_deg, tilt_deg, roll_deg: 0, focal_mm },
  };
  const picture = { picture: "a".repeat(64), width_px: 1280, height_px: 724 };
  const snapshot = { id: "s1", camera: "c4", head: "h1", at: "2027-01-15T10:00:00Z", picture, hung };
  return { ...site, snapshots: [snapshot] };
}

for (const screen of SCREENS) {
  test(`${screen.name}: WCAG AA at three widths and by night, and for a finger`, async ({ browser, request }) => {
    const context = await browser.newContext({
      viewport: { width: 1280, height: 800 },
      hasTouch: true,
      isMobile: true,
    });
    const page = await context.newPage();
    await screen.open(new Aim(page), page, await keep(request, screen.site?.()));
    await faultless(page);
    await page.getByRole("button", { name: "Dark theme" }).evaluate((button: HTMLButtonElement) => button.click());
    await expect(page.locator("html")).toHaveAttribute("data-light", "night");
    await faultless(page, "only");
    await page.getByRole("button", { name: "Light theme" }).evaluate((button: HTMLButtonElement) => button.click());
    await page.setViewportSize({ width: 820, height: 1100 });
    await faultless(page, "not");
    await page.setViewportSize({ width: 390, height: 844 });
    await faultless(page, "not");
    await takenByAFinger(page);
    await context.close();
  });
}

test("on a phone the promises are pushed up to with a finger", async ({ browser, request }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  const page = await context.newPage();
  const aim = new Aim(page);
  await aim.open(await keep(request));
  const last = aim.promises.getByRole("listitem").last();
  await last.scrollIntoViewIfNeeded();
  await expect(last).toBeInViewport();
  await context.close();
});

test("everything comes from the application itself, and the policy lets nothing else in", async ({ page, request }) => {
  const elsewhere: string[] = [];
  const complaints: string[] = [];
  page.on("request", (asked) => {
    if (!/^(http:\/\/127\.0\.0\.1|data:|blob:)/.test(asked.url())) elsewhere.push(asked.url());
  });
  page.on("console", (message) => {
    if (message.type() === "error") complaints.push(message.text());
  });
  page.on("pageerror", (error) => complaints.push(error.message));
  const aim = new Aim(page);
  await page.goto("/");
  await aim.open(await keep(request));
  await aim.take("Fuel berth till");
  await aim.ways().first().click();
  await aim.saved();
  await page.evaluate(() => document.fonts.ready);
  const fonts = await page.evaluate(() =>
    [...document.fonts].filter((font) => font.status === "loaded").map((font) => font.family.replaceAll('"', "")),
  );
  expect(new Set(fonts)).toEqual(new Set(["Barlow", "Barlow Semi Condensed", "IBM Plex Mono"]));
  expect(elsewhere).toEqual([]);
  expect(complaints).toEqual([]);
});
