import { mkdtempSync, renameSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { Secret, TOTP } from "otpauth";
import sqlite3 from "sqlite3";
import { ulid } from "ulid";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { openTestStore } from "../openTestStore.ts";
import { type Database, openDatabase } from "./open.ts";
import { readQuery } from "./rows.ts";
import { findFaultOf } from "./standing.ts";

let root: string;
let folder: string;
let database: Database;
beforeEach(async () => {
  root = mkdtempSync(join(tmpdir(), "ravik-disk-"));
  folder = join(root, "store");
  database = await openDatabase(folder);
});
afterEach(async () => {
  vi.restoreAllMocks();
  await database.close();
  rmSync(root, { recursive: true, force: true });
});

/** From now on each new connection is told this as well. */
function tellConnections(pragma: string) {
  const exec = sqlite3.Database.prototype.exec;
  return vi.spyOn(sqlite3.Database.prototype, "exec").mockImplementation(function (this: sqlite3.Database, sql, done) {
    return exec.call(this, `${sql} ${pragma}`, done);
  });
}
const setting = (key: string, letters = 10) => ({ key, value: "x".repeat(letters) });
const list = async () =>
  ((await database.models.settings.findAll({ raw: true })) as unknown as { key: string }[]).map(({ key }) => key);
const stuck = (why: string) => expect.objectContaining({ code: "store-stuck", facts: { why } });

describe("a disk that takes no more", () => {
  it("full: nothing acknowledged is lost, the rest is refused as such, and with room again it goes on", async () => {
    await database.close();
    // SQLite's own limit says what a full disk says: SQLITE_FULL.
    const limit = tellConnections("PRAGMA max_page_count=1;");
    database = await openDatabase(folder);
    const acknowledged: string[] = [];
    let refused: unknown = null;
    for (let i = 0; refused === null && i < 100; i++)
      await database.models.settings.create(setting(`s${i}`, 9000)).then(
        () => acknowledged.push(`s${i}`),
        (error: unknown) => {
          refused = error;
        },
      );
    expect(refused).toEqual(stuck("full"));
    expect(await database.findFault()).toBe("full");
    await expect(database.models.settings.create(setting("more", 9000))).rejects.toEqual(stuck("full"));
    expect(await list()).toEqual(acknowledged);
    limit.mockRestore();
    expect(await database.findFault()).toBeNull();
    await database.models.settings.create(setting("after", 9000));
    await database.close();
    database = await openDatabase(folder);
    expect(await list()).toEqual([...acknowledged, "after"]);
  });

  it("read-only: what is there can be read", async () => {
    await database.models.settings.create(setting("kept"));
    await database.close();
    const limit = tellConnections("PRAGMA query_only=ON;");
    database = await openDatabase(folder);
    await expect(database.models.settings.create(setting("more"))).rejects.toEqual(stuck("read-only"));
    expect(await database.findFault()).toBe("read-only");
    expect(await list()).toEqual(["kept"]);
    limit.mockRestore();
    expect(await database.findFault()).toBeNull();
    await database.models.settings.create(setting("more"));
  });

  it("gone: nothing is written into a file that nobody finds again; it goes on where the folder is back", async () => {
    await database.models.settings.create(setting("kept"));
    renameSync(folder, join(root, "elsewhere"));
    await expect(database.models.settings.create(setting("lost"))).rejects.toEqual(stuck("gone"));
    expect(await database.findFault()).toBe("gone");
    expect(database.measureDisk()).toBeNull();
    // Another store in its place is not this one.
    await (await openDatabase(folder)).close();
    await expect(database.models.settings.create(setting("lost"))).rejects.toEqual(stuck("gone"));
    rmSync(folder, { recursive: true });
    renameSync(join(root, "elsewhere"), folder);
    await database.models.settings.create(setting("back"));
    expect(await database.findFault()).toBeNull();
    expect(await list()).toEqual(["kept", "back"]);
  });
});

it("only what the disk is to blame for is its fault", () => {
  expect(findFaultOf({ original: { code: "SQLITE_IOERR" } })).toBe("faulty");
  expect(findFaultOf({ parent: { code: "SQLITE_CANTOPEN" } })).toBe("gone");
  expect(findFaultOf({ code: "SQLITE_CONSTRAINT" })).toBeNull();
  expect(findFaultOf(new Error("no"))).toBeNull();
  expect(findFaultOf(undefined)).toBeNull();
});

it("over HTTP: whoever has a right to read comes in and goes, also with a second factor, whose code is used up", async () => {
  let nowMs = Date.now();
  const store = await openTestStore({ nowMs: () => nowMs });
  const { secret } = (
    await (await store.signIn("tobin")).send("POST", "/api/second-factor", { password: "slack-water" })
  ).body;
  const codeNow = () => new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: nowMs });
  const tobin = await store.signIn("tobin");
  expect((await tobin.send("PUT", "/api/second-factor", { code: codeNow() })).status).toBe(200);
  const nessa = await store.signIn("nessa");
  const [main] = await readQuery<{ file: string }>(
    store.database.models.boats,
    "SELECT file FROM pragma_database_list",
  );
  const there = dirname(main!.file);
  const sign = (login: string, more: object = {}) =>
    store.stranger.send("POST", "/api/sign-in", { login, password: "slack-water", ...more });
  renameSync(there, `${there}-away`);
  nowMs += 60_000;
  expect((await sign("ines", { password: "a guess" })).body.error.code).toBe("wrong-sign-in");
  const answer = await sign("ines");
  const ines = store.withCookie(answer.headers.get("set-cookie")!.split(";")[0]!);
  expect([answer.status, (await ines.get("/api/today")).status]).toEqual([200, 200]);
  expect((await sign("tobin")).body.error.code).toBe("second-needed");
  expect((await sign("tobin", { code: codeNow() })).status).toBe(200);
  expect((await sign("tobin", { code: codeNow() })).body.error.code).not.toBeUndefined();
  expect((await nessa.send("POST", "/api/sign-out", {})).status).toBe(200);
  expect((await nessa.get("/api/me")).status).toBe(401);
  renameSync(`${there}-away`, there);
  expect((await sign("tobin", { code: codeNow() })).body.error.code).toBe("wrong-code");
  expect([(await nessa.get("/api/me")).status, (await ines.get("/api/me")).status]).toEqual([401, 200]);
  expect((await ines.send("POST", "/api/sign-out", {})).status).toBe(200);
  expect((await ines.get("/api/me")).status).toBe(401);
  await store.stop();
});

