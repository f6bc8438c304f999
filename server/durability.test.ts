import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import { startServer } from "../cli/demoProcess.ts";
import { toInstant } from "../core/dates/index.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { openDatabase } from "./database/open.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-kill-"));
/** The soak does hundreds. */
const kills = 4;

beforeAll(async () => {
  const database = await openDatabase(folder);
  await makeDemoStore(database, "2026-06-13", "UTC");
  await database.close();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function openSession(address: string) {
  const headers = { origin: address, "content-type": "application/json" };
  const answer = await fetch(`${address}/api/sign-in`, {
    method: "POST",
    headers,
    body: JSON.stringify({ login: "nessa", password: "slack-water" }),
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
