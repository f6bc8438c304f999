import { createHash } from "node:crypto";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { addDays, toInstant } from "../core/dates/index.ts";
import { defaultPlanOptions } from "../core/route/index.ts";
import { createPhotoId } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let tobin: Caller;

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  tobin = await store.signIn("tobin");
});
afterAll(() => store.stop());

const entry = (change: object = {}) => ({
  id: ulid(),
  delivery: "d-w118",
  at: toInstant(Date.now()),
  by: "nessa",
  device: "tablet-1",
  kind: "mark",
  topic: "lanyard",
  mark: "did",
  person: null,
  spentS: 12,
  ...change,
});
const post = (who: Caller, entries: unknown[], delivery = "d-w118") =>
  who.send("POST", `/api/deliveries/${delivery}/entries`, { entries });
const countEntries = async (delivery: string) => (await nessa.get(`/api/deliveries/${delivery}`)).body.entries.length;

describe("entries", () => {
  it("are stored once however often they are sent", async () => {
    const one = entry();
    expect((await post(nessa, [one])).body).toMatchObject({ stored: [one.id], known: [] });
    expect((await post(nessa, [one])).body).toMatchObject({ stored: [], known: [one.id] });
    const twins = entry();
    const answers = await Promise.all([post(nessa, [twins]), post(nessa, [twins]), post(nessa, [twins])]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200, 200]);
    const { body } = await nessa.get("/api/deliveries/d-w118");
    expect(body.entries.filter(({ id }: { id: string }) => id === twins.id)).toHaveLength(1);
  });

  it.each([
    ["for another delivery", { delivery: "d-w121" }, 422, "wrong-delivery"],
    ["made by another person", { by: "tobin" }, 403, "not-your-entry"],
    ["for a topic this boat does not have", { topic: "warp-drive" }, 422, "unknown-topic"],
    ["for a person who is not there", { person: "b9" }, 422, "invalid-input"],
    ["undoing what does not exist", { kind: "undo", ref: ulid() }, 422, "invalid-input"],
    ["with a day that does not exist", { at: "2026-02-30T10:00:00Z" }, 422, "invalid-input"],
    ["with markup in the note", { note: "<img src=x>" }, 422, "invalid-input"],
  ])("%s are refused, and nothing of the batch is kept", async (_, change, status, code) => {
    const before = await countEntries("d-w118");
    const answer = await post(nessa, [entry(), entry(change)]);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
    expect(await countEntries("d-w118")).toBe(before);
  });

  it("of the same id with other content are refused", async () => {
    const one = entry();
    await post(nessa, [one]);
    const answer = await post(nessa, [{ ...one, mark: "told" }]);
    expect([answer.status, answer.body.error.code]).toEqual([409, "entry-differs"]);
  });

  it("that undo must name an entry of this handover", async () => {
    const undo = {
      id: ulid(),
      delivery: "d-w118",
      at: toInstant(Date.now()),
      by: "nessa",
      device: "t",
      kind: "undo",
    };
    const answer = await post(nessa, [{ ...undo, ref: ulid() }]);
    expect([answer.status, answer.body.error.code]).toEqual([422, "unknown-ref"]);
  });

  it("of the wiring stand on the boat's own sheet with who looked, until it is found otherwise", async () => {
    const look = (ok: boolean) => ({
      id: ulid(),
      delivery: "d-h402",
      at: toInstant(Date.now()),
      by: "tobin",
      device: "t",
      kind: "ready",
      check: "wiring",
      ok,
    });
    const checked = async () => (await nessa.get("/api/boats/h402")).body.rig.wiringChecked;
    expect(await checked()).toBeUndefined();
    await post(tobin, [look(true)], "d-h402");
    expect(await checked()).toMatchObject({ by: "Tobin Ashgrove", on: expect.stringMatching(/^\d{4}-\d\d-\d\d$/) });
    await post(tobin, [look(false)], "d-h402");
    expect(await checked()).toBeUndefined();
  });

  it("show on Today as they come", async () => {
    const ready = (check: string) => ({
      id: ulid(),
      delivery: "d-w121",
      at: toInstant(Date.now()),
      by: "tobin",
      device: "t",
      kind: "ready",
      check,
      ok: true,
    });
    const line = async () =>
      (await nessa.get("/api/today")).body.handovers.find(
        ({ delivery }: { delivery: string }) => delivery === "d-w121",
      );
    const before = await line();
    await post(tobin, [ready("trailer-lights"), ready("keys")], "d-w121");
    expect((await line()).readyDone).toBe(before.readyDone + 2);
    expect((await line()).readyOf).toBe(before.readyOf);
  });
});

