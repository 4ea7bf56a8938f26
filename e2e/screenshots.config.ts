/** Takes the pictures of the README from the running application and its demo: `npm run screenshots -w e2e`. */
import { defineConfig } from "@playwright/test";
import base from "./playwright.config";

export default defineConfig({
  ...base,
  // Each is of a server that no test has used, and none is taken twice.
  projects: [{ name: "screenshots", testMatch: "screenshots.ts" }],
  workers: 1,
  retries: 0,
  use: { ...base.use, trace: "off" },
});
