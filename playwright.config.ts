import { defineConfig } from "@playwright/test";
import { chromiumArgs, chromiumPath } from "./cli/browser.ts";

export default defineConfig({
  testDir: "e2e",
  // Each test by itself to whichever worker is free: a long file would leave one idle at the end.
  fullyParallel: true,
  workers: 2,
  timeout: 420_000,
  // A machine whose disk stands still for half a minute is no fault of a page; what passes only at the second try is listed as flaky.
  retries: process.env.CI ? 1 : 0,
  expect: { timeout: 45_000 },
  reporter: [[process.env.CI ? "line" : "list"], ["./e2e/flakyReporter.ts"]],
  use: {
    viewport: { width: 1280, height: 800 },
    // Where the app kept on the device is not the matter, its making would only take time; a test that needs it allows it.
    serviceWorkers: "block",
    launchOptions: { executablePath: chromiumPath, args: chromiumArgs },
    actionTimeout: 45_000,
  },
});
