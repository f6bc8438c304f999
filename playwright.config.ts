import { defineConfig } from "@playwright/test";
import { chromiumArgs, chromiumPath } from "./cli/browser.ts";

export default defineConfig({
  testDir: "e2e",
  workers: 2,
  timeout: 420_000,
  // A machine whose disk stands still for half a minute is no fault of a page; what passes only at the second try is listed as flaky.
  retries: process.env.CI ? 1 : 0,
  expect: { timeout: 45_000 },
  reporter: process.env.CI ? "line" : "list",
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: chromiumPath, args: chromiumArgs },
    actionTimeout: 45_000,
  },
});
