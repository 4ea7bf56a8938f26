import { chromium } from "@playwright/test";
const [,, out, w = "1280", h = "800", hash = "", script = ""] = process.argv;
const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"] });
const p = await b.newPage({ viewport: { width: +w, height: +h } });
p.on("console", (m) => m.type() === "error" && console.log("console:", m.text()));
p.on("pageerror", (e) => console.log("pageerror:", e.message));
await p.goto("http://127.0.0.1:8017/" + hash);
if (hash === "") { await p.getByText("Tern Quay").waitFor(); }
if (hash === "#site" ) {}
if (script) await (new Function("p", `return (async()=>{${script}})()`))(p);
await p.waitForTimeout(800);
await p.screenshot({ path: out });
await b.close();
