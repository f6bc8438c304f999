import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { contractNames } from "../core/compute.ts";

const root = new URL("..", import.meta.url).pathname;

/** As it is built (`npm run build`), which is how a terminal calls it. */
function ask(args: string[], input = "") {
  const { status, stdout } = spawnSync(process.execPath, ["dist/server/compute.js", ...args], {
    cwd: root,
    input,
    encoding: "utf8",
  });
  return { status, lines: stdout.trim().split("\n") };
}

const cases = readFileSync(new URL("../core/service/cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n");

describe("compute in the terminal", () => {
  it("lists what is built, one a line", () => {
    expect(ask(["list"])).toEqual({
      status: 0,
      lines: contractNames,
    });
  });

  it("prints the JSON Schema of an input", () => {
    const { status, lines } = ask(["schema", "due"]);
    expect(status).toBe(0);
    expect(JSON.parse(lines[0]!)).toMatchObject({ type: "object", additionalProperties: false });
  });

  it("answers one input a line, errors in their place", () => {
    const inputs = cases.map((line) => JSON.stringify(JSON.parse(line).input));
    const { status, lines } = ask(["due", "--lines"], [inputs[0], "{oops", inputs[1]].join("\n"));
    expect(status).toBe(0);
    expect(JSON.parse(lines[0]!)).toEqual(JSON.parse(cases[0]!).output);
    expect(JSON.parse(lines[1]!).error.code).toBe("invalid-input");
    expect(JSON.parse(lines[2]!)).toEqual(JSON.parse(cases[1]!).output);
  });

  it.each([
    ["malformed JSON", ["due"], "{", 2, "invalid-input"],
    ["a wrong shape", ["route"], '{"stations":1}', 2, "invalid-input"],
    ["an unknown name", ["warp"], "{}", 2, "invalid-input"],
    [
      "a circle",
      ["route"],
      '{"stations":[{"id":"a"}],"moveMin":[[0]],"topics":[{"id":"x","station":"a","minutes":1,"after":["x"],"must":false,"value":1}]}',
      3,
      "cycle",
    ],
  ])("%s ends with its own status", (_, args, input, status, code) => {
    const answer = ask(args, input);
    expect(answer.status).toBe(status);
    expect(JSON.parse(answer.lines[0]!).error.code).toBe(code);
  });

  it("names the path of what is wrong", () => {
    const { input } = JSON.parse(cases[4]!);
    input.items[2].firstH = "soon";
    const { lines } = ask(["due"], JSON.stringify(input));
    expect(JSON.parse(lines[0]!).error.issues[0].path).toBe("items[2].firstH");
  });
});
