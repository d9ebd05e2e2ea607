import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: ".",
  testMatch: "**/*.spec.ts",
  globalSetup: "./start-services.ts",
  outputDir: "../test-results",
  workers: 2,
  timeout: 60_000,
  // A machine that is briefly busy is no fault of the application; what passes at the second try is told.
  retries: 1,
  expect: { timeout: 10_000 },
  reporter: [["list"], ["json"]],
  use: {
    browserName: "chromium",
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
