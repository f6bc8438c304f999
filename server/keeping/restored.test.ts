import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { RestoredSheet } from "../../api/index.ts";
import { hashBytes } from "../../core/hash/index.ts";
import { createPhotoId } from "../../core/walk/index.ts";
import { readQuery } from "../database/rows.ts";
import { type Caller, openTestStore, type TestStore } from "../openTestStore.ts";
import { backUp, restore } from "./backup.ts";

/** A store, and the same put back from a backup after its folder was deleted. */
let before: TestStore;
let after: TestStore;
const folder = mkdtempSync(join(tmpdir(), "ravik-restored-"));
let nessa: Caller;
let odile: Caller;
/** Made after the backup; and a photo that was in it. */
let lost: { id: string } & Record<string, unknown>;
let keptPhoto: string;

const entry = (more: object, by = "nessa") => ({
  id: ulid(),
  delivery: "d-w118",
  at: new Date().toISOString(),
  by,
  device: "tablet-1",
  ...more,
});
const post = (who: Caller, entries: object[]) => who.send("POST", "/api/deliveries/d-w118/entries", { entries });
async function takePhoto(store: TestStore, who: Caller, background: string) {
  const bytes = await sharp({ create: { width: 40, height: 30, channels: 3, background } })
    .jpeg()
    .toBuffer();
  const photo = createPhotoId(hashBytes(bytes), "staff");
  expect((await store.sendFile(who, `/api/photos/${photo}`, bytes)).status).toBe(200);
  return photo;
}
const photoEntry = (photo: string) => entry({ kind: "photo", photo, topic: "horn", ref: null });

beforeAll(async () => {
  before = await openTestStore();
  const there = await before.signIn("nessa");
  keptPhoto = await takePhoto(before, there, "#102030");
  await post(there, [photoEntry(keptPhoto)]);
  const [main] = await readQuery<{ file: string }>(
    before.database.models.boats,
    "SELECT file FROM pragma_database_list",
  );
  const now = before.services.clock.now();
  const basis = { now, timeZone: "UTC", passphrase: null };
  const { name } = await backUp({
    ...basis,
    dataFolder: dirname(main!.file),
    to: join(folder, "backups"),
    leftFree: 0,
  });
  const gone = await takePhoto(before, there, "#302010");
  lost = photoEntry(gone);
  expect((await post(there, [lost])).body.stored).toEqual([lost.id]);
  // The data folder goes, and with it all that is not in the backup.
  await before.stop();
  const dataFolder = join(folder, "store");
  mkdirSync(dataFolder);
  await restore({ ...basis, backup: join(folder, "backups", name), dataFolder, isOver: false });
  after = await openTestStore({ dataFolder });
  nessa = await after.signIn("nessa");
  odile = await after.signIn("odile");
});
afterAll(async () => {
  await after.stop();
  rmSync(folder, { recursive: true, force: true });
});

const readSheet = async () => (await odile.get("/api/restored")).body.restored as RestoredSheet;

it("is of another epoch, which every device sees; one that was never put back has nothing to say", async () => {
  const { body } = await after.stranger.get("/api/clock");
  expect(body.epoch).toMatch(/^[0-9A-Z]{26}$/);
  const other = await openTestStore();
  expect((await other.stranger.get("/api/clock")).body.epoch).toBe("first");
  const owner = await other.signIn("odile");
  expect((await owner.get("/api/restored")).body).toEqual({ restored: null });
  expect((await owner.send("POST", "/api/restored", { due: "do" })).status).toBe(404);
  await other.stop();
});

it("holds its photos, takes again what a device still holds, and lists the photo that no device has", async () => {
  expect((await nessa.get(`/api/photos/${keptPhoto}`)).status).toBe(200);
  expect((await readSheet()).missingPhotos).toEqual([]);
  const { body } = await nessa.send("POST", "/api/entries/missing", { ids: [lost.id, ulid()] });
  expect(body.missing).toContain(lost.id);
  expect((await post(nessa, [lost])).body.stored).toEqual([lost.id]);
  expect((await nessa.send("POST", "/api/entries/missing", { ids: [lost.id] })).body.missing).toEqual([]);
  expect((await readSheet()).missingPhotos).toMatchObject([
    { photo: lost.photo, delivery: "d-w118", topic: "horn", by: "Nessa Quill" },
  ]);
  await post(nessa, [entry({ kind: "undo", ref: lost.id })]);
  expect((await readSheet()).missingPhotos).toEqual([]);
});

it("does nothing by itself and sends nothing before its owner lets it", async () => {
  const { models } = after.database;
  const boatId = "w097";
  await models.jobs.create({
    id: "hello:w097:x",
    kind: "hello",
    boatId,
    dueAtMs: 1,
    state: "waiting",
    tries: 0,
    note: "",
    doneAt: null,
  });
  expect(await after.services.jobs.tick()).toBe(0);
  const ines = await after.signIn("ines");
  const written = { id: ulid(), kind: "note", text: "Your boat is ready.", withLink: false };
  expect((await ines.send("POST", `/api/boats/${boatId}/messages`, written)).body).toMatchObject({ state: "waiting" });
  const link = { isRemote: false, send: true };
  await nessa.send("POST", "/api/deliveries/d-w097/link", link);
  await after.services.aftercareService.carryOn();
  const states = (await models.messages.findAll({ where: { boatId }, raw: true })) as unknown as {
    id: string;
    kind: string;
    state: string;
    text: string;
  }[];
  expect(states.find(({ id }) => id === written.id)?.state).toBe("waiting");
  // What opens a page is made when it goes, and kept nowhere.
  expect(states.find(({ kind, state }) => kind === "link" && state === "waiting")?.text).toContain("{link}");
  const sheet = await readSheet();
  expect(sheet).toMatchObject({
    released: null,
    jobs: [{ id: "hello:w097:x", boat: boatId }],
    messages: { waiting: 2 },
  });
  expect((await nessa.get("/api/me")).body.isHeld).toBe(true);
  expect((await odile.get("/api/today")).body.course.isHeld).toBe(true);

  const released = await odile.send("POST", "/api/restored", { due: "leave-out" });
  expect(released.body.restored).toMatchObject({ released: { by: "Odile Pellow" }, jobs: [] });
  expect((await models.jobs.findByPk("hello:w097:x", { raw: true })) as unknown as object).toMatchObject({
    state: "done",
    note: "left out after the restore",
  });
  expect((await nessa.get("/api/me")).body.isHeld).toBe(false);
  expect((await odile.send("POST", "/api/restored", { due: "do" })).status).toBe(404);
});
