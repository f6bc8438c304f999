import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createClock } from "../clock.ts";
import { createServices } from "../createServices.ts";
import { type Database, openDatabase } from "../database/open.ts";
import { readQuery } from "../database/rows.ts";
import { openTestStore, type TestStore } from "../openTestStore.ts";
import { hashBytes } from "../services/bundleFile.ts";
import { verifyStore } from "../verifyStore.ts";
import { readStore, StoreFileRefused, splitLines, storeFormat } from "./storeFile.ts";

let store: TestStore;
let folder: string;
let lines: readonly string[];
let status: readonly number[];
const opened: Database[] = [];

const openNew = async (name: string) => {
  const database = await openDatabase(join(folder, name));
  opened.push(database);
  return database;
};
async function* give(some: readonly string[]) {
  yield* some;
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "ravik-everything-"));
  store = await openTestStore();
  const mara = await store.signIn(store.services.demoAccounts!.find(({ role }) => role === "owner")!.login);
  const nessa = await store.signIn("nessa");
  const bytes = Buffer.from([0, 255, 10, 13, 123, 34]);
  const photo = {
    width: 2,
    height: 1,
    sha256: hashBytes(bytes),
    sent: null,
    large: bytes,
    small: bytes,
    original: null,
  };
  const by = { at: store.services.clock.now(), by: "nessa" };
  await store.database.models.photos.create({ id: "p-odd", ...by, ...photo });
  // JSON that is not written as it would be here, and JSON that speaks as bytes do, come back letter for letter.
  await store.database.models.packs.create({ id: "odd", kind: "service", body: '{ "a": 1.0 }', version: 1, ...by });
  await store.database.models.packs.create({
    id: "odd-2",
    kind: "service",
    body: '{"base64":"AA=="}',
    version: 1,
    ...by,
  });
  const answer = await fetch(`${store.address}/api/everything`, { headers: { cookie: mara.cookie } });
  status = [answer.status, (await nessa.get("/api/everything")).status];
  lines = (await answer.text()).split("\n");
});
afterAll(async () => {
  for (const database of opened) await database.close();
  await store.stop();
  rmSync(folder, { recursive: true, force: true });
});

describe("everything as a file", () => {
  it("is the owner's alone, says what it is, and names nothing that opens a door", () => {
    expect(status).toEqual([200, 403]);
    expect(JSON.parse(lines[0]!)).toMatchObject({ format: storeFormat, store: expect.stringContaining("Boatyard") });
    const named = new Set(lines.slice(1, -2).map((line) => JSON.parse(line).table));
    expect([...named]).toEqual(expect.arrayContaining(["boats", "deliveries", "entries", "chain", "photos", "packs"]));
    expect([...named]).not.toEqual(expect.arrayContaining(["sessions"]));
    const people = lines.filter((line) => line.startsWith('{"table":"users"'));
    expect(people.length).toBeGreaterThan(4);
    expect(people.join()).not.toMatch(/"hash"|"salt"|"recovery"/);
    const boat = JSON.parse(lines.find((line) => line.startsWith('{"table":"boats"'))!);
    expect(boat.row.rig.stations.length).toBeGreaterThan(3);
  });

  it("read into an empty folder is the same store, row for row, and what was sealed is still what was sealed", async () => {
    const there = await openNew("there");
    expect(await readStore(there, give(lines))).toEqual({ rows: lines.length - 3, at: JSON.parse(lines[0]!).at });
    const doors = ["salt", "hash", "cost", "second", "secondStep", "recovery"];
    for (const model of Object.values(store.database.models)) {
      const table = String((model as typeof store.database.models.boats).getTableName());
      if (["sessions", "invites", "devices"].includes(table)) continue;
      const read = async (from: Database) =>
        (await readQuery<Record<string, unknown>>(from.models.boats, `SELECT * FROM "${table}" ORDER BY rowid`)).map(
          (row) =>
            Object.fromEntries(Object.entries(row).filter(([column]) => table !== "users" || !doors.includes(column))),
        );
      // The audit has gained a line since: that everything was taken along.
      const here = (await read(store.database)).slice(0, table === "audit" ? -2 : undefined);
      const got = (await read(there)).slice(0, here.length);
      expect(got, table).toEqual(here);
    }
    const services = createServices(there, createClock("UTC"), null);
    expect((await verifyStore({ ...services, hashBytes }, await store.readExpected())).faults).toEqual([]);
    const signIn = { login: "nessa", password: "handover" };
    await expect(services.signInService.signIn(signIn as never, {} as never)).rejects.toThrow();
  });

  it.each([
    ["cut off", (all: string[]) => all.slice(0, 40), /cut off/],
    [
      "with a row changed",
      (all: string[]) => all.map((line, i) => (i === 9 ? line.replace(/"id":"./, '"id":"x') : line)),
      /speaks of other rows|is not in it/,
    ],
    ["with a row less", (all: string[]) => all.filter((_, i) => i !== 9), /speaks of other rows|not in it/],
    ["of something else", () => ['{"format":"ravik.bundle/2"}'], /does not begin as/],
    ["of no JSON", () => ["hello"], /not JSON/],
    [
      "of a newer program",
      ([head, ...rest]: string[]) => [head!.replace(/"migrations":\d+/, '"migrations":999'), ...rest],
      /newer Ravik/,
    ],
    [
      "with a table nobody knows",
      ([head, ...rest]: string[]) => [head!, '{"table":"spells","row":{}}', ...rest],
      /no row of a table/,
    ],
    [
      "with a column nobody knows",
      ([head, ...rest]: string[]) => [head!, '{"table":"settings","row":{"key":"a","value":"b","c":1}}', ...rest],
      /has no "c"/,
    ],
  ] as const)("%s is refused in words, and nothing of it is kept", async (what, change, words) => {
    const there = await openNew(what.replaceAll(" ", "-"));
    const given = change([...lines]);
    const error = await readStore(there, give(given)).catch((thrown: unknown) => thrown);
    expect(error).toBeInstanceOf(StoreFileRefused);
    expect((error as Error).message).toMatch(words);
    for (const model of [there.models.boats, there.models.users, there.models.settings])
      expect(await (model as typeof there.models.boats).count()).toBe(0);
  });

  it("is read line by line however its bytes come, also through a letter of several bytes", async () => {
    const text = Buffer.from('{"a":"Zürich ⚓"}\n\n{"b":1}\n{"c":', "utf8");
    for (const size of [1, 2, 7, 1000]) {
      const chunks = async function* () {
        for (let at = 0; at < text.length; at += size) {
          await new Promise((resolve) => setImmediate(resolve));
          yield text.subarray(at, at + size);
        }
      };
      const got: string[] = [];
      for await (const line of splitLines(chunks())) got.push(line);
      expect(got).toEqual(['{"a":"Zürich ⚓"}', "", '{"b":1}', '{"c":']);
    }
  });

  it("never goes over a store that is there", async () => {
    await expect(readStore(store.database, give(lines))).rejects.toThrow(/empty folder/);
  });
});
