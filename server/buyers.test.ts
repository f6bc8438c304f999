import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync } from "node:zlib";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Delivery } from "../api/index.ts";
import { addDays } from "../core/dates/index.ts";
import { hashBytes } from "../core/hash/index.ts";
import { verifyBundle } from "../core/record/index.ts";
import { createPhotoId, type Entry } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { createClock } from "./clock.ts";
import { createServices } from "./createServices.ts";
import { openDatabase } from "./database/open.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";
import { hashText } from "./repositories/chain.ts";
import { hashBytes as hashBuffer } from "./services/bundleFile.ts";
import { namesThem } from "./services/strikeService.ts";
import { verifyStore } from "./verifyStore.ts";
import { readZip } from "./zip.ts";

let store: TestStore;
let nessa: Caller;
let odile: Caller;
beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  odile = await store.signIn("odile");
});
afterAll(() => store.stop());

let boats = 0;
const name = "Bartholomea Quillon-Vey";
const entry = (delivery: string, more: object, by = "nessa") => ({
  id: ulid(),
  delivery,
  at: new Date().toISOString(),
  by,
  device: "tablet-1",
  ...more,
});
const post = (delivery: string, entries: readonly object[], who = nessa) =>
  who.send("POST", `/api/deliveries/${delivery}/entries`, { entries });
const read = async (delivery: string) => (await nessa.get(`/api/deliveries/${delivery}`)).body as unknown as Delivery;

interface Made {
  readonly boat: string;
  readonly delivery: string;
  readonly photo: string;
}
/** A sealed handover with all that may name its buyer: photo, notes, contact, messages, a call back. */
async function makeHandover(buyers: string[], isSealed = true): Promise<Made> {
  const hull = `SLW2490${++boats}K526`;
  const { boat } = (await odile.send("POST", "/api/boats", { name: `Wending ${boats}`, hull, template: "wending-23" }))
    .body;
  const date = store.services.clock.today();
  const booked = { boat, date, time: "10:00", buyers, note: `${buyers[0]} comes with her dog` };
  const { delivery } = (await odile.send("POST", "/api/deliveries", booked)).body;
  const contact = { name: "", phone: "555 0199", email: "quillon@example.com", optOut: false };
  expect((await odile.send("PUT", `/api/boats/${boat}/contact`, contact)).status).toBe(200);
  await post(delivery, [entry(delivery, { kind: "allow", reason: "Made ready at the dock" }, "odile")], odile);
  const bytes = await sharp({
    create: { width: 30, height: 20, channels: 3, background: `hsl(${boats * 40} 80% 50%)` },
  })
    .jpeg()
    .toBuffer();
  const photo = createPhotoId(hashBytes(bytes), "staff");
  await store.sendFile(nessa, `/api/photos/${photo}`, bytes);
  await post(delivery, [entry(delivery, { kind: "photo", photo, topic: null, ref: null })]);
  if (isSealed) {
    const tale = tellWalk(await read(delivery), {
      by: "nessa",
      startMs: Date.now() - 8 * 3_600_000,
      seed: 3,
      hours: { port: 0.9, starboard: 0.8 },
      isSigned: true,
    });
    expect(
      (
        await post(
          delivery,
          tale.map((each) => ({ ...each, device: "tablet-1" })),
        )
      ).status,
    ).toBe(200);
    expect((await read(delivery)).seal).not.toBeNull();
    const added = await post(delivery, [
      entry(delivery, { kind: "amend", note: "Quillon-Vey rang about the spare key" }),
      entry(delivery, {
        kind: "snag",
        topic: null,
        how: "by-date",
        due: addDays(date, 30),
        stops: false,
        note: `${buyers[0]} saw a scratch`,
      }),
    ]);
    expect(added.body).toMatchObject({ stored: expect.any(Array) });
  }
  await odile.send("POST", `/api/boats/${boat}/messages`, {
    id: ulid(),
    kind: "note",
    text: `Dear ${buyers[0]}`,
    withLink: false,
  });
  await nessa.send("POST", `/api/deliveries/${delivery}/link`, { isRemote: false });
  return { boat, delivery, photo };
}
const pathOf = ({ delivery }: Made, person = "b1") => `/api/deliveries/${delivery}/buyers/${person}`;
const forget = (made: Made, change: object = {}, who = odile) =>
  who.send("POST", `${pathOf(made)}/forget`, {
    deliveries: [made.delivery],
    photos: true,
    contact: true,
    reason: "Asked in writing",
    ...change,
  });
