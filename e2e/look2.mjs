import { chromium } from "playwright-core";
const b = await chromium.launch({ executablePath: "/usr/bin/chromium" });
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
p.on("console", (m) => m.type() === "error" && console.log("ERR", m.text()));
p.on("pageerror", (e) => console.log("PAGE", e.message));
await p.goto("http://127.0.0.1:8140/");
await p.getByRole("link", { name: "Tern Quay Boatyard" }).first().click();
await p
  .getByRole("button", { name: /Fuel berth till/ })
  .first()
  .click();
await p.waitForTimeout(1500);
const id = /site\/([^/]+)/.exec(p.url())[1];
await p.getByRole("radiogroup", { name: "Under the plan" }).getByText("Beside", { exact: true }).click();
await p.waitForTimeout(1000);
await p.getByRole("combobox", { name: "Model and lens beside" }).click();
await p.keyboard.type("2.8–12");
await p.keyboard.press("Enter");
await p.waitForTimeout(1000);
const f = p.getByRole("textbox", { name: "Focal beside" });
await f.fill("12");
await f.press("Enter");
// draw a private place
await p.keyboard.press("Escape");
await p.getByRole("button", { name: "Draw what stands there" }).click();
await p.getByRole("combobox", { name: "What is drawn" }).click();
await p
  .locator(".ant-select-item-option")
  .filter({ hasText: "private place" })
  .last()
  .scrollIntoViewIfNeeded()
  .catch(() => {});
for (let i = 0; i < 9; i++) await p.keyboard.press("ArrowDown");
await p.keyboard.press("Enter");
await p.locator(".draw-card .ant-switch").click();
for (const [e, n] of [
  [83.5, 34.0],
  [86.5, 35.4],
]) {
  if (e === 83.5) {
    await p.getByRole("textbox", { name: "East of the first corner" }).fill(String(e));
    await p.getByRole("textbox", { name: "North of the first corner" }).fill(String(n));
    await p.keyboard.press("Enter");
  } else {
    await p.getByRole("textbox", { name: "Length of the side" }).fill("3.3");
    await p.getByRole("textbox", { name: "Bearing of the side" }).fill("65");
    await p.keyboard.press("Enter");
  }
}
await p.getByRole("button", { name: "Finish" }).click();
await p.waitForTimeout(2500);
await p.screenshot({ path: "/tmp/l3.png" });
await p.goto(`http://127.0.0.1:8140/#/site/${id}/cards`);
await p.locator('main[data-ready="true"]').waitFor();
await p.waitForTimeout(300);
await p.screenshot({ path: "/tmp/l4.png" });
await p.setViewportSize({ width: 390, height: 844 });
await p.goto(`http://127.0.0.1:8140/#/site/${id}/cards/${encodeURIComponent("c4/h1/")}`);
await p.locator('main[data-ready="true"]').waitFor();
await p.waitForTimeout(300);
await p.screenshot({ path: "/tmp/l5.png", fullPage: true });
await b.close();
