import { defineConfig } from "vitest/config";

const shared = { testTimeout: 60_000, hookTimeout: 60_000 };
const web = { ...shared, setupFiles: ["web/testing/setup.ts"] };
const mocked = "web/**/*.mocked.test.tsx";

export default defineConfig({
  test: {
    // By itself vitest leaves a core idle, which is half of two.
    maxWorkers: "100%",
    // Files share what they import, which is a third of their time; what a test leaves in a module of the screens, the setup takes back.
    // Those that put another module in a module's place need imports of their own.
    projects: [
      {
        test: { ...shared, name: "node", isolate: false, include: ["{core,api,content,server,cli,demo}/**/*.test.ts"] },
      },
      { test: { ...web, name: "web", isolate: false, include: ["web/**/*.test.{ts,tsx}"], exclude: [mocked] } },
      { test: { ...web, name: "mocked", include: [mocked] } },
    ],
  },
});
