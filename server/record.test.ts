import { createHash } from "node:crypto";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Delivery } from "../api/index.ts";
import { toInstant } from "../core/dates/index.ts";
import { verifyBundle } from "../core/record/index.ts";
import { createPhotoId, type Entry, foldWalk, hashShown } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { type Answer, type Caller, openTestStore, type TestStore } from "./openTestStore.ts";
import { hashText } from "./repositories/chain.ts";

let store: TestStore;
let nessa: Caller;
let odile: Caller;

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  odile = await store.signIn("odile");
});
afterAll(() => store.stop());

type Body = Record<string, unknown>;
let madeMs = Date.now() - 600_000;
const make = (delivery: string, more: Body, by = "nessa", device = "tablet-1"): Body => {
  madeMs += 10;
  return { id: ulid(madeMs), delivery, at: toInstant(madeMs), by, device, ...more };
};
const post = (delivery: string, entries: readonly object[], who = nessa): Promise<Answer> =>
  who.send("POST", `/api/deliveries/${delivery}/entries`, { entries });
const read = async (delivery: string): Promise<Delivery> =>
  (await nessa.get(`/api/deliveries/${delivery}`)).body as unknown as Delivery;
const codeOf = ({ body }: Answer) => body.error?.code;
const picture = (background: string) =>
  sharp({ create: { width: 60, height: 40, channels: 3, background } })
    .jpeg()
    .toBuffer();
const hashOf = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");
const sql = (text: string) => store.database.models.chain.sequelize!.query(text);

let boats = 0;
/** A handover of a boat of its own, made ready, its walk not begun. */
async function createHandover(buyers = ["Dov Anselm"]): Promise<Delivery> {
  const hull = `SLW2390${++boats}K526`;
  const made = await odile.send("POST", "/api/boats", { name: "Wending 23", hull, template: "wending-23" });
  const { delivery } = (
    await odile.send("POST", "/api/deliveries", {
      boat: made.body.boat,
      date: store.services.clock.today(),
      time: "10:00",
      buyers,
      note: "",
    })
  ).body;
  await post(delivery, [make(delivery, { kind: "allow", reason: "Made ready at the dock" }, "odile")], odile);
  return read(delivery);
}
/** All of a walk, signed by everybody; without the close where it is not wished. */
function walkOf(delivery: Delivery, isClosed = true): Entry[] {
  madeMs += 1000;
  const startMs = madeMs - 8 * 3_600_000;
  const tale = tellWalk(delivery, {
    by: "nessa",
    startMs,
    seed: 3,
    hours: { port: 0.9, starboard: 0.8 },
    isSigned: true,
  });
  const entries = tale.map((entry) => ({ ...entry, device: "tablet-1" }));
  return isClosed ? entries : entries.filter(({ kind }) => kind !== "close");
}
const findSeal = async (delivery: string) => store.services.chain.findSeal(delivery);

