import { defineConfig } from "vitest/config";
import SlowFirst from "./cli/slowFirst.ts";

/** The day on which every test lives. */
const day = "cli/setTestDay.ts";
const shared = { testTimeout: 60_000, hookTimeout: 60_000, setupFiles: [day] };

export default defineConfig({
  test: {
    // By itself vitest leaves a core idle, which is half of two.
    maxWorkers: "100%",
    sequence: { sequencer: SlowFirst },
    projects: [
      // Nothing here keeps state in a module, so that files may share what they import.
      {
        test: { ...shared, name: "node", isolate: false, include: ["{core,api,content,server,cli,demo}/**/*.test.ts"] },
      },
      {
        test: {
          ...shared,
          name: "web",
          setupFiles: [day, "web/testing/setup.ts"],
          include: ["web/**/*.test.{ts,tsx}"],
        },
      },
    ],
  },
});