it("over HTTP: health says so, reading goes on for whoever is signed in, a write is refused in words, and then taken", async () => {
  const store = await openTestStore();
  const nessa = await store.signIn("nessa");
  const [main] = await readQuery<{ file: string }>(
    store.database.models.boats,
    "SELECT file FROM pragma_database_list",
  );
  const there = dirname(main!.file);
  const mark = {
    id: ulid(),
    delivery: "d-w118",
    at: new Date().toISOString(),
    by: "nessa",
    device: "tablet-1",
    kind: "mark",
    topic: "horn",
    mark: "told",
    person: null,
    spentS: 3,
  };
  const send = () => nessa.send("POST", "/api/deliveries/d-w118/entries", { entries: [mark] });
  renameSync(there, `${there}-away`);
  expect(await send()).toMatchObject({ status: 503, body: { error: { code: "store-stuck", why: "gone" } } });
  const health = await store.stranger.get("/api/health");
  expect([health.status, health.body.ready, health.body.database.fault]).toEqual([503, false, "gone"]);
  expect((await nessa.get("/api/deliveries/d-w118")).status).toBe(200);
  renameSync(`${there}-away`, there);
  expect((await send()).body.stored).toEqual([mark.id]);
  expect((await store.stranger.get("/api/health")).body.ready).toBe(true);
  await store.stop();
});