describe("a walk is frozen when it begins", () => {
  it("is handed out with what it would begin with, kept under its name before", async () => {
    const before = await createHandover();
    expect(before.snapshot).toMatch(/^[0-9a-f]{64}$/);
    expect(await store.services.snapshots.find(before.snapshot!)).toMatchObject({
      hull: before.hull,
      plan: before.plan,
    });
    expect((await read(before.id)).snapshot).toBe(before.snapshot);
  });

  it("goes by that, though words, musts and the boat sheet change; it says so and offers what is still to come", async () => {
    const before = await createHandover();
    const [said, open] = [before.topics.find(({ must }) => must)!, before.topics.filter(({ must }) => must)[1]!];
    const named = { snapshot: before.snapshot };
    await post(before.id, [
      make(before.id, { kind: "start", ...named }),
      make(before.id, { kind: "mark", topic: said.id, mark: "did", person: null, spentS: 5, ...named }),
    ]);
    const library = await odile.get("/api/library");
    const edit = (id: string, change: Body) => {
      const topic = library.body.topics.find((each: { id: string }) => each.id === id);
      return odile.send("PUT", `/api/library/topics/${id}`, { ...topic, ...change });
    };
    for (const id of [said.id, open.id]) expect((await edit(id, { say: "Ours: otherwise." })).status).toBe(200);
    const sheet = (await odile.get(`/api/boats/${before.boat}/rig`)).body;
    const rig = { ...sheet.rig, gear: sheet.rig.gear.slice(1) };
    const saved = await odile.send("PUT", `/api/boats/${before.boat}/rig`, {
      version: sheet.version,
      name: "Renamed",
      hull: sheet.hull,
      rig,
    });
    expect(saved.status).toBe(200);

    const under = await read(before.id);
    expect([under.boatName, under.rig, under.topics, under.plan]).toEqual([
      before.boatName,
      before.rig,
      before.topics,
      before.plan,
    ]);
    expect(under.next).toMatchObject({ isBoatChanged: true, topics: [{ topic: open.id, what: "reworded" }] });

    const next = under.next!.snapshot;
    expect(codeOf(await post(before.id, [make(before.id, { kind: "update", next: "0".repeat(64) })]))).toBe(
      "unknown-snapshot",
    );
    expect((await post(before.id, [make(before.id, { kind: "update", next, ...named })])).status).toBe(200);
    const after = await read(before.id);
    const words = new Map(after.topics.map((topic) => [topic.id, topic.say]));
    expect([words.get(said.id), words.get(open.id)]).toEqual([said.say, "Ours: otherwise."]);
    expect([after.next, after.boatName, after.rig.gear.length]).toEqual([null, "Renamed", before.rig.gear.length - 1]);
    for (const id of [said.id, open.id]) await odile.send("DELETE", `/api/library/topics/${id}`, {});
  });

  it("goes by the start that was received first", async () => {
    const first = await createHandover();
    await nessa.send("PUT", `/api/deliveries/${first.id}/plan`, { ...first.planOptions, budgetMin: 45 });
    const second = await read(first.id);
    expect(second.snapshot).not.toBe(first.snapshot);
    const late = make(first.id, { kind: "start", snapshot: second.snapshot });
    const early = make(first.id, { kind: "start", snapshot: first.snapshot });
    await post(first.id, [{ ...late, id: ulid(madeMs + 5000), at: toInstant(madeMs + 5000) }]);
    await post(first.id, [early]);
    expect((await read(first.id)).snapshot).toBe(second.snapshot);
  });

  it("of a tablet that names none gets one; and one of an older version gets it at the next start of the server", async () => {
    const old = await createHandover();
    await post(old.id, [make(old.id, { kind: "start" })]);
    expect((await store.services.deliveries.find(old.id))!.snapshot).toBe(old.snapshot);
    await sql(`UPDATE deliveries SET snapshot = NULL WHERE id = '${old.id}'`);
    await store.services.handoverService.resume();
    expect((await store.services.deliveries.find(old.id))!.snapshot).toBe(old.snapshot);
  });

  it("forgets after 45 days what no walk began with", async () => {
    const unused = await createHandover();
    const used = await createHandover();
    await post(used.id, [make(used.id, { kind: "start", snapshot: used.snapshot })]);
    await sql("UPDATE snapshots SET at = '2020-01-01T00:00:00.000Z'");
    expect(await store.services.handoverService.removeOldSnapshots()).toBeGreaterThan(0);
    expect(await store.services.snapshots.find(unused.snapshot!)).toBeNull();
    expect(await store.services.snapshots.find(used.snapshot!)).not.toBeNull();
  });
});

