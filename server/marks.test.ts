import sqlite3 from "sqlite3";
import { ulid } from "ulid";
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import type { Entry } from "../core/walk/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let snapshot: string;
beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  snapshot = (await nessa.get("/api/deliveries/d-w118")).body.snapshot;
  await send("d-w118", [{ kind: "start" }]);
});
afterAll(() => store.stop());
afterEach(() => vi.restoreAllMocks());

/** Entries as a tablet makes them, told in the words of a snapshot. */
const make = (delivery: string, some: readonly object[]) =>
  some.map((each) => ({
    id: ulid(),
    delivery,
    at: new Date().toISOString(),
    by: "nessa",
    device: "tablet-1",
    ...(delivery === "d-w118" ? { snapshot } : {}),
    ...each,
  }));
const post = (delivery: string, entries: readonly object[]) =>
  nessa.send("POST", `/api/deliveries/${delivery}/entries`, { entries });
const send = (delivery: string, some: readonly object[]) => post(delivery, make(delivery, some));
const told = (topic: string) => ({ kind: "mark", topic, mark: "told", person: null, spentS: 3 });
const snag = (note: string) => ({ kind: "snag", topic: null, note, stops: false });

/** Whatever reaches SQLite from now on, word by word. */
function listen() {
  const asked: string[] = [];
  for (const method of ["run", "all", "get", "exec"] as const) {
    const ask = sqlite3.Database.prototype[method] as (...all: unknown[]) => unknown;
    vi.spyOn(sqlite3.Database.prototype, method).mockImplementation(function (
      this: sqlite3.Database,
      ...all: unknown[]
    ) {
      asked.push(String(all[0]).replace(/\s+/g, " ").slice(0, 100));
      return ask.apply(this, all) as never;
    });
  }
  return asked;
}

describe("a mark", () => {
  it("asks the database at most seven things, one that changes what is owed too", async () => {
    await send("d-w118", [told("horn")]);
    await send("d-w118", [told("flush")]);
    const asked = listen();
    expect((await send("d-w118", [told("lanyard")])).status).toBe(200);
    expect(asked.length, asked.join("\n")).toBeLessThanOrEqual(5);
    asked.length = 0;
    expect((await send("d-w118", [snag("The cleat is loose")])).status).toBe(200);
    expect(asked.length, asked.join("\n")).toBeLessThanOrEqual(7);
    // None of them is of Sequelize's own: the schema is known.
    expect(asked.filter((sql) => /table_info/i.test(sql))).toEqual([]);
  });

  it("shares its way to the disk with those that wait, and is answered only then", async () => {
    const asked = listen();
    const answers = await Promise.all(
      Array.from({ length: 24 }, (_, i) => send(i % 2 === 0 ? "d-w118" : "d-w121", [told("horn")])),
    );
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 200));
    expect(asked.filter((sql) => sql.startsWith("COMMIT")).length).toBeLessThan(12);
    const stored = new Set(
      ((await nessa.get("/api/deliveries/d-w118")).body.entries as Entry[])
        .concat((await nessa.get("/api/deliveries/d-w121")).body.entries)
        .map(({ id }) => id),
    );
    for (const { body } of answers) expect(stored.has(body.stored[0])).toBe(true);
  });

  it("that is refused spoils none of those beside it, nor does one that fails at the store itself", async () => {
    const { deliveries } = store.services;
    const addEntries = deliveries.addEntries;
    vi.spyOn(deliveries, "addEntries").mockImplementation(async (...all) => {
      const done = await addEntries(...all);
      if (all[1].some((entry) => entry.kind === "snag" && entry.note === "fails")) throw new Error("on purpose");
      return done;
    });
    const notes = ["a", "fails", "b", "c", "fails", "d"];
    const answers = await Promise.all([
      ...notes.map((note) => send("d-w121", [snag(note)])),
      send("d-w121", [told("no-such-topic")]),
      send("d-w121", [told("flush")]),
    ]);
    expect(answers.map(({ status }) => status)).toEqual([200, 500, 200, 200, 500, 200, 422, 200]);
    vi.restoreAllMocks();
    const entries: Entry[] = (await nessa.get("/api/deliveries/d-w121")).body.entries;
    const said = entries.flatMap((entry) => (entry.kind === "snag" ? [entry.note] : []));
    expect(said.filter((note) => notes.includes(note)).sort()).toEqual(["a", "b", "c", "d"]);
  });

  it("sent twice at once counts once; with the id of another handover's it is refused", async () => {
    const entries = make("d-w121", [snag("twice")]);
    const both = await Promise.all([post("d-w121", entries), post("d-w121", entries)]);
    expect(both.map(({ body }) => body.stored.length + body.known.length)).toEqual([1, 1]);
    expect(both.flatMap(({ body }) => body.stored)).toHaveLength(1);
    const elsewhere = make("d-w118", [snag("twice")]).map((entry) => ({ ...entry, id: entries[0]!.id }));
    expect((await post("d-w118", elsewhere)).body.error.code).toBe("entry-differs");
  });

  it("leaves the walk as it is when read anew, whoever else wrote to it meanwhile", async () => {
    const { deliveries, walkReader } = { ...store.services, walkReader: store.services.handoverService };
    const ref = make("d-w118", [told("lanyard")]);
    await post("d-w118", ref);
    await send("d-w118", [{ kind: "undo", ref: ref[0]!.id }]);
    await send("d-w118", [snag("Second cleat"), { ...told("horn"), at: "2020-01-01T00:00:00.000Z" }]);
    const owed = async () => {
      const { summary } = (await deliveries.find("d-w118"))!;
      const { summarizeContext } = await import("./services/summarizeContext.ts");
      expect(summary).toEqual(summarizeContext(await walkReader.get("d-w118")));
      return summary.owed.map(({ text }) => text).join();
    };
    expect(await owed()).toContain("Second cleat");
    // Another hand in the row: the next mark sees it.
    await store.database.models.deliveries.update({ note: "at the fuel dock" }, { where: { id: "d-w118" } });
    await send("d-w118", [snag("Third cleat")]);
    expect(await owed()).toContain("Third cleat");
    expect((await deliveries.find("d-w118"))!.note).toBe("at the fuel dock");
  });
});
