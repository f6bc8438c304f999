import { randomBytes } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { getPriority } from "node:os";
import { pathToFileURL } from "node:url";
import { expect, it } from "vitest";
import { createHashWorker } from "./signIn/hasher.ts";

/** The 19th field of a thread's line, counted behind its name, which may hold anything. */
const niceOf = (thread: string) =>
  Number(readFileSync(`/proc/self/task/${thread}/stat`, "utf8").split(") ").at(-1)!.split(" ")[16]);

it.runIf(process.platform === "linux")(
  "a thread that works for long lets the others go first, and slows none of them",
  async () => {
    const before = getPriority();
    const hasher = createHashWorker(() => pathToFileURL("dist/server/hashWorker.js"));
    await hasher.scrypt("slack-water", randomBytes(16).toString("base64"), { N: 1024, r: 8, p: 1 });
    expect(readdirSync("/proc/self/task").map(niceOf)).toContain(10);
    expect(getPriority()).toBe(before);
    await hasher.close();
  },
);
