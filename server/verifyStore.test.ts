import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { isSignedWith } from "../core/record/index.ts";
import { createPhotoId } from "../core/walk/index.ts";
import { createServices } from "./createServices.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";
import { headsFile, keepHead, readHeads } from "./sealHeads.ts";
import { createStoreKey, openStoreKey } from "./storeKey.ts";
import { verifyStore } from "./verifyStore.ts";

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

const verify = () => verifyStore({ ...store.services, hashBytes }, folder);
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
    await keepHead(folder, store.services.chain, "2026-06-13");
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

  it("shows a tail that was cut off, by the head kept outside", async () => {
    const last = (await store.services.chain.findHead())!;
    writeFileSync(join(folder, headsFile), `2026-06-14 ${last.number + 1} ${"9".repeat(64)}\n`);
    expect((await verify()).faults).toEqual([expect.stringContaining("its tail was cut off")]);
  });

  it("keeps one head a day, and none while nothing was sealed", async () => {
    writeFileSync(join(folder, headsFile), "junk\n");
    for (const day of ["2026-06-13", "2026-06-13", "2026-06-14"] as const)
      await keepHead(folder, store.services.chain, day);
    const last = (await store.services.chain.findHead())!;
    expect(readHeads(readFileSync(join(folder, headsFile), "utf8"))).toEqual([
      { day: "2026-06-13", number: last.number, link: last.link },
    ]);
  });
});

describe("the store's key", () => {
  it("is a file that only its owner reads, made once, beside the database", () => {
    const first = openStoreKey(folder);
    expect(openStoreKey(folder).publicKey).toBe(first.publicKey);
    expect(statSync(join(folder, "store-key.pem")).mode & 0o777).toBe(0o600);
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
