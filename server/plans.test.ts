import sqlite3 from "sqlite3";
import { ulid } from "ulid";
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import { readQuery } from "./database/rows.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
beforeAll(async () => {
  store = await openTestStore();
});
afterAll(() => store.stop());
afterEach(() => vi.restoreAllMocks());

/** Every SELECT that reaches SQLite from now on. */
function listen(): Set<string> {
  const asked = new Set<string>();
  const ask = sqlite3.Database.prototype.all as (...all: unknown[]) => unknown;
  vi.spyOn(sqlite3.Database.prototype, "all").mockImplementation(function (this: sqlite3.Database, ...all: unknown[]) {
    const sql = String(all[0]);
    if (/^\s*SELECT/i.test(sql)) asked.add(sql);
    return ask.apply(this, all) as never;
  });
  return asked;
}

/** Tables that grow with every boat, handover, mark or message. */
const growing =
  "deliveries|entries|boats|readings|outbox|bookings|chain|contents|photos|jobs|audit|runs|fills|services";
/** Indexes that hold only the few rows that are asked for: gone through whole they are short. */
const short = /USING (COVERING )?INDEX (deliveries_owing|deliveries_waiting)\b/;

/** Of what was asked, what SQLite goes through a growing table for from end to end. */
async function findScans(asked: ReadonlySet<string>): Promise<string[]> {
  vi.restoreAllMocks();
  const found: string[] = [];
  for (const sql of asked) {
    const plan = await readQuery<{ detail: string }>(store.database.models.boats, `EXPLAIN QUERY PLAN ${sql}`, []);
    const isEnd = /LIMIT 1$/.test(sql.trim()) && plan.length === 1 && plan[0]!.detail.includes("USING INDEX");
    const scan = plan.find(({ detail }) => new RegExp(`^SCAN (${growing})\\b`).test(detail) && !short.test(detail));
    // The last row by an index is one row.
    if (isEnd) continue;
    if (scan !== undefined) found.push(`${scan.detail}: ${sql.replace(/\s+/g, " ").slice(0, 200)}`);
  }
  return found;
}

describe("what is asked often goes through no table that grows", () => {
  it.each(["odile", "nessa", "corwin"])("Today and Owed of %s, once the fleet is known", async (login) => {
    const person = await store.signIn(login);
    await person.get("/api/today");
    const asked = listen();
    await person.get("/api/today");
    await person.get("/api/owed");
    expect(asked.size).toBeGreaterThan(5);
    expect(await findScans(asked)).toEqual([]);
  });

  it("a mark, a walk and a boat's page", async () => {
    const nessa = await store.signIn("nessa");
    const { snapshot } = (await nessa.get("/api/deliveries/d-w118")).body;
    const base = { delivery: "d-w118", at: new Date().toISOString(), by: "nessa", device: "t", snapshot };
    const asked = listen();
    const entries = [
      { ...base, id: ulid(), kind: "start" },
      { ...base, id: ulid(), kind: "mark", topic: "horn", mark: "told", person: null, spentS: 3 },
    ];
    expect((await nessa.send("POST", "/api/deliveries/d-w118/entries", { entries })).status).toBe(200);
    await nessa.get("/api/deliveries/d-w118");
    await nessa.get("/api/boats/w118");
    expect(asked.size).toBeGreaterThan(5);
    expect(await findScans(asked)).toEqual([]);
  });

  it("says so where a table is gone through", async () => {
    expect(await findScans(new Set(["SELECT id FROM deliveries WHERE note = 'x'"]))).toHaveLength(1);
  });
});
