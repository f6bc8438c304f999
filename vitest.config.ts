import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,api,content,server,cli,demo}/**/*.test.ts", "web/**/*.test.{ts,tsx}"],
    testTimeout: 60_000,
    hookTimeout: 60_000,
    // By itself vitest leaves a core idle, which is half of two.
    maxWorkers: "100%",
  },
});
