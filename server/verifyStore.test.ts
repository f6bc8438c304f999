import { createHash } from "node:crypto";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { isSignedWith } from "../core/signature/index.ts";
import { createPhotoId } from "../core/walk/index.ts";
import { createServices } from "./createServices.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";
import { isHeadSigned, readHeads } from "./sealHeads.ts";
import { createStoreKey, openStoreKey, readPublicKey } from "./storeKey.ts";
import { type Expected, verifyStore } from "./verifyStore.ts";

const hashBytes = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");
let store: TestStore;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "ravik-verify-"));
  store = await openTestStore();
  const nessa = await store.signIn("nessa");
  const jpeg = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#0f3d4c" } })
    .jpeg()
    .toBuffer();
  const sha256 = hashBytes(jpeg);
  const photo = createPhotoId(sha256, "staff");
  const head = { id: ulid(), delivery: "d-w097", at: toInstant(Date.now()), by: "nessa", device: "t" };
  await nessa.send("POST", "/api/deliveries/d-w097/entries", {
    entries: [{ ...head, kind: "photo", photo, sha256, topic: null, ref: null }],
  });
  await store.sendFile(nessa, `/api/photos/${photo}`, jpeg);
});
afterAll(async () => {
  await store.stop();
  rmSync(folder, { recursive: true, force: true });
});

const verify = async (change: Partial<Expected> = {}) =>
  verifyStore({ ...store.services, hashBytes }, { ...(await store.readExpected()), ...change });
const sql = (text: string) => store.database.models.chain.sequelize!.query(text);
/** One change made behind the guards, looked at, and made good again. */
async function tampered(guard: string, change: string, undo: string): Promise<readonly string[]> {
  const [[kept]] = (await sql(`SELECT sql FROM sqlite_master WHERE name = '${guard}'`)) as [[{ sql: string }], unknown];
  await sql(`DROP TRIGGER ${guard}`);
  await sql(change);
  const { isIntact, faults } = await verify();
  await sql(undo);
  await sql(kept.sql);
  expect(isIntact).toBe(false);
  return faults;
}

