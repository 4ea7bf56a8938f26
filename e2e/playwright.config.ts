/** The real interface on the real server and a PostgreSQL cluster of its own, in Debian's Chromium. */
import { chmodSync, mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { defineConfig } from "@playwright/test";

const PORT = 8117;

// Workers read this file again and find the folder that the runner made.
if (!process.env["BRIGHT_ANGLE_DATA"]) {
  const data = mkdtempSync(join(tmpdir(), "bright-angle-e2e-"));
  // PostgreSQL may run as another user than the tests.
  chmodSync(data, 0o755);
  process.env["BRIGHT_ANGLE_DATA"] = data;
}

/** What looks for processes, stops the database, changes the one catalogue, counts all sites, or needs the rangefinder's shots in their order: nothing else goes on meanwhile. */
const ALONE = [
  "catalogue.spec.ts",
  "from-nothing.spec.ts",
  "keeping.spec.ts",
  "site-files.spec.ts",
  "stays-up.spec.ts",
  "survey.spec.ts",
];

export default defineConfig({
  testDir: ".",
  testMatch: "*.spec.ts",
  // The tests share one server and each makes its own site. A browser waits half of its time: two take three fifths of what one takes.
  workers: 2,
  projects: [
    { name: "together", testIgnore: ALONE },
    { name: "alone", testMatch: ALONE, workers: 1 },
  ],
  forbidOnly: true,
  // At least four times what the slowest of each takes on a quiet machine: others may be slower, or busy.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  // On a busy machine a browser drops a click now and then. What passes only the second time is listed as flaky, to be looked into.
  retries: 1,
  reporter: [["list"]],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    locale: "en-GB",
    // Requests that a service worker makes are not seen by the tests that stand between page and server; offline.spec.ts allows it.
    serviceWorkers: "block",
    // Recording every test takes a third of its time: BRIGHT_ANGLE_TRACE=1 for the one that is looked into.
    trace: process.env["BRIGHT_ANGLE_TRACE"] ? "retain-on-failure" : "off",
    screenshot: "only-on-failure",
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
  webServer: {
    command: `../tools/serve target/debug/bright-angle ${PORT} "${process.env["BRIGHT_ANGLE_DATA"]}"`,
    url: `http://127.0.0.1:${PORT}/api/health`,
    timeout: 90_000,
    // Two distances of the drawing, then the six readings of the walk in survey.spec.ts; later shots go by chance.
    // The database is stopped by tests; it stays down until they start it.
    env: { BRIGHT_ANGLE_SHOTS: "good,good,good,good,good,stray,good,good", BRIGHT_ANGLE_LOOKS_EVERY: "3600" },
    gracefulShutdown: { signal: "SIGTERM", timeout: 20_000 },
  },
});
