import { defineConfig } from "@playwright/test";
import { chromiumArgs, chromiumPath } from "./cli/browser.ts";

export default defineConfig({
  testDir: "e2e",
  workers: 2,
  timeout: 300_000,
  expect: { timeout: 20_000 },
  reporter: process.env.CI ? "line" : "list",
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: chromiumPath, args: chromiumArgs },
    actionTimeout: 20_000,
  },
});
