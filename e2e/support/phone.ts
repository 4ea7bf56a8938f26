/** A phone on the local network: a browser of its own on a second address, paired with what the desk shows. */
import { type Browser, type BrowserContext, type Page, chromium, expect } from "@playwright/test";

/** Where the shared door of a test's server is. */
export const DOOR = "127.0.0.2";

export class Phone {
  private constructor(
    readonly browser: Browser,
    readonly context: BrowserContext,
  ) {}

  /** Starts one. A phone that trusts takes the desk's certificate as if it had been installed; any other only after a warning. */
  static async start(trusts: boolean): Promise<Phone> {
    const browser = await chromium.launch({
      executablePath: "/usr/bin/chromium",
      args: ["--no-sandbox", "--disable-gpu", "--disable-quic", ...(trusts ? ["--ignore-certificate-errors"] : [])],
    });
    const context = await browser.newContext({
      viewport: { width: 390, height: 844 },
      locale: "en-GB",
      hasTouch: true,
      isMobile: true,
      ignoreHTTPSErrors: true,
      serviceWorkers: "allow",
    });
    return new Phone(browser, context);
  }

  /** Opens what the desk's code says, and pairs under a name. */
  async pair(page: Page, code: string, name: string): Promise<void> {
    await page.goto(code);
    await page.getByLabel("Name of this device").fill(name);
    await page.getByRole("button", { name: "Pair" }).tap();
    await expect(page.getByRole("heading", { name: "Sites", exact: true })).toBeVisible();
  }
}

/** Asks the desk's page for a code. */
export async function drawCode(desk: Page): Promise<string> {
  await desk.getByRole("button", { name: "Pair a phone" }).click();
  await expect(desk.getByRole("img", { name: "Code to scan" })).toBeVisible();
  return (await desk.getByTestId("pairing-url").textContent())?.trim() ?? "";
}

/** Waits until the application itself stands on a device, and no longer than an expectation: a worker that never comes is said so. */
export async function onDevice(page: Page): Promise<void> {
  const state = (): Promise<string | undefined> =>
    page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.active?.state);
  await expect.poll(state, { message: "the application stands on this device" }).toBe("activated");
}