describe("sealing", () => {
  const base = (by = "nessa") => ({ id: ulid(), delivery: "d-w118", at: toInstant(Date.now()), by, device: "t" });
  const findSeal = () => store.services.chain.findSeal("d-w118");

  it("waits for every must, count, reading and signature, however early the close is wished", async () => {
    expect((await post(nessa, [{ ...base(), kind: "close" }])).status).toBe(200);
    expect(await findSeal()).toBeNull();
    const { body } = await nessa.get("/api/deliveries/d-w118");
    expect(body.seal).toBeNull();
  });

  it("is not a technician's to wish, nor a start that is not made ready anybody's to allow but the owner's", async () => {
    const closed = await post(tobin, [{ ...base("tobin"), kind: "close" }]);
    expect([closed.status, closed.body.error.code]).toEqual([403, "not-allowed"]);
    const allowed = await post(nessa, [{ ...base(), kind: "allow", reason: "late" }]);
    expect(allowed.body.error.code).toBe("not-allowed");
  });

  it("waits for photos that are on their way, then happens by itself, once, from however many devices", async () => {
    const jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: "#369" } })
      .jpeg()
      .toBuffer();
    const sha256 = createHash("sha256").update(jpeg).digest("hex");
    const photo = createPhotoId(sha256, "staff");
    const taken = { ...base(), kind: "photo", photo, sha256, topic: "lanyard", ref: null };
    await post(nessa, [taken]);
    const delivery = await store.services.handoverService.describe("d-w118");
    const tale = tellWalk(delivery, {
      by: "nessa",
      startMs: Date.now() - 3_600_000,
      seed: 3,
      hours: { port: 0.9, starboard: 0.8 },
      isSigned: true,
    });
    const answers = await Promise.all([post(nessa, [taken, ...tale]), post(nessa, [taken, ...tale])]);
    expect(answers.map(({ status }) => status)).toEqual([200, 200]);
    expect(await findSeal()).toBeNull();
    await Promise.all([
      store.sendFile(nessa, `/api/photos/${photo}`, jpeg),
      store.sendFile(nessa, `/api/photos/${photo}`, jpeg),
    ]);
    const seal = (await findSeal())!;
    expect(createHash("sha256").update(seal.canonical).digest("hex")).toBe(seal.sha256);
    const sealed = JSON.parse(seal.canonical);
    expect(sealed).toMatchObject({ format: "ravik.handover/3", sealedBy: "nessa", photos: [{ id: photo }] });
    expect(Object.keys(sealed)).toEqual([...Object.keys(sealed)].sort());
    const all = await store.services.chain.listAll();
    const ours = all.filter(({ deliveryId }) => deliveryId === "d-w118");
    expect(ours.filter(({ kind }) => kind === "handover")).toHaveLength(1);
  });

  it("chains what is added later and what comes late, whatever it is, and changes nothing for it", async () => {
    const seal = (await findSeal())!;
    const ms = Date.now() + 60_000;
    const after = { ...base(), at: toInstant(ms) };
    expect((await post(nessa, [{ ...after, kind: "gear", item: "keys", count: 1 }])).status).toBe(200);
    const style = await nessa.send("PUT", "/api/deliveries/d-w118/plan", { ...defaultPlanOptions, style: "sweep" });
    expect(style.body.error.code).toBe("sealed");
    const note = { ...after, id: ulid(), kind: "amend", note: "Rang: all well." };
    expect((await post(nessa, [note])).status).toBe(200);
    const late = { ...base("tobin"), at: toInstant(Date.parse(seal.at) - 5000), kind: "gear" };
    expect((await post(tobin, [{ ...late, item: "keys", count: 2 }])).status).toBe(200);
    const marked = entry({ id: ulid(), at: after.at, topic: "plotter", mark: "shown" });
    expect((await post(nessa, [marked])).status).toBe(200);
    const amendments = (await store.services.chain.listAmendments("d-w118")).map(({ sha256, canonical }) => ({
      sha256,
      ...JSON.parse(canonical),
    }));
    expect(amendments.map(({ previous }) => previous)).toEqual([
      seal.sha256,
      ...amendments.slice(0, -1).map(({ sha256 }) => sha256),
    ]);
    expect(amendments.slice(-4).map(({ why }) => why)).toEqual(["added", "added", "added", "added"]);
    expect((await findSeal())!.canonical).toBe(seal.canonical);
  });

  it("acknowledges again what was stored before the seal", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w118");
    const old = body.entries.find(({ kind }: { kind: string }) => kind === "mark");
    expect((await post(nessa, [old])).body).toMatchObject({ stored: [], known: [old.id] });
  });

  it("stands in a chain that nothing is taken out of", async () => {
    const rows = await store.services.chain.listAll();
    rows.forEach((row, i) => {
      expect(row.previous).toBe(rows[i - 1]?.link ?? "0".repeat(64));
      expect(row.link).toBe(createHash("sha256").update(`${row.previous}${row.sha256}`).digest("hex"));
    });
    const { sequelize } = store.database.models.chain;
    for (const sql of ["UPDATE chain SET sha256 = '0' WHERE number = 1", "DELETE FROM chain WHERE number = 1"])
      await expect(sequelize!.query(sql)).rejects.toMatchObject({
        parent: { message: expect.stringContaining("only added to") },
      });
  });
});