const verify = () =>
  store.readExpected().then((expected) => verifyStore({ ...store.services, hashBytes: hashBuffer }, expected));
/** Where in the whole database a word still stands, by table. */
async function findWord(word: string): Promise<string[]> {
  const { models } = store.database;
  const found: string[] = [];
  for (const model of Object.values(models)) {
    const rows = (await (model as typeof models.boats).findAll({ raw: true })) as unknown as object[];
    if (JSON.stringify(rows).includes(word)) found.push(String(model.getTableName()));
  }
  return found;
}

describe("a buyer", () => {
  it("stands in one sheet with all that is held of them, and is taken along as a file that verifies", async () => {
    const made = await makeHandover([name, "Ana Anselm"]);
    expect((await nessa.get(pathOf(made))).status).toBe(403);
    const { body } = await odile.get(pathOf(made));
    expect(body).toMatchObject({
      name,
      handovers: [{ delivery: made.delivery, others: ["Ana Anselm"], seal: "salted", photos: 1 }],
      boats: [{ boat: made.boat, isTheirs: true, phone: "555 0199", email: "quillon@example.com" }],
      messages: 1,
    });
    expect(body.handovers[0].entries).toBeGreaterThan(1);
    const paper = {
      id: "paper-1",
      type: "application/pdf" as const,
      sha256: "0",
      bytes: Buffer.from("%PDF"),
      at: "2026-06-01T10:00:00Z" as never,
      by: "ines",
    };
    await store.database.models.files.create(paper);
    const done = {
      id: ulid(),
      boatId: made.boat,
      engine: "port",
      item: "first-service",
      date: store.services.clock.today(),
      hours: 1,
    };
    await store.database.models.services.create({
      ...{
        ...done,
        by: "ines",
        outcome: "done",
        note: "",
        photo: null,
        priceCents: null,
        parts: "",
        labourH: null,
        mechanic: "",
      },
      ...{ file: paper.id, fileName: "../Invoice 12.pdf" },
    });
    const answer = await fetch(`${store.address}${pathOf(made)}/data.zip`, { headers: { cookie: odile.cookie } });
    const files = await readZip(Buffer.from(await answer.arrayBuffer()), () => true);
    expect([...files.keys()].toSorted()).toEqual(
      [
        "buyer.json",
        `handovers/${made.delivery}.json`,
        "papers/paper-1-..-Invoice-12.pdf",
        `photos/${made.photo}.jpg`,
      ].toSorted(),
    );
    const sheet = JSON.parse(files.get("buyer.json")!.toString("utf8"));
    expect(sheet).toMatchObject({
      format: "ravik.buyer/1",
      name,
      boats: [{ contact: { phone: "555 0199" } }],
      messages: [{ text: `Dear ${name}` }],
    });
    const bundle = JSON.parse(files.get(`handovers/${made.delivery}.json`)!.toString("utf8"));
    expect(verifyBundle(bundle, hashText).isIntact).toBe(true);
  });

  it("is forgotten everywhere at once; the record says so, and the whole chain still verifies", async () => {
    const who = "Isidore Pemberly-Strand";
    const first = await makeHandover([who]);
    const second = await makeHandover([` ${who.toUpperCase()} `, "Ana Anselm"]);
    const open = await makeHandover([who], false);
    expect((await forget(first, {}, nessa)).status).toBe(403);
    expect((await forget(first, { deliveries: ["d-w097"] })).status).toBe(404);
    expect((await forget(first, { reason: " " })).status).toBe(422);
    const before = await verify();
    expect(before.faults).toEqual([]);
    const answer = await forget(first, { deliveries: [first, second, open].map(({ delivery }) => delivery) });
    expect(answer.body).toMatchObject({ handovers: 3, messages: 3 });
    // What was handed over stays, and where it names them the owner is told.
    const left = answer.body.stillNamed.map(({ text }: { text: string }) => text.toLowerCase().replace(/\s+/g, " "));
    expect(left).toEqual(Array(2).fill(`${who} saw a scratch`.toLowerCase()));
    const verdict = await verify();
    expect(verdict.faults).toEqual([]);
    expect(verdict.links).toBe(before.links + 2);
    const after = await read(second.delivery);
    expect(after.buyers.map((buyer) => buyer.name)).toEqual(["(struck)", "Ana Anselm"]);
    expect(after.strikes).toMatchObject([{ by: "odile", reason: "Asked in writing", people: 1, photos: 1 }]);
    expect((await read(open.delivery)).note).toBe("");
    expect((await nessa.get(`/api/photos/${first.photo}`)).status).toBe(404);
    const bundle = (await nessa.get(`/api/deliveries/${first.delivery}/bundle.json`)).body;
    expect(verifyBundle(bundle, hashText)).toMatchObject({ isIntact: true });
    expect((await nessa.get(`/api/deliveries/${first.delivery}/record.pdf`)).status).toBe(200);
    const { contact } = (await odile.get(`/api/boats/${first.boat}/care`)).body;
    expect(contact ?? {}).not.toMatchObject({ phone: "555 0199" });
    // In no table but where a snag says what was handed over.
    expect(await findWord("Isidore")).toEqual(["deliveries", "entries"]);
    expect(await findWord("SIDORE PEMBERLY")).toEqual(["deliveries", "entries"]);
    expect((await odile.get(pathOf(first))).status).toBe(404);
    // What is struck is struck once; a note that says "(struck)" is a note.
    await post(first.delivery, [entry(first.delivery, { kind: "amend", note: "(struck)" })]);
    expect((await read(first.delivery)).strikes).toHaveLength(1);
    await expect(
      store.database.models.chain.sequelize!.query(
        `UPDATE entries SET body = '{}' WHERE deliveryId = '${first.delivery}'`,
      ),
    ).rejects.toThrow();
  });

  it("keeps what is not theirs: a namesake's other handover, the boat that somebody else has now, the other buyer's phone", async () => {
    const who = "Lothar Venn";
    const mine = await makeHandover([who, "Ana Anselm"]);
    const namesake = await makeHandover([who]);
    await forget(mine, { contact: false, photos: false });
    expect((await read(namesake.delivery)).buyers[0]!.name).toBe(who);
    expect((await nessa.get(`/api/photos/${mine.photo}`)).status).toBe(200);
    const boat = await store.services.boats.find(mine.boat);
    expect(JSON.parse(boat!.contact).phone).toBe("555 0199");
    // Resold: how its new people are reached is no data of the one before.
    const resold = {
      boat: namesake.boat,
      date: addDays(store.services.clock.today(), 1),
      time: "10:00",
      buyers: ["Ida Moor"],
      note: "",
    };
    await odile.send("POST", "/api/deliveries", resold);
    expect((await odile.get(pathOf(namesake))).body.boats).toMatchObject([{ isTheirs: false, phone: "" }]);
    await forget(namesake);
    expect(JSON.parse((await store.services.boats.find(namesake.boat))!.contact).phone).toBe("555 0199");
  });

  it("is not written into the log by a change of how they are reached", async () => {
    await makeHandover(["Petra Gorsewick"]);
    const { body } = await odile.get("/api/audit?find=boat");
    expect(JSON.stringify(body)).not.toContain("555 0199");
  });
});