describe("sealing finishes, whatever was interrupted", () => {
  /** A closed handover that waits for one photo. */
  async function createWaiting() {
    const made = await createHandover();
    const bytes = await picture(`#${String(100000 + boats * 7919).slice(0, 6)}`);
    const sha256 = hashOf(bytes);
    const photo = createPhotoId(sha256, "staff");
    await post(made.id, [make(made.id, { kind: "photo", photo, sha256, topic: null, ref: null })]);
    await post(made.id, walkOf(await read(made.id)));
    expect(await findSeal(made.id)).toBeNull();
    return { id: made.id, bytes, photo };
  }
  /** The photo's row is there, and the server was killed before anything followed from it. */
  async function storeOnly({ photo, bytes }: { photo: string; bytes: Buffer }) {
    const { readPhoto } = await import("./photos.ts");
    await store.services.photos.add({
      ...(await readPhoto(bytes)),
      id: photo,
      sent: hashOf(bytes),
      at: toInstant(0),
      by: "nessa",
    });
  }

  it("when the photo is sent again", async () => {
    const waiting = await createWaiting();
    await storeOnly(waiting);
    expect((await store.sendFile(nessa, `/api/photos/${waiting.photo}`, waiting.bytes)).status).toBe(200);
    expect(await findSeal(waiting.id)).not.toBeNull();
  });

  it("when an entry is sent again", async () => {
    const waiting = await createWaiting();
    await storeOnly(waiting);
    const { entries } = await read(waiting.id);
    await post(waiting.id, [entries.find(({ kind, by }) => kind === "mark" && by === "nessa")!]);
    expect(await findSeal(waiting.id)).not.toBeNull();
  });

  it("at the next start of the server, each once", async () => {
    const waiting = await createWaiting();
    await storeOnly(waiting);
    await store.services.handoverService.resume();
    await store.services.handoverService.resume();
    const seal = await findSeal(waiting.id);
    expect(seal).not.toBeNull();
    expect((await store.services.chain.listAll()).filter(({ deliveryId }) => deliveryId === waiting.id)).toHaveLength(
      1,
    );
  });

  it("and no half of a character comes in that could stop it: in a question, a title, a name or a key", async () => {
    const made = await createHandover();
    const note = { kind: "call", topic: null, note: "what \ud83d is this" };
    const bad = await post(made.id, [make(made.id, note)]);
    expect([bad.status, bad.body.error.issues?.[0]]).toEqual([
      422,
      { path: "entries[0].note", message: "must be well-formed Unicode" },
    ]);
    const topic = (await odile.get("/api/library")).body.topics[0];
    const titled = await odile.send("PUT", `/api/library/topics/${topic.id}`, { ...topic, title: "Horn \udc00" });
    expect(codeOf(titled)).toBe("invalid-input");
    const nul = await odile.send("POST", "/api/boats", {
      name: "A\u0000B",
      hull: "SLW99999K526",
      template: "wending-23",
    });
    expect(codeOf(nul)).toBe("invalid-input");
    expect((await nessa.get(`/api/deliveries/${made.id}`)).status).toBe(200);
  });
});

/** Strokes that nobody has drawn yet. */
const anotherHand = [[30, 90, 120, 40, 260, 100, 350, 50]];

