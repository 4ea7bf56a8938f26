/** A signature by hand. */
import type { Page } from "@playwright/test";

export async function sign(page: Page): Promise<void> {
  const field = page.getByRole("img", { name: "Sign here" });
  await field.scrollIntoViewIfNeeded();
  const box = (await field.boundingBox()) ?? { x: 0, y: 0, width: 1, height: 1 };
  await page.mouse.move(box.x + 0.2 * box.width, box.y + 0.6 * box.height);
  await page.mouse.down();
  for (const [x, y] of [
    [0.3, 0.3],
    [0.4, 0.7],
    [0.6, 0.4],
  ] as const)
    await page.mouse.move(box.x + x * box.width, box.y + y * box.height);
  await page.mouse.up();
}
