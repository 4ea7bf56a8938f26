/** Takes the pictures of the README from the running application and its demo: `npm run screenshots -w e2e`. */
import { defineConfig } from "@playwright/test";
import base from "./playwright.config";

export default defineConfig({ ...base, testMatch: "screenshots.ts", use: { ...base.use, trace: "off" } });