describe("the whole store", () => {
  it("is walked from the first link to the last: seals, entries, photos, additions, signatures", async () => {
    const verdict = await verify();
    expect(verdict).toMatchObject({ isIntact: true, faults: [], photos: 1 });
    expect(verdict.links).toBeGreaterThan(verdict.handovers);
    expect(verdict.head).toMatchObject({ number: verdict.links });
  });

  it.each<[string, string, string, string, RegExp]>([
    [
      "an entry reworded",
      "entries_kept",
      "UPDATE entries SET body = replace(body, 'Port trim gauge reads low', 'All was well') WHERE deliveryId = 'd-w097'",
      "UPDATE entries SET body = replace(body, 'All was well', 'Port trim gauge reads low') WHERE deliveryId = 'd-w097'",
      /handover d-w097: entry .* \(snag\)/,
    ],
    [
      "a photo exchanged",
      "photos_kept",
      "UPDATE photos SET large = x'ffd8'",
      "UPDATE photos SET large = (SELECT large FROM keptPhotos k WHERE k.id = photos.id)",
      /photo .* is not the one that was sealed/,
    ],
    [
      "a link changed",
      "chain_kept",
      "UPDATE chain SET at = at, canonical = replace(canonical, 'd-w081', 'd-w082') WHERE deliveryId = 'd-w081'",
      "UPDATE chain SET canonical = replace(canonical, 'd-w082', 'd-w081') WHERE deliveryId = 'd-w081'",
      /link \d+ \(d-w081\) is not what was sealed/,
    ],
    [
      "a signature changed",
      "chain_kept",
      "UPDATE chain SET signature = replace(signature, 'a', 'b') WHERE number = 1",
      "UPDATE chain SET signature = (SELECT signature FROM kept) WHERE number = 1",
      /link 1 .* signature/,
    ],
  ])("says what of it is not as it was: %s", async (_, guard, change, undo, says) => {
    await sql("CREATE TABLE IF NOT EXISTS keptPhotos AS SELECT id, large FROM photos");
    await sql("CREATE TABLE IF NOT EXISTS kept AS SELECT signature FROM chain WHERE number = 1");
    const faults = await tampered(guard, change, undo);
    expect(faults.join("\n")).toMatch(says);
    expect((await verify()).isIntact).toBe(true);
  });

  it("shows a tail that was cut off, a head that was changed, and heads that are gone or too short", async () => {
    const last = (await store.services.chain.findHead())!;
    const heads = (await store.readExpected()).heads!;
    const lines = heads.trim().split("\n");
    expect(lines).toHaveLength(last.number);
    expect(readHeads(heads).every(isHeadSigned)).toBe(true);
    const faultsOf = async (text: string | null) => (await verify({ heads: text })).faults;
    const cut = `${heads}2026-06-14 ${last.number + 1} ${"9".repeat(64)}\n`;
    expect(await faultsOf(cut)).toEqual([expect.stringContaining("its tail was cut off")]);
    const changed = heads.replace(last.link, "9".repeat(64));
    expect(await faultsOf(changed)).toEqual([expect.stringContaining("another than the chain has there")]);
    const [at, ...rest] = lines[3]!.split(" ");
    const forged = [...lines.slice(0, 3), [at!.replace(/^\d/, "1"), ...rest].join(" "), ...lines.slice(4)].join("\n");
    expect(await faultsOf(forged)).toEqual([expect.stringContaining("does not bear the signature of its key")]);
    expect(await faultsOf(null)).toEqual([expect.stringContaining("are not there")]);
    expect(await faultsOf(lines.slice(0, 5).join("\n"))).toEqual([expect.stringContaining("lines of them are gone")]);
    // A kill between the commit and its line leaves the last one unnoted.
    expect(await faultsOf(lines.slice(0, -1).join("\n"))).toEqual([]);
  });

  it("shows a chain that another key signed, whoever relinked it", async () => {
    const other = createStoreKey();
    expect((await verify({ key: other.publicKey })).faults).toEqual([expect.stringContaining("not with the store's")]);
    expect((await verify({ key: null })).faults).toEqual([expect.stringContaining("store-key.pub")]);
    const last = (await store.services.chain.findHead())!;
    const undo = `UPDATE chain SET key = '${last.key}', signature = '${last.signature}' WHERE number = ${last.number}`;
    const forged = `key = '${other.publicKey}', signature = '${other.sign(last.link)}'`;
    const faults = await tampered("chain_kept", `UPDATE chain SET ${forged} WHERE number = ${last.number}`, undo);
    expect(faults.join("\n")).toMatch(/signed with another key, and no link before it says so/);
    const bare = `UPDATE chain SET key = NULL, signature = NULL WHERE number = ${last.number}`;
    expect((await tampered("chain_kept", bare, undo)).join("\n")).toMatch(/signed by nobody/);
  });

  it.each([
    [
      "an entry beside the seal",
      "entries_whole",
      `INSERT INTO entries (id, deliveryId, body, receivedAt, number, via) SELECT '${ulid()}', deliveryId, body, receivedAt, 900000, via FROM entries WHERE deliveryId = 'd-w097' LIMIT 1`,
      "DELETE FROM entries WHERE number = 900000",
      /stands beside its seal/,
    ],
    [
      "a receipt",
      "entries_kept",
      "UPDATE entries SET via = 'remote' WHERE deliveryId = 'd-w097' AND number = (SELECT MIN(number) FROM entries WHERE deliveryId = 'd-w097')",
      "UPDATE entries SET via = 'staff' WHERE deliveryId = 'd-w097' AND via = 'remote'",
      /the receipt of entry .* is not what was sealed/,
    ],
    [
      "a buyer",
      null,
      "UPDATE deliveries SET buyers = replace(buyers, 'name\":\"', 'name\":\"X ') WHERE id = 'd-w097'",
      "UPDATE deliveries SET buyers = replace(buyers, 'name\":\"X ', 'name\":\"') WHERE id = 'd-w097'",
      /its buyers are not who was sealed/,
    ],
    [
      "its day",
      null,
      "UPDATE deliveries SET note = date, date = '2020-01-01' WHERE id = 'd-w097'",
      "UPDATE deliveries SET date = note, note = '' WHERE id = 'd-w097'",
      /its day is 2020-01-01/,
    ],
  ])("shows %s that stands beside it otherwise", async (_, guard, change, undo, says) => {
    const found = async () => {
      await sql(change);
      const { faults } = await verify();
      await sql(undo);
      return faults;
    };
    const faults = guard === null ? await found() : await tampered(guard, change, undo);
    expect(faults.join("\n")).toMatch(says);
    expect((await verify()).faults).toEqual([]);
  });
});

describe("the store's key", () => {
  it("is a file that only its owner reads, made once, beside the database", () => {
    const first = openStoreKey(folder);
    expect(openStoreKey(folder).publicKey).toBe(first.publicKey);
    expect(statSync(join(folder, "store-key.pem")).mode & 0o777).toBe(0o600);
    expect(readPublicKey(folder)).toBe(first.publicKey);
    expect(isSignedWith(first.publicKey, "x", first.sign("x"))).toBe(true);
  });

  it("that was changed stands in the chain as a link, whose signature covers all that came before", async () => {
    const storeKey = createStoreKey();
    const other = createServices(store.database, store.services.clock, null, { storeKey });
    const before = (await store.services.chain.findHead())!;
    await store.database.inTransaction((t) =>
      other.chain.add({ deliveryId: "d-w097", kind: "amendment", canonical: "{}", at: "2026-06-15T10:00:00.000Z" }, t),
    );
    const [change] = (await store.services.chain.listAll()).slice(-2);
    expect(change).toMatchObject({ kind: "key", key: storeKey.publicKey, previous: before.link });
    expect(JSON.parse(change!.canonical)).toMatchObject({ before: before.key, head: before.link });
    expect(isSignedWith(storeKey.publicKey, change!.link, change!.signature!)).toBe(true);
  });
});
