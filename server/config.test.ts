import { expect, it } from "vitest";
import { readConfig } from "./config.ts";

it("has sensible defaults", () => {
  expect(readConfig({})).toMatchObject({ port: 4600, host: "127.0.0.1", dataFolder: "data" });
});

it.each([
  [{ PORT: "ninety" }, "PORT"],
  [{ PORT: "70000" }, "PORT"],
  [{ RAVIK_NOW: "tomorrow" }, "RAVIK_NOW"],
  [{ RAVIK_ZONE: "Mars/North" }, "RAVIK_ZONE must be a time zone"],
])("stops the start on %j and names it", (env, words) => {
  expect(() => readConfig(env)).toThrow(words);
});
