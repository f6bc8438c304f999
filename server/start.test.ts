import { type ChildProcess, spawn } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from "node:fs";
import { createServer, type Server } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, beforeAll, describe, expect, it } from "vitest";

const root = new URL("..", import.meta.url).pathname;
let folder: string;
const children: ChildProcess[] = [];
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), "ravik-start-"));
});
afterEach(() => {
  for (const child of children.splice(0)) child.kill("SIGKILL");
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Starts a built server (`npm run build`); answers its exit code and what it said. */
function start(script: string, env: Record<string, string>) {
  const child = spawn(process.execPath, [script], {
    cwd: root,
    env: { ...process.env, RAVIK_LOG: "fatal", PORT: "0", ...env },
    stdio: ["ignore", "pipe", "pipe", "ipc"],
  });
  children.push(child);
  let said = "";
  for (const stream of [child.stdout!, child.stderr!]) stream.on("data", (data) => (said += String(data)));
  const ended = new Promise<{ code: number | null; said: string }>((resolve) =>
    child.once("exit", (code) => resolve({ code, said })),
  );
  const ready = new Promise<void>((resolve) => child.once("message", () => resolve()));
  return { child, ended, ready };
}

describe("a start that cannot be", () => {
  it("says why and what to do, without a stack, and ends with 1", async () => {
    const own = join(folder, "foreign");
    const first = start("dist/server/main.js", { RAVIK_DATA: own });
    await first.ready;
    const second = await start("dist/server/main.js", { RAVIK_DATA: own }).ended;
    expect(second).toMatchObject({
      code: 1,
      said: expect.stringMatching(/^ravik: another Ravik runs on .*stop it first/),
    });
    expect(second.said).not.toMatch(/^\s+at /m);
    const wrong = await start("dist/server/main.js", { RAVIK_DATA: own, RAVIK_ZONE: "Mars/North" }).ended;
    expect(wrong).toMatchObject({ code: 1, said: expect.stringMatching(/^ravik: .*RAVIK_ZONE must be a time zone/) });
    const given = await start("dist/server/main.js", { RAVIK_DATA: own, RAVIK_NOW: "2027-03-14T12:00:00.000Z" }).ended;
    expect(given).toMatchObject({
      code: 1,
      said: expect.stringMatching(/^ravik: RAVIK_NOW is for tests and the demo/),
    });
  }, 60_000);

  it("says that the port is taken", async () => {
    const other = await new Promise<Server>((resolve) => {
      const server = createServer().listen(0, "127.0.0.1", () => resolve(server));
    });
    const { port } = other.address() as { port: number };
    const { code, said } = await start("dist/server/main.js", { RAVIK_DATA: join(folder, "taken"), PORT: `${port}` })
      .ended;
    other.close();
    expect({ code, said }).toEqual({ code: 1, said: expect.stringContaining(`port ${port} is taken`) });
  }, 60_000);

  it.each(["/proc/ravik/data", "/proc", "/dev/null/data"])(
    "says of %s that it cannot be written to, not that it is to be moved away",
    async (own) => {
      const { code, said } = await start("dist/server/main.js", { RAVIK_DATA: own }).ended;
      expect({ code, said }).toEqual({ code: 1, said: expect.stringMatching(/^ravik: \/.* cannot be written to \(/) });
      expect(said).not.toMatch(/^\s+at /m);
    },
    60_000,
  );

  it("of a store whose file may not be written to says the same", async () => {
    const own = mkdtempSync(join(folder, "kept-"));
    const first = start("dist/server/main.js", { RAVIK_DATA: own });
    await first.ready;
    first.child.kill("SIGTERM");
    await first.ended;
    // Also to whoever may write anything: a folder stands where SQLite would keep its log.
    rmSync(join(own, "ravik.sqlite-wal"), { force: true });
    mkdirSync(join(own, "ravik.sqlite-wal"));
    const { code, said } = await start("dist/server/main.js", { RAVIK_DATA: own }).ended;
    expect({ code, said }).toEqual({ code: 1, said: expect.stringContaining("cannot be written to") });
  }, 60_000);

  it("leaves a file alone that is no store", async () => {
    const own = mkdtempSync(join(folder, "letter-"));
    writeFileSync(join(own, "ravik.sqlite"), "a letter to somebody");
    const { code, said } = await start("dist/server/main.js", { RAVIK_DATA: own }).ended;
    expect({ code, said }).toEqual({ code: 1, said: expect.stringContaining("is no store of Ravik's") });
  }, 60_000);
});

describe("a demo", () => {
  it("whose first start is killed in the middle is made anew by the next", async () => {
    const own = join(folder, "demo");
    const first = start("dist/server/demo.js", { RAVIK_DATA: own });
    while (!existsSync(join(`${own}.part`, "ravik.sqlite"))) await new Promise((resolve) => setTimeout(resolve, 20));
    first.child.kill("SIGKILL");
    await first.ended;
    expect(existsSync(join(own, "ravik.sqlite"))).toBe(false);
    await start("dist/server/demo.js", { RAVIK_DATA: own }).ready;
    expect(existsSync(`${own}.part`)).toBe(false);
    expect(readdirSync(own)).toContain("ravik.sqlite");
  }, 120_000);
});

describe("a new store", () => {
  /** Runs a command of the terminal with these lines typed into it. */
  const run = (script: string, own: string, typed: string, args: string[] = []) => {
    const child = spawn(process.execPath, [script, ...args], {
      cwd: root,
      env: { ...process.env, RAVIK_DATA: own, RAVIK_ZONE: "UTC" },
    });
    children.push(child);
    let said = "";
    for (const stream of [child.stdout, child.stderr]) stream.on("data", (data) => (said += String(data)));
    child.stdin.end(typed);
    return new Promise<{ code: number | null; said: string }>((resolve) =>
      child.once("exit", (code) => resolve({ code, said })),
    );
  };
  const lines = ["Tarn Boats", "1 Slip Road", "555 0100", "", "", "metric", "Maud Ferris", "maud"];

  it("says how to begin, each time until somebody has; set up in the terminal it says no more", async () => {
    const own = join(folder, "new");
    const first = start("dist/server/main.js", { RAVIK_DATA: own });
    await first.ready;
    first.child.kill("SIGTERM");
    expect((await first.ended).said).toMatch(
      /This store is new\. Open http:.*\/set-up.*\n\n +[0-9A-Z]{5}-[0-9A-Z]{5}/s,
    );

    // Where browsers reach it through a proxy, that is where it is opened.
    const behind = start("dist/server/main.js", { RAVIK_DATA: own, RAVIK_ADDRESS: "https://ravik.yard" });
    await behind.ready;
    behind.child.kill("SIGTERM");
    expect((await behind.ended).said).toContain("This store is new. Open https://ravik.yard/set-up");

    const weak = await run("dist/server/setup.js", own, [...lines, "short"].join("\n"));
    expect(weak).toMatchObject({ code: 1, said: expect.stringContaining("too short") });
    const done = await run("dist/server/setup.js", own, [...lines, "grey heron at dawn"].join("\n"));
    expect(done).toMatchObject({ code: 0, said: expect.stringContaining("Tarn Boats is ready") });
    expect(done.said).not.toContain("grey heron");
    const again = await run("dist/server/setup.js", own, "");
    expect(again).toMatchObject({ code: 1, said: expect.stringContaining("has an owner already") });

    const lost = await run("dist/server/owner.js", own, "", ["--reset"]);
    expect(lost).toMatchObject({
      code: 0,
      said: expect.stringMatching(/For Maud Ferris.*\/join.*[0-9A-Z]{5}-[0-9A-Z]{5}/s),
    });
    const second = start("dist/server/main.js", { RAVIK_DATA: own });
    await second.ready;
    second.child.kill("SIGTERM");
    expect((await second.ended).said).not.toContain("is new");
  }, 120_000);
});