it("a name is found in words alone, whole or the last of it, and a short one is a word like any other", () => {
  const call = (note: string, topic = "horn") =>
    ({ kind: "call", topic, note, id: "x", by: "nessa" }) as unknown as Entry;
  expect(namesThem(call("They rang"), "Horn")).toBe(false);
  expect(namesThem(call("mrs horn rang"), "Horn")).toBe(true);
  expect(namesThem(call("The hornet is back"), "Horn")).toBe(false);
  expect(namesThem(call("Venn's key"), "Lothar Venn")).toBe(true);
  expect(namesThem(call("LOTHAR  VENN rang"), "Lothar Venn")).toBe(true);
  expect(namesThem(call("A Bay of reeds"), "Ana Bay")).toBe(false);
});

it("a record of the first format says that its seal can no longer be recomputed, and what stays still fits", async () => {
  const folder = mkdtempSync(join(tmpdir(), "ravik-first-"));
  writeFileSync(
    join(folder, "ravik.sqlite"),
    gunzipSync(readFileSync(new URL("./golden/store-6.sqlite.gz", import.meta.url))),
  );
  const database = await openDatabase(folder);
  const services = createServices(database, createClock("UTC"), null);
  const id = "d-g001";
  const { buyers, seal } = await services.handoverService.describe(id);
  const [buyer] = buyers;
  const old = await services.bundleService.writeBundle(id);
  const sheet = await services.buyerService.read(id, buyer!.id);
  expect(sheet.handovers.find(({ delivery }) => delivery === id)).toMatchObject({ seal: "first" });
  await services.buyerService.forget(id, buyer!.id, "odile", {
    deliveries: [id],
    photos: true,
    contact: true,
    reason: "Asked in writing",
  });
  const after = await services.handoverService.describe(id);
  expect(after.seal?.sha256).toBe(seal!.sha256);
  expect(after.buyers[0]!.name).toBe("(struck)");
  const bundle = await services.bundleService.writeBundle(id);
  expect(JSON.stringify(bundle)).not.toContain(buyer!.name);
  const verified = await services.bundleService.verify(JSON.parse(JSON.stringify(bundle)));
  expect(verified).toMatchObject({ isIntact: true, differences: [], cannotRecompute: true, known: { number: 1 } });
  // The file that went out before is still what was sealed.
  expect(await services.bundleService.verify(old)).toMatchObject({ isIntact: true });
  // What stays is held by its digest: one letter changed is found.
  const forged = JSON.parse(JSON.stringify(bundle));
  const mark = forged.handover.entries.find(({ kind }: { kind: string }) => kind === "mark");
  mark.spentS += 1;
  expect(verifyBundle(forged, hashText).differences).toMatchObject([{ code: "entry-changed", entry: mark.id }]);
  const verdict = await verifyStore({ ...services, hashBytes: hashBuffer }, { heads: null, key: null, isOlder: true });
  expect(verdict).toMatchObject({ isIntact: true, struck: [id] });
  await database.close();
  rmSync(folder, { recursive: true, force: true });
});

