import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import { firstEpoch } from "../../api/epoch.ts";
import { toInstant } from "../../core/dates/index.ts";
import { readQuery } from "../database/rows.ts";
import { type Caller, openTestStore, type TestStore } from "../openTestStore.ts";
import { highWaterFile } from "./highWater.ts";
import { findDamage } from "./soundness.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-water-"));
/** A store and an older copy of it, under one key. */
let store: TestStore;
let older: TestStore;
let nessa: Caller;
beforeAll(async () => {
  store = await openTestStore();
  older = await openTestStore();
  nessa = await store.signIn("nessa");
});
afterAll(async () => {
  await store.stop();
  await older.stop();
  rmSync(folder, { recursive: true, force: true });
});

const note = () => ({ id: ulid(), delivery: "d-w118", at: toInstant(Date.now()), by: "nessa", device: "t" });
const post = async (who: Caller, more: object = {}) => {
  const entries = [{ ...note(), kind: "promise", note: "A cap", isExtra: false }];
  return (await who.send("POST", "/api/deliveries/d-w118/entries", { entries, ...more })).body;
};
const findEpoch = (of: TestStore) => of.services.epochs.find();

it("keeps a mark that is never ahead of what is on disk, and finds nothing wrong with a store that has it all", async () => {
  await store.services.highWater.open(folder);
  const before = JSON.parse(readFileSync(join(folder, highWaterFile), "utf8"));
  const { acknowledged } = await post(nessa);
  expect(acknowledged).toMatchObject({ epoch: firstEpoch, number: before.number + 1 });
  store.services.highWater.close();
  expect(JSON.parse(readFileSync(join(folder, highWaterFile), "utf8")).number).toBe(acknowledged.number);
  await store.services.highWater.open(folder);
  // A kill before it was written leaves less than there is.
  writeFileSync(join(folder, highWaterFile), JSON.stringify({ ...before, number: 1 }));
  await store.services.highWater.open(folder);
  writeFileSync(join(folder, highWaterFile), "{");
  await store.services.highWater.open(folder);
  expect(await findEpoch(store)).toBeNull();
  expect(await post(nessa, { acknowledged })).toMatchObject({ acknowledged: { epoch: firstEpoch } });
});

it("begins another epoch where a device holds the store's word for more than is here, and for nobody's word else", async () => {
  const { acknowledged } = await post(nessa);
  const other = await older.signIn("nessa");
  const forged = { ...acknowledged, number: acknowledged.number + 1000 };
  expect((await post(other, { acknowledged: forged })).acknowledged.epoch).toBe(firstEpoch);
  const elsewhere = { ...acknowledged, epoch: "another" };
  expect((await post(other, { acknowledged: elsewhere })).acknowledged.epoch).toBe(firstEpoch);
  expect(await findEpoch(older)).toBeNull();
  const told = await post(other, { acknowledged });
  const begun = (await findEpoch(older))!;
  expect(begun).toMatchObject({ why: "behind", released: null });
  expect(told.acknowledged.epoch).toBe(begun.id);
  // What was acknowledged in the epoch before says nothing of this one.
  await post(other, { acknowledged });
  expect((await findEpoch(older))!.id).toBe(begun.id);
  const odile = await older.signIn("odile");
  expect((await odile.get("/api/restored")).body.restored).toMatchObject({ why: "behind" });
  expect((await odile.get("/api/today")).body.course.isHeld).toBe(true);
});

it("begins another epoch where the folder's own mark is ahead of the database, once", async () => {
  const copy = await openTestStore();
  const place = mkdtempSync(join(folder, "copy-"));
  store.services.highWater.close();
  writeFileSync(join(place, highWaterFile), readFileSync(join(folder, highWaterFile)));
  await copy.services.highWater.open(place);
  const begun = (await findEpoch(copy))!;
  expect(begun.why).toBe("behind");
  await copy.services.highWater.open(place);
  expect((await findEpoch(copy))!.id).toBe(begun.id);
  await copy.stop();
});

it("says which page of a file is damaged", async () => {
  const [main] = await readQuery<{ file: string }>(
    store.database.models.boats,
    "SELECT file FROM pragma_database_list WHERE name = 'main'",
  );
  await store.database.models.boats.sequelize!.query("PRAGMA wal_checkpoint(TRUNCATE)");
  const bytes = readFileSync(main!.file);
  const file = join(folder, "page.sqlite");
  writeFileSync(file, bytes);
  expect(await findDamage(file)).toBeNull();
  const page = bytes.readUInt16BE(16);
  bytes.fill(0x5a, page * 20, page * 24);
  writeFileSync(file, bytes);
  expect(await findDamage(file)).not.toBeNull();
  await expect(findDamage(join(folder, "none.sqlite"))).rejects.toThrow();
});
