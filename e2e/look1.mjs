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
await p.waitForTimeout(3500);
await p.screenshot({ path: "/tmp/l1.png" });
const id = /site\/([^/]+)/.exec(p.url())[1];
console.log(id);
await p.getByRole("radiogroup", { name: "Under the plan" }).getByText("Beside", { exact: true }).click();
await p
  .getByRole("button", { name: /Gate lane, plates in/ })
  .first()
  .click();
await p.waitForTimeout(2500);
await p.screenshot({ path: "/tmp/l2.png" });
await b.close();
