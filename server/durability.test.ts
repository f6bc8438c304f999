import { mkdtempSync, readFileSync, rmSync, truncateSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sqlite3 from "sqlite3";
import { ulid } from "ulid";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { startServer } from "../cli/demoProcess.ts";
import { toInstant } from "../core/dates/index.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { openDatabase } from "./database/open.ts";
import { highWaterFile } from "./keeping/highWater.ts";

/** A store a test: what one has written decides when SQLite empties the log that another cuts. */
let folder: string;
/** The soak does hundreds. */
const kills = 4;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "ravik-kill-"));
  const database = await openDatabase(folder);
  await makeDemoStore(database, "2026-06-13", "UTC");
  await database.close();
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

async function openSession(address: string, login = "nessa") {
  const headers = { origin: address, "content-type": "application/json" };
  const answer = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers,
    body: JSON.stringify({ login, password: "slack-water" }),
  });
  const cookie = answer.headers.get("set-cookie")!.split(";")[0]!;
  const post = async (id: string) => {
    const entry = {
      id,
      delivery: "d-w118",
      at: toInstant(Date.now()).replace(/\d\d\dZ$/, "000Z"),
      by: "nessa",
      device: "kill-test",
      kind: "snag",
      topic: null,
      note: `entry ${id}`,
      stops: false,
    };
    return { entry, send: () => sendEntry(address, { ...headers, cookie }, entry) };
  };
  return { cookie, post };
}

async function sendEntry(address: string, headers: Record<string, string>, entry: object): Promise<boolean> {
  const body = JSON.stringify({ entries: [entry] });
  const answer = await fetch(`${address}/api/deliveries/d-w118/entries`, { method: "POST", headers, body });
  if (!answer.ok) throw new Error(`expected the entry to be taken, got ${answer.status} ${await answer.text()}`);
  return true;
}

it(`loses nothing acknowledged and doubles nothing over ${kills} kills -9 while entries are posted`, async () => {
  const acknowledged = new Set<string>();
  let unanswered: object[] = [];
  for (let round = 0; round < kills; round++) {
    const { child, port } = await startServer("main", { RAVIK_DATA: folder, PORT: "0", RAVIK_LOG: "fatal" });
    const address = `http://127.0.0.1:${port}`;
    const { cookie, post } = await openSession(address);
    const headers = { origin: address, "content-type": "application/json", cookie };
    // What had no answer when the last server died is sent again, as a tablet would.
    for (const entry of unanswered) {
      await sendEntry(address, headers, entry);
      acknowledged.add((entry as { id: string }).id);
    }
    unanswered = [];
    const target = acknowledged.size + 4 + (round % 5);
    let isDying = false;
    const worker = async () => {
      while (!isDying) {
        const { entry, send } = await post(ulid());
        try {
          await send();
          acknowledged.add(entry.id);
          if (acknowledged.size >= target && !isDying) {
            isDying = true;
            child.kill("SIGKILL");
          }
        } catch (error) {
          if (!isDying) throw error;
          unanswered.push(entry);
        }
      }
    };
    await Promise.all([worker(), worker(), worker()]);
    await new Promise((resolve) =>
      child.exitCode === null && child.signalCode === null ? child.once("exit", resolve) : resolve(0),
    );
  }
  const { child, port } = await startServer("main", { RAVIK_DATA: folder, PORT: "0", RAVIK_LOG: "fatal" });
  const address = `http://127.0.0.1:${port}`;
  const { cookie } = await openSession(address);
  const answer = await fetch(`${address}/api/deliveries/d-w118`, { headers: { cookie } });
  const { entries } = (await answer.json()) as { entries: { id: string; device: string }[] };
  child.kill("SIGKILL");
  const stored = entries.filter(({ device }) => device === "kill-test").map(({ id }) => id);
  expect(new Set(stored).size).toBe(stored.length);
  expect([...acknowledged].filter((id) => !stored.includes(id))).toEqual([]);
  expect(acknowledged.size).toBeGreaterThanOrEqual(kills * 4);
}, 240_000);

it("says so when it starts on a log that was cut, and not after a kill", async () => {
  const start = () => startServer("main", { RAVIK_DATA: folder, PORT: "0", RAVIK_LOG: "fatal" });
  const isBehind = async (address: string) => {
    const { cookie } = await openSession(address, "odile");
    const answer = await fetch(`${address}/api/restored`, { headers: { cookie } });
    return ((await answer.json()) as { restored: { why: string } | null }).restored?.why === "behind";
  };
  const kill = async ({ child }: Awaited<ReturnType<typeof start>>) => {
    child.kill("SIGKILL");
    await new Promise((resolve) => child.once("exit", resolve));
  };
  const first = await start();
  const { post } = await openSession(`http://127.0.0.1:${first.port}`);
  const wal = join(folder, "ravik.sqlite-wal");
  for (let i = 0; i < 20; i++) await (await post(ulid())).send();
  // The mark beside the database is written within a second.
  await vi.waitFor(async () => expect(await readMark()).toBe(await readLast()), { timeout: 10_000, interval: 200 });
  await kill(first);
  const second = await start();
  expect(await isBehind(`http://127.0.0.1:${second.port}`)).toBe(false);
  const again = await openSession(`http://127.0.0.1:${second.port}`);
  for (let i = 0; i < 20; i++) await (await again.post(ulid())).send();
  await vi.waitFor(async () => expect(await readMark()).toBe(await readLast()), { timeout: 10_000, interval: 200 });
  await kill(second);
  const before = await readLast();
  truncateSync(wal, 32);
  expect(await readLast()).toBeLessThan(before);
  const third = await start();
  expect(await isBehind(`http://127.0.0.1:${third.port}`)).toBe(true);
  await kill(third);
}, 120_000);

const readMark = async (): Promise<number> =>
  JSON.parse(readFileSync(join(folder, highWaterFile), "utf8")).number as number;
/** The last number that is in the store, read beside the server. */
async function readLast(): Promise<number> {
  const database = new sqlite3.Database(join(folder, "ravik.sqlite"), sqlite3.OPEN_READONLY);
  const last = await new Promise<number>((resolve, reject) =>
    database.get("SELECT MAX(number) AS number FROM entries", (error, row: { number: number }) =>
      error ? reject(error) : resolve(row.number),
    ),
  );
  await new Promise((resolve) => database.close(resolve));
  return last;
}