describe("hours", () => {
  const today = () => store.services.clock.today();
  const reading = (hours: number, change: object = {}) => ({
    id: ulid(),
    engine: "port",
    date: today(),
    hours,
    ...change,
  });
  const add = (body: object, boat = "w118") => nessa.send("POST", `/api/boats/${boat}/readings`, body);
  const firstService = async () =>
    (await nessa.get("/api/boats/w118")).body.care[0].items.find(({ id }: { id: string }) => id === "first-service");

  it("begin with what was read at the handover, and move what is due", async () => {
    const before = await firstService();
    expect(before).toMatchObject({ targetH: 20, state: "ahead" });
    const leap = await add(reading(14.5));
    expect([leap.status, leap.body.error.code, leap.body.error.before]).toEqual([409, "hours-leap", 0.9]);
    expect((await add(reading(14.5, { answer: "as-read" }))).status).toBe(200);
    const after = await firstService();
    expect(after.dueDate < before.dueDate).toBe(true);
    const { body } = await nessa.get("/api/boats/w118");
    expect(body.care[0].breakIn).toMatchObject({ done: true, hours: 14.5 });
    expect(body.care[1].breakIn).toMatchObject({ done: false, hours: 0.8, phase: { maxRpm: 3000 } });
  });

  it("never fall without an answer, and go on from where they were on a changed meter", async () => {
    const refused = await add(reading(9));
    expect([refused.status, refused.body.error.code, refused.body.error.before]).toEqual([409, "hours-fall", 14.5]);
    const earlier = await add(reading(30, { date: addDays(today(), -40) }), "w097");
    expect(earlier.body.error.code).toBe("hours-fall");
    expect((await add(reading(2, { answer: "meter-changed" }))).status).toBe(200);
    const { body } = await nessa.get("/api/boats/w118");
    expect(body.care[0]).toMatchObject({ reportedH: 14.5, meterH: 2 });
    expect((await add(reading(3))).status).toBe(200);
    expect((await nessa.get("/api/boats/w118")).body.care[0]).toMatchObject({ reportedH: 15.5, meterH: 3 });
  });

  it.each([
    ["a date that does not exist", { date: "2026-02-29" }, "invalid-input"],
    ["a day to come", { date: "2199-01-01" }, "date-ahead"],
    ["a day before the handover", { date: "2020-01-01" }, "before-delivery"],
    ["an engine this boat has not", { engine: "third" }, "invalid-input"],
    ["negative hours", { hours: -1 }, "invalid-input"],
    ["hours as text", { hours: "12" }, "invalid-input"],
  ])("%s is refused", async (_, change, code) => {
    const answer = await add({ ...reading(99), ...change });
    expect(answer.body.error.code).toBe(code);
  });

  it("wait for the handover", async () => {
    expect((await add(reading(5), "w121")).body.error.code).toBe("not-delivered");
  });

  it("record a service once and move on to the next", async () => {
    const ines = await store.signIn("ines");
    const service = { id: ulid(), engine: "port", item: "annual", date: today(), hours: 14.5 };
    for (let i = 0; i < 2; i++) expect((await ines.send("POST", "/api/boats/w118/services", service)).status).toBe(200);
    const { body } = await ines.get("/api/boats/w118");
    const annual = body.care[0].items.find(({ id }: { id: string }) => id === "annual");
    expect(annual).toMatchObject({ targetH: 114.5, lastDone: today() });
    const unknown = await ines.send("POST", "/api/boats/w118/services", { ...service, id: ulid(), item: "wax" });
    expect(unknown.body.error.issues![0]!.path).toBe("item");
    expect((await nessa.send("POST", "/api/boats/w118/services", service)).status).toBe(403);
  });
});

describe("the PDF", () => {
  it.each(["letter", "a4"])("prints on %s, names with letters beyond basic Latin included", async (paper) => {
    const answer = await nessa.get(`/api/deliveries/d-w097/record.pdf?paper=${paper}`);
    expect(answer.status).toBe(200);
    expect(answer.headers.get("content-type")).toContain("application/pdf");
    expect(answer.body.text.startsWith("%PDF-")).toBe(true);
  });

  it("refuses a paper it does not know", async () => {
    const answer = await nessa.get("/api/deliveries/d-w097/record.pdf?paper=napkin");
    expect(answer.body.error.issues![0]!.path).toBe("query.paper");
  });
});