describe("what a signature covers", () => {
  it("is sealed and nothing else: what another device had sent, however early it is dated, stands beside", async () => {
    const made = await createHandover();
    const walk = walkOf(made);
    const foreign = make(made.id, { kind: "promise", note: "A second fender", isExtra: true }, "nessa", "tablet-2");
    await post(made.id, [{ ...foreign, at: "2026-01-01T00:00:00.000Z" }]);
    await post(made.id, walk);
    const seal = (await findSeal(made.id))!;
    const sealed = JSON.parse(seal.canonical);
    const ids = sealed.entries.map(({ id }: { id: string }) => id);
    expect(ids).not.toContain(foreign.id);
    const amendments = await store.services.chain.listAmendments(made.id);
    expect(amendments.map(({ canonical }) => JSON.parse(canonical))).toMatchObject([
      { why: "uncovered", previous: seal.sha256, entries: [{ id: foreign.id, via: "staff" }] },
    ]);
    expect((await read(made.id)).added).toEqual([foreign.id]);
  });

  it("waits for every entry the close lists", async () => {
    const made = await createHandover();
    const walk = walkOf(made);
    const late = walk.find(({ kind }) => kind === "gear")!;
    await post(
      made.id,
      walk.filter((entry) => entry !== late),
    );
    expect(await findSeal(made.id)).toBeNull();
    await post(made.id, [late]);
    expect(await findSeal(made.id)).not.toBeNull();
  });

  it("is not sealed with a signature that is for something else", async () => {
    const made = await createHandover();
    const walk = walkOf(made);
    const stale = walk.map((entry) =>
      entry.kind === "sign" && entry.role === "buyer" ? { ...entry, digest: "0".repeat(64) } : entry,
    );
    await post(made.id, stale);
    expect(await findSeal(made.id)).toBeNull();
    // Signed again, for what stands, and closed again.
    const earlier = (await read(made.id)).entries;
    const digest = hashShown(made, foldWalk(earlier));
    const old = stale.find((entry) => entry.kind === "sign" && entry.role === "buyer")!;
    const again = make(made.id, { ...old, digest, strokes: anotherHand });
    const fresh = { ...again, id: ulid(madeMs + 3_600_000), at: toInstant(Date.now()) };
    const covers = [...earlier.map(({ id }) => id), fresh.id];
    const close = {
      ...make(made.id, { kind: "close", covers }),
      id: ulid(madeMs + 3_600_001),
      at: toInstant(Date.now()),
    };
    expect((await post(made.id, [fresh, close])).status).toBe(200);
    expect(await findSeal(made.id)).not.toBeNull();
  });

  it("is every buyer's who is here: one signature for two is not enough, a stated reason is", async () => {
    const made = await createHandover(["Dov Anselm", "Ana Anselm"]);
    const walk = walkOf(made);
    const hers = walk.find((entry) => entry.kind === "sign" && entry.person === "b2")!;
    const close = walk.at(-1) as Extract<Entry, { kind: "close" }>;
    const covers = close.covers!.filter((id) => id !== hers.id);
    await post(made.id, [...walk.filter((entry) => entry !== hers && entry !== close), { ...close, covers }]);
    expect(await findSeal(made.id)).toBeNull();
    const refuse = make(made.id, { kind: "refuse", person: "b2", name: "Ana Anselm", reason: "Reads it at home" });
    const witness = make(made.id, {
      ...hers,
      role: "countersign",
      person: undefined,
      name: "Corwin Vale",
      strokes: anotherHand,
    });
    const entries = [refuse, { ...witness, id: ulid(madeMs) }].map((entry) => JSON.parse(JSON.stringify(entry)));
    const second = make(made.id, { kind: "close", covers: [...covers, ...entries.map(({ id }) => id)] });
    expect((await post(made.id, [...entries, second])).status).toBe(200);
    expect(await findSeal(made.id)).not.toBeNull();
  });

  it.each<[string, Body, string]>([
    [
      "a dot for a signature",
      { kind: "sign", role: "buyer", name: "Dov", width: 300, height: 100, strokes: [[5, 5, 6, 6]] },
      "no-signature",
    ],
    [
      "a snag to be fixed by a date, without one",
      { kind: "snag", topic: null, note: "Loose", stops: false, how: "by-date" },
      "needs-date",
    ],
  ])("refuses %s", async (_, body, code) => {
    expect(codeOf(await post("d-m204", [make("d-m204", body)]))).toBe(code);
  });

  it("is taken back only where it was given", async () => {
    const made = await createHandover();
    const walk = walkOf(made, false);
    await post(made.id, walk);
    const sign = walk.find(({ kind }) => kind === "sign")!;
    const elsewhere = make(made.id, { kind: "undo", ref: sign.id }, "nessa", "tablet-9");
    expect(codeOf(await post(made.id, [elsewhere]))).toBe("not-yours-to-undo");
    expect((await post(made.id, [make(made.id, { kind: "undo", ref: sign.id })])).status).toBe(200);
  });
});

describe("after the seal", () => {
  let id: string;
  let before: Delivery;
  let csv: string;
  beforeAll(async () => {
    const made = await createHandover();
    id = made.id;
    await post(id, walkOf(made));
    before = await read(id);
    csv = (await nessa.get(`/api/deliveries/${id}/marks.csv`)).body.text as unknown as string;
  });

  it("an undo, a signature or a mark changes no sealed part on screen or paper: they stand as later claims", async () => {
    const mark = before.entries.find(({ kind }) => kind === "mark")!;
    const sign = before.entries.find(({ kind }) => kind === "sign")!;
    const early = { at: "2026-01-01T08:00:00.000Z" };
    const claims = [
      make(id, { kind: "undo", ref: mark.id, ...early }),
      make(id, { kind: "undo", ref: sign.id }, "nessa", "tablet-9"),
      make(id, { kind: "gear", item: before.rig.gear[0]!.id, count: 0 }),
      make(id, { ...sign, name: "Somebody else", strokes: anotherHand }),
    ].map((entry, i) => ({ ...entry, id: ulid(madeMs + 100 + i) }));
    expect((await post(id, claims)).status).toBe(200);
    const after = await read(id);
    const sealedNow = after.entries.filter((entry) => !after.added.includes(entry.id));
    expect(sealedNow).toEqual(before.entries);
    expect(after.added).toEqual(claims.map((entry) => entry.id).sort());
    expect((await nessa.get(`/api/deliveries/${id}/marks.csv`)).body.text).toBe(csv);
    const bundle = (await nessa.get(`/api/deliveries/${id}/bundle.json`)).body;
    expect(verifyBundle(bundle, hashText)).toMatchObject({ isIntact: true, amendments: 1 });
  });

  it("a photo that arrives late is held by both its hashes", async () => {
    const bytes = await sharp({ create: { width: 60, height: 40, channels: 3, background: "#a3125f" } })
      .png()
      .toBuffer();
    const sha256 = hashOf(bytes);
    const photo = createPhotoId(sha256, "staff");
    await post(id, [make(id, { kind: "photo", photo, sha256, topic: null, ref: null })]);
    await store.sendFile(nessa, `/api/photos/${photo}`, bytes);
    const bundle = (await nessa.get(`/api/deliveries/${id}/bundle.json`)).body;
    const fact = bundle.amendments.at(-1).content.photos[photo].value;
    expect(fact).toMatchObject({ id: photo, sent: sha256 });
    expect(fact.sha256).not.toBe(sha256);
  });

  it("says of each entry beside it when it came, in which order and how, and takes a resend for the same", async () => {
    const { receipts, entries } = await read(id);
    const numbers = entries.map((entry) => receipts[entry.id]!.number);
    expect(new Set(numbers).size).toBe(entries.length);
    expect(Date.parse(receipts[entries[0]!.id]!.receivedAt!)).toBeGreaterThan(Date.now() - 600_000);
    expect((await post(id, entries.slice(0, 3))).status).toBe(200);
    expect((await read(id)).receipts).toEqual(receipts);
  });
});