describe("how long what is kept", () => {
  it("is for good until the owner says otherwise; then old words and old lines go, and no buyer by itself", async () => {
    const { models } = store.database;
    const { retentionService } = store.services;
    expect(await retentionService.keepRules()).toEqual({ messages: 0, logLines: 0 });
    const old = "2019-05-01T10:00:00.000Z" as never;
    const [any] = (await models.messages.findAll({ raw: true, limit: 1 })) as unknown as { boatId: string }[];
    const message = {
      id: "old-one",
      deliveryId: null,
      recipient: "Dov",
      text: "Dear Dov",
      at: old,
      state: "sent",
      boatId: any!.boatId,
      kind: "note",
      answer: "yes",
    };
    await models.messages.create(message);
    await models.audit.create({ at: old, by: "odile", name: "Odile", kind: "settings", what: "Change", about: "old" });
    await expect(models.audit.destroy({ where: { at: old } })).rejects.toThrow();
    expect((await nessa.get("/api/retention")).status).toBe(403);
    expect(
      (await odile.send("PUT", "/api/retention", { messagesMonths: 0, logMonths: 1, buyersYears: null })).status,
    ).toBe(422);
    const rules = { messagesMonths: 24, logMonths: 36, buyersYears: 2 };
    expect((await odile.send("PUT", "/api/retention", rules)).status).toBe(200);
    expect(await retentionService.keepRules()).toEqual({ messages: 1, logLines: 1 });
    expect(await models.messages.findByPk("old-one", { raw: true })).toMatchObject({
      text: "(struck)",
      recipient: "(struck)",
      answer: null,
      state: "sent",
    });
    expect(await retentionService.keepRules()).toEqual({ messages: 0, logLines: 0 });
    // Newer lines are as safe as ever.
    await expect(models.audit.destroy({ where: {} })).rejects.toThrow();
  });

  it("puts buyers before the owner of whom nothing was heard, and nobody else", async () => {
    const { models } = store.database;
    const silent = await makeHandover(["Ottoline Brack"], false);
    const heard = await makeHandover(["Ruan Estey"], false);
    for (const { delivery } of [silent, heard])
      await models.deliveries.update({ date: "2020-06-01" }, { where: { id: delivery } });
    await models.messages.update({ at: "2020-07-01T00:00:00.000Z" as never }, { where: { boatId: silent.boat } });
    const { body } = await odile.get("/api/retention");
    const names = body.quiet.map((each: { name: string }) => each.name);
    expect(names).toContain("Ottoline Brack");
    expect(names).not.toContain("Ruan Estey");
    expect(body.quiet.find((each: { name: string }) => each.name === "Ottoline Brack")).toMatchObject({
      delivery: silent.delivery,
      person: "b1",
      date: "2020-06-01",
    });
  });
});
