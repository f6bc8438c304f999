import { mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { Delivery, RestoredSheet } from "../../api/index.ts";
import { hashBytes } from "../../core/hash/index.ts";
import { createPhotoId } from "../../core/walk/index.ts";
import { tellWalk } from "../../demo/walkEntries.ts";
import { readQuery } from "../database/rows.ts";
import { type Caller, openTestStore, type TestStore } from "../openTestStore.ts";
import { hashBytes as hashBuffer } from "../services/bundleFile.ts";
import { verifyStore } from "../verifyStore.ts";
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
/** A handover that was booked before the backup, and walked and sealed after it. */
let closed: string;
let walked: object[];

const entry = (more: object, by = "nessa") => ({
  id: ulid(),
  delivery: "d-w118",
  at: new Date().toISOString(),
  by,
  device: "tablet-1",
  ...more,
});
const post = (who: Caller, entries: object[], delivery = "d-w118") =>
  who.send("POST", `/api/deliveries/${delivery}/entries`, { entries });
const readDelivery = async (who: Caller) => (await who.get(`/api/deliveries/${closed}`)).body as unknown as Delivery;
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
  const owner = await before.signIn("odile");
  const boat = { name: "Wending 23", hull: "SLW24911K526", template: "wending-23" };
  const made = (await owner.send("POST", "/api/boats", boat)).body.boat;
  const booked = { boat: made, date: before.services.clock.today(), time: "10:00", buyers: ["Dov Anselm"], note: "" };
  closed = (await owner.send("POST", "/api/deliveries", booked)).body.delivery;
  await post(owner, [{ ...entry({ kind: "allow", reason: "Made ready" }, "odile"), delivery: closed }], closed);
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
  const shown = await takePhoto(before, there, "#203010");
  await post(there, [{ ...photoEntry(shown), delivery: closed }], closed);
  const tale = { by: "nessa", startMs: Date.now() - 8 * 3_600_000, seed: 3, hours: { port: 0.9, starboard: 0.8 } };
  const told = tellWalk(await readDelivery(there), { ...tale, isSigned: true });
  await post(
    there,
    told.map((each) => ({ ...each, device: "tablet-1" })),
    closed,
  );
  expect((await readDelivery(there)).seal).not.toBeNull();
  walked = (await readDelivery(there)).entries.filter(({ by }) => by === "nessa");
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

it("seals again what was sealed after the backup; a photo that nobody has any more is waited for until it is given up", async () => {
  expect((await post(nessa, walked, closed)).body.stored).toHaveLength(walked.length);
  expect((await readDelivery(nessa)).seal).toBeNull();
  expect((await readSheet()).missingPhotos).toMatchObject([{ delivery: closed }]);
  expect((await nessa.send("POST", "/api/restored/photos", {})).status).toBe(403);
  expect((await odile.send("POST", "/api/restored/photos", {})).body.restored.missingPhotos).toEqual([]);
  const { seal, added, entries } = await readDelivery(nessa);
  expect(seal).not.toBeNull();
  const notes = entries.flatMap((each) => (added.includes(each.id) && each.kind === "amend" ? [each.note] : []));
  expect(notes).toEqual(["One photo was lost when the store was put back from a backup."]);
  expect((await verifyStore({ ...after.services, hashBytes: hashBuffer }, await after.readExpected())).faults).toEqual(
    [],
  );
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
