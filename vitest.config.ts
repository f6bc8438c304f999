import { defineConfig } from "vitest/config";

export default defineConfig({
  test: {
    include: ["{core,api,content,server,cli,demo}/**/*.test.ts", "web/**/*.test.{ts,tsx}"],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});