describe("the database itself", () => {
  it.each([
    ["a sealed entry changed", "UPDATE entries SET body = '{}' WHERE deliveryId = 'd-w097'"],
    ["an entry taken out", "DELETE FROM entries WHERE deliveryId = 'd-w097'"],
    [
      "an entry put in another's place",
      "INSERT OR REPLACE INTO entries (id, deliveryId, body, number, via) SELECT id, deliveryId, '{}', 1, 'staff' FROM entries WHERE deliveryId = 'd-w097' LIMIT 1",
    ],
    [
      "a link put in another's place",
      "INSERT OR REPLACE INTO chain SELECT number, deliveryId, kind, 'x', previous, link, canonical, at, key, signature FROM chain LIMIT 1",
    ],
    [
      "a second seal of a handover",
      "INSERT OR REPLACE INTO chain (deliveryId, kind, sha256, previous, link, canonical, at) SELECT deliveryId, 'handover', 'x', 'x', 'x', '{}', '' FROM chain WHERE kind = 'handover' LIMIT 1",
    ],
    ["a photo changed", "UPDATE photos SET sha256 = 'x'"],
    ["a photo taken out", "DELETE FROM photos"],
    ["what a seal is of changed", "UPDATE contents SET body = '{}'"],
    ["what a seal is of taken out", "DELETE FROM contents"],
  ])("refuses %s", async (_, statement) => {
    await expect(sql(statement)).rejects.toThrow();
    expect(await store.services.chain.findSeal("d-w097")).not.toBeNull();
  });
});

describe("photos and pages", () => {
  it("nobody puts a picture in another's place: its id holds the hash of its bytes", async () => {
    const [mine, theirs] = [await picture("#112233"), await picture("#445566")];
    const photo = createPhotoId(hashOf(mine), "staff");
    const wrong = await store.sendFile(nessa, `/api/photos/${photo}`, theirs);
    expect([wrong.status, codeOf(wrong)]).toEqual([422, "photo-differs"]);
    expect((await store.sendFile(nessa, `/api/photos/${photo}`, mine)).status).toBe(200);
  });

  it("what an owner says they did counts only through a page made for a remote handover", async () => {
    const made = await createHandover();
    const send = async (isRemote: boolean) => {
      const { token } = (await nessa.send("POST", `/api/deliveries/${made.id}/link`, { isRemote })).body;
      const entry = make(made.id, { kind: "remote", topic: made.topics[0]!.id, as: "did" }, "owner");
      const answer = await store.stranger.send("POST", `/api/owner/${token}/entries`, { entries: [entry] });
      return { answer, id: entry.id as string };
    };
    expect(codeOf((await send(false)).answer)).toBe("not-allowed");
    const remote = await send(true);
    expect(remote.answer.status).toBe(200);
    expect((await read(made.id)).receipts[remote.id]!.via).toBe("remote");
  });
});
