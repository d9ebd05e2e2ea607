import { defineConfig } from "@playwright/test";
import { browserLaunch } from "../launch/browser.mjs";

export default defineConfig({
  testDir: ".",
  testMatch: "**/*.spec.ts",
  globalSetup: "./start-services.ts",
  outputDir: "../test-results",
  workers: 2,
  // A test waits for what it waits for; the limit is for one that waits for what never comes.
  timeout: 10 * 60_000,
  retries: 0,
  expect: { timeout: 3 * 60_000 },
  reporter: [["list"], ["json"]],
  use: {
    browserName: "chromium",
    viewport: { width: 1280, height: 800 },
    launchOptions: browserLaunch,
  },
});
