import { execFile, execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Papa from "papaparse";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import yazl from "yazl";
import { minutesOfDay, toInstant } from "../core/dates/index.ts";
import { writeJson } from "../core/hash/index.ts";
import { bundleFile, hashSalted, hashSigned, photoFile, verifyBundle, writeLink } from "../core/record/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";
import { hashText } from "./repositories/chain.ts";
import { createStoreKey } from "./storeKey.ts";
import { readZip, writeZip, zipLimits } from "./zip.ts";

const folder = mkdtempSync(join(tmpdir(), "ravik-carry-"));
let home: TestStore;
let away: TestStore;
let nessa: Caller;
let theirs: Caller;
let zip: Buffer;
const photo = ulid().toLowerCase();

beforeAll(async () => {
  home = await openTestStore();
  // Another zone: what was walked here in the morning is walked there in the night.
  away = await openTestStore({ timeZone: "America/Chicago" });
  nessa = await home.signIn("nessa");
  theirs = await away.signIn("nessa");
  // The other store has none of the demo's handovers.
  const sequelize = away.database.models.chain.sequelize!;
  for (const guard of ["chain_whole", "entries_whole", "contents_whole"])
    await sequelize.query(`DROP TRIGGER ${guard}`);
  for (const name of [
    "contents",
    "snapshots",
    "entries",
    "chain",
    "ownerLinks",
    "outbox",
    "deliveries",
    "readings",
    "services",
    "boats",
  ])
    await sequelize.query(`DELETE FROM ${name}`);
  const jpeg = await sharp({ create: { width: 300, height: 200, channels: 3, background: "#a3125f" } })
    .jpeg()
    .toBuffer();
  const entry = { id: ulid(), delivery: "d-w097", at: toInstant(Date.now()), by: "nessa", device: "t" };
  await home.sendFile(nessa, `/api/photos/${photo}`, jpeg);
  await nessa.send("POST", "/api/deliveries/d-w097/entries", {
    entries: [{ ...entry, kind: "photo", photo, topic: null, ref: null }],
  });
  const answer = await fetch(`${home.address}/api/deliveries/d-w097/bundle.zip`, { headers: { cookie: nessa.cookie } });
  zip = Buffer.from(await answer.arrayBuffer());
});
afterAll(async () => {
  await home.stop();
  await away.stop();
  rmSync(folder, { recursive: true, force: true });
});

const zipType = "application/zip";
const preview = (bytes: Buffer) => away.sendFile(theirs, "/api/bundles/preview", bytes, zipType, "POST");
const importBundle = (bytes: Buffer, trust?: string) =>
  away.sendFile(theirs, `/api/bundles${trust === undefined ? "" : `?trust=${trust}`}`, bytes, zipType, "POST");
const zipOf = (files: Record<string, string | Buffer>) =>
  writeZip(new Map(Object.entries(files).map(([name, content]) => [name, Buffer.from(content)])), new Date(0));

const count = <V>(all: readonly V[], one: V) => all.filter((each) => each === one).length;

describe("a bundle", () => {
  it("is not to be had of what is not sealed", async () => {
    const answer = await nessa.get("/api/deliveries/d-w118/bundle.json");
    expect([answer.status, answer.body.error.code]).toEqual([409, "not-sealed"]);
  });

  it("holds photos added after the seal by their hash, those that arrive after their entry too", async () => {
    const late = ulid().toLowerCase();
    const entry = { id: ulid(), delivery: "d-w081", at: toInstant(Date.now()), by: "nessa", device: "t" };
    await nessa.send("POST", "/api/deliveries/d-w081/entries", {
      entries: [{ ...entry, kind: "photo", photo: late, topic: null, ref: null }],
    });
    const read = async () =>
      (await nessa.get("/api/deliveries/d-w081/bundle.json")).body.amendments.map(
        ({ amendment }: { amendment: { entries: object[]; photos?: { id: string }[] } }) => [
          amendment.entries.length,
          amendment.photos?.map(({ id }) => id) ?? [],
        ],
      );
    expect((await read()).at(-1)).toEqual([1, []]);
    const jpeg = await sharp({ create: { width: 30, height: 20, channels: 3, background: "#0f3d4c" } })
      .jpeg()
      .toBuffer();
    await home.sendFile(nessa, `/api/photos/${late}`, jpeg);
    await home.sendFile(nessa, `/api/photos/${late}`, jpeg);
    expect((await read()).slice(-2)).toEqual([
      [1, []],
      [0, [late]],
    ]);
    const { body } = await nessa.get("/api/deliveries/d-w081/bundle.json");
    expect((await nessa.send("POST", "/api/verify", body)).body.isIntact).toBe(true);
  });

  it("is intact for the store that sealed it, which knows its place in the chain", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w097/bundle.json");
    const answer = await nessa.send("POST", "/api/verify", body);
    expect(answer.body).toMatchObject({ isIntact: true, differences: [], known: { delivery: "d-w097" } });
    expect(body.chain.number).toBe(answer.body.known.number);
  });

  it("is whole although something is added while it is read", async () => {
    const { chain } = home.services;
    const list = chain.listAmendments;
    let isFirst = true;
    chain.listAmendments = async (...given) => {
      if (isFirst) {
        isFirst = false;
        const entry = { id: ulid(), delivery: "d-w081", at: toInstant(Date.now()), by: "nessa", device: "t" };
        const promise = { ...entry, kind: "promise", note: "A second fender", isExtra: false };
        expect((await nessa.send("POST", "/api/deliveries/d-w081/entries", { entries: [promise] })).status).toBe(200);
      }
      return list(...given);
    };
    try {
      const { body } = await nessa.get("/api/deliveries/d-w081/bundle.json");
      expect((await nessa.send("POST", "/api/verify", body)).body).toMatchObject({ isIntact: true, differences: [] });
    } finally {
      chain.listAmendments = list;
    }
  });

  it("with one entry changed is caught at that entry, even where its hashes were changed with it", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w097/bundle.json");
    const values = Object.values(body.content.entries) as { value: { id: string; kind: string; note: string } }[];
    const snag = values.find(({ value }) => value.kind === "snag")!.value;
    snag.note = "Everything was perfect";
    const answer = await nessa.send("POST", "/api/verify", body);
    expect(answer.body.isIntact).toBe(false);
    expect(answer.body.differences).toMatchObject([
      { code: "entry-changed", entry: snag.id, says: expect.stringContaining(snag.id) },
    ]);
    // Hash, seal, link and all: then it is the store's own copy that says it is another.
    const salt = body.content.entries[snag.id].salt;
    const hash = hashSalted(salt, snag, hashText);
    body.handover.entries.find(({ id }: { id: string }) => id === snag.id).hash = hash;
    body.sha256 = hashText(writeJson(body.handover));
    body.chain = null;
    delete body.signature;
    body.amendments = [];
    expect(verifyBundle(body)).toMatchObject({ verdict: "differs", differences: [{ code: "chain-broken" }] });
    body.end = { sha256: body.sha256, count: 0 };
    expect(verifyBundle(body).verdict).toBe("unsigned");
    expect((await nessa.send("POST", "/api/verify", body)).body).toMatchObject({
      isIntact: false,
      differences: [{ code: "part-changed", part: "entries" }],
    });
  });

  it("is verified in the terminal without any store: 0 intact, 1 changed, 2 not to be read", async () => {
    const run = (name: string, content: string | Buffer) => {
      const file = join(folder, name);
      writeFileSync(file, content);
      return new Promise<{ status: number; said: string }>((resolve) =>
        execFile("node", ["cli/ravik.mjs", "verify", file], (error, stdout, stderr) =>
          resolve({ status: error === null ? 0 : Number(error.code), said: stdout + stderr }),
        ),
      );
    };
    const { body } = await nessa.get("/api/deliveries/d-w097/bundle.json");
    expect(await run("whole.json", JSON.stringify(body))).toMatchObject({
      status: 0,
      said: expect.stringContaining("intact"),
    });
    expect((await run("whole.zip", zip)).status).toBe(0);
    const { signature: _, ...unsigned } = body;
    expect(await run("unsigned.json", JSON.stringify(unsigned))).toMatchObject({
      status: 3,
      said: expect.stringContaining("signed by nobody"),
    });
    const { id } = body.handover.entries[3];
    body.content.entries[id].value.at = "2026-01-01T00:00:00.000Z";
    const changed = await run("changed.json", JSON.stringify(body));
    expect(changed).toMatchObject({ status: 1, said: expect.stringContaining(id) });
    expect((await run("junk.json", "{")).status).toBe(2);
  });

  it("is seen before it is taken, then taken whole: boat, entries, photo, seal, and it verifies there", async () => {
    const seen = (await preview(zip)).body;
    expect(seen).toMatchObject({
      store: "Pellow & Marr Boatyard, Lake Ondrel",
      boatName: "Wending 23",
      photos: 1,
      isBoatKnown: false,
      isKnown: false,
      verified: { isIntact: true },
    });
    // Whose it is is asked before anything is kept; once looked at, that store is known.
    const { origin } = seen.verified;
    expect(origin).toMatchObject({ is: "unknown", store: "Pellow & Marr Boatyard, Lake Ondrel" });
    const unasked = await importBundle(zip);
    expect([unasked.status, unasked.body.error.code]).toEqual([409, "unknown-store"]);
    const taken = await importBundle(zip, origin.key);
    expect(taken.status).toBe(200);
    expect((await preview(zip)).body.verified.origin.is).toBe("known");
    const delivery = (await theirs.get(`/api/deliveries/${taken.body.delivery}`)).body;
    const ours = (await nessa.get("/api/deliveries/d-w097")).body;
    expect(delivery.entries).toEqual(ours.entries);
    expect(delivery.seal.sha256).toBe(ours.seal.sha256);
    const began = ours.entries.find(({ kind }: { kind: string }) => kind === "start").at;
    const there = minutesOfDay(began, "America/Chicago");
    expect(minutesOfDay(began, "UTC")).toBe(11 * 60);
    expect(delivery.time).toBe(`0${there / 60}:00`);
    expect(delivery.added).toEqual(ours.added);
    const picture = await theirs.get(`/api/photos/${photo}`);
    expect(picture.headers.get("content-type")).toBe("image/jpeg");
    const { body } = await theirs.get(`/api/deliveries/${taken.body.delivery}/bundle.json`);
    expect((await theirs.send("POST", "/api/verify", body)).body.isIntact).toBe(true);
    const boat = (await theirs.get(`/api/boats/${taken.body.boat}`)).body;
    expect(boat.readings.length).toBe(2);
    const again = await importBundle(zip);
    expect([again.status, again.body.error.code]).toEqual([409, "already-here"]);
    expect((await preview(zip)).body.isKnown).toBe(true);
  });

  it("that was changed on the way is not taken, nor its photo exchanged, and nothing of it is kept", async () => {
    const files = await readZip(zip, () => true);
    const bundle = JSON.parse(files.get(bundleFile)!.toString());
    const count = async () => [await away.database.models.entries.count(), await away.database.models.boats.count()];
    const before = await count();
    bundle.handover.hull = "SLW23999K526";
    const changed = await importBundle(await zipOf({ [bundleFile]: JSON.stringify(bundle) }));
    expect([changed.status, changed.body.error.code]).toEqual([422, "not-a-bundle"]);
    expect(changed.body.error.reason).toContain("the sealed record");
    expect(await count()).toEqual(before);
  });
});

describe("a bundle without its photos", () => {
  it("is taken in as JSON too; what it names and does not hold is said before", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w081/bundle.json");
    const bytes = Buffer.from(JSON.stringify(body));
    const send = (path: string) => away.sendFile(theirs, path, bytes, "application/json", "POST");
    const seen = (await send("/api/bundles/preview")).body;
    expect(seen).toMatchObject({ photos: 0, photosLeft: 1, isKnown: false, verified: { isIntact: true } });
    const taken = await send(`/api/bundles?trust=${seen.verified.origin.key}`);
    expect(taken.status).toBe(200);
    const there = (await theirs.get(`/api/deliveries/${taken.body.delivery}/bundle.json`)).body;
    expect(there.sha256).toBe(body.sha256);
  });
});

describe("whose a record is", () => {
  const sendJson = (to: TestStore, who: Caller, body: object, trust?: string) => {
    const query = trust === undefined ? "" : `?trust=${trust}`;
    return to.sendFile(who, `/api/bundles${query}`, Buffer.from(JSON.stringify(body)), "application/json", "POST");
  };
  // biome-ignore lint/suspicious/noExplicitAny: a file as somebody else makes it
  type Loose = any;
  /** A record of home's, made anew by somebody who can compute hashes, in the name of whoever holds this key. */
  async function makeForgery(key: string, sign: ((text: string) => string) | null): Promise<Loose> {
    const { body } = await nessa.get("/api/deliveries/d-w081/bundle.json");
    const forged: Loose = { ...body, amendments: [], chain: null };
    forged.handover = { ...body.handover, delivery: "d-forged", storeKey: key, boatName: "Another 30" };
    forged.sha256 = hashText(writeJson(forged.handover));
    forged.end = { sha256: forged.sha256, count: 0 };
    delete forged.signature;
    if (sign !== null) {
      const signs = hashSigned(forged, hashText);
      forged.signature = { key, signs, signature: sign(signs) };
    }
    return forged;
  }

  it("is not said by a name and a key that stand in it: without that store's signature it is refused", async () => {
    for (const [at, who] of [
      [home, nessa],
      [away, theirs],
    ] as const) {
      const forged = await makeForgery(home.storeKey.publicKey, null);
      expect(verifyBundle(forged).verdict).toBe("unsigned");
      const owner = at === home ? await home.signIn("odile") : who;
      const refused = await sendJson(at, owner, forged, home.storeKey.publicKey);
      expect([refused.status, refused.body.error.code]).toEqual([422, "unsigned-bundle"]);
    }
    const stranger = createStoreKey();
    const foreign = await makeForgery(home.storeKey.publicKey, null);
    const signs = hashSigned(foreign, hashText);
    foreign.signature = { key: stranger.publicKey, signs, signature: stranger.sign(signs) };
    expect(verifyBundle(foreign)).toMatchObject({ verdict: "differs", differences: [{ code: "key-differs" }] });
    expect((await sendJson(away, theirs, foreign, stranger.publicKey)).body.error.code).toBe("not-a-bundle");
  });

  it("that bears our own key and that we never sealed is none of ours", async () => {
    const forged = await makeForgery(away.storeKey.publicKey, away.storeKey.sign);
    expect(verifyBundle(forged).verdict).toBe("signed");
    expect((await sendJson(away, theirs, forged)).body.error.code).toBe("not-ours");
  });

  it("stays the other store's, in file, on screen and on paper, and is never signed by ours", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w081/bundle.json");
    const there = (await theirs.get("/api/deliveries/d-w081/bundle.json")).body;
    expect(there).toEqual(body);
    expect(verifyBundle(there)).toMatchObject({ verdict: "signed", signedBy: { key: home.storeKey.publicKey } });
    const { seal } = (await theirs.get("/api/deliveries/d-w081")).body;
    expect(seal).toMatchObject({
      key: home.storeKey.publicKey,
      from: { store: body.handover.store, taken: { verdict: "signed", knownSince: away.services.clock.today() } },
    });
    const paper = await away.readPaper(theirs, "/api/deliveries/d-w081/record.pdf");
    expect(paper).toContain(`sealed by ${body.handover.store}, taken in`);
    expect(paper).not.toContain("signed with this store's public key");
    const note = { id: ulid(), delivery: "d-w081", at: toInstant(Date.now()), by: seal.from.taken.by, device: "t" };
    const { id: by } = (await theirs.get("/api/me")).body;
    const added = { entries: [{ ...note, by, kind: "amend", note: "Seen at our yard" }] };
    expect((await theirs.send("POST", "/api/deliveries/d-w081/entries", added)).status).toBe(200);
    const after = (await theirs.get("/api/deliveries/d-w081/bundle.json")).body;
    expect(verifyBundle(after)).toMatchObject({ verdict: "unsigned", amendments: there.amendments.length + 1 });
  });

  it("is told apart in what was cut off or struck: each addition is signed by itself, and the end is stated", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w081/bundle.json");
    expect(body.amendments.length).toBeGreaterThan(1);
    const cut: Loose = { ...structuredClone(body), amendments: body.amendments.slice(0, -1) };
    delete cut.signature;
    expect(verifyBundle(cut)).toMatchObject({ verdict: "differs", differences: [{ code: "chain-broken" }] });
    const [first] = Object.keys(body.content.entries);
    const struck = structuredClone(body);
    delete struck.signature;
    struck.content.entries[first!] = { struck: true };
    const strike = {
      ...{ format: "ravik.amendment/3", delivery: "d-w081", previous: body.amendments.at(-1).sha256 },
      ...{ at: toInstant(Date.now()), why: "struck", entries: [], photos: [] },
      struck: { parts: [{ part: "entry", id: first }], by: "odile", reason: "Nobody asked" },
    };
    const sha256 = hashText(writeJson(strike));
    const key = createStoreKey();
    const link = hashText(writeLink(body.chain.link, sha256));
    const chain = { number: 900, previous: body.chain.link, link, key: key.publicKey, signature: key.sign(link) };
    struck.amendments.push({ sha256, amendment: strike, content: { people: {}, entries: {}, photos: {} }, chain });
    struck.end = { sha256, count: struck.amendments.length };
    expect(verifyBundle(struck)).toMatchObject({ verdict: "differs", differences: [{ code: "key-differs" }] });
  });
});

describe("what is no bundle", () => {
  const bomb = async () => {
    const zeros = Buffer.alloc(zipLimits.mostFileBytes + 1);
    return zipOf({ [bundleFile]: zeros });
  };
  const lying = async () => {
    const bytes = await zipOf({ [bundleFile]: Buffer.alloc(200_000) });
    // The central directory says ten bytes; what comes out is more.
    const at = bytes.indexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    bytes.writeUInt32LE(10, at + 24);
    return bytes;
  };
  const climbing = async () => {
    const writer = new yazl.ZipFile();
    writer.addBuffer(Buffer.from("{}"), "aa/handover.json");
    writer.end();
    const chunks: Buffer[] = [];
    for await (const chunk of writer.outputStream) chunks.push(chunk as Buffer);
    const bytes = Buffer.concat(chunks);
    for (let at = bytes.indexOf("aa/"); at >= 0; at = bytes.indexOf("aa/", at + 1)) bytes.write("../", at);
    return bytes;
  };
  it.each([
    ["a zip bomb", bomb, "too large"],
    ["a zip that lies about its sizes", lying, ""],
    ["a path that climbs out", climbing, ""],
    ["a file that does not belong", () => zipOf({ "run.sh": "rm" }), "does not belong"],
    ["no record inside", () => zipOf({ [photoFile("p1")]: "x" }), "there is no"],
    ["another schema", () => zipOf({ [bundleFile]: '{"format":"ravik.rig/1"}' }), "format"],
    ["broken JSON", () => zipOf({ [bundleFile]: "{" }), "not JSON"],
    ["text that is no UTF-8", () => zipOf({ [bundleFile]: Buffer.from([0xff, 0xfe, 0x00]) }), "not JSON"],
    ["half a JSON file", async () => Buffer.from('{"format": "ravik.bundle/2",'), "not JSON"],
    ["no zip at all", async () => Buffer.from("hello"), "cannot be opened"],
  ])("is refused with a reason: %s", async (_, make, reason) => {
    const answer = await preview(await make());
    expect([answer.status, answer.body.error.code]).toEqual([422, "not-a-bundle"]);
    expect(answer.body.error.reason).toContain(reason);
  });
});

describe("marks as CSV", () => {
  it("have a row for each mark that stands, in order, and start no formula", async () => {
    const note = { id: ulid(), delivery: "d-w118", at: toInstant(Date.now()), by: "nessa", device: "t" };
    const mark = {
      ...note,
      kind: "mark",
      topic: "horn",
      mark: "later",
      person: "b2",
      spentS: 4.2,
      note: "=1+1, later",
    };
    await nessa.send("POST", "/api/deliveries/d-w118/entries", { entries: [mark] });
    const { body, headers } = await nessa.get("/api/deliveries/d-w118/marks.csv");
    expect(headers.get("content-type")).toContain("text/csv");
    const { data } = Papa.parse<Record<string, string>>(body.text, { header: true });
    expect(data.at(-1)).toMatchObject({
      topic: "horn",
      mark: "later",
      for: "Lindy Okonjo-Bell",
      by: "Nessa Quill",
      seconds: "4.2",
      note: "'=1+1, later",
    });
  });
});

describe("the owner pack", () => {
  it.each([
    ["single", "a4", "d-w097"],
    ["two-up", "letter", "d-m204"],
  ])("prints %s on %s with a card a page, the label only for a token that opens it", async (layout, paper, id) => {
    const { token } = (await nessa.send("POST", `/api/deliveries/${id}/link`, { isRemote: false })).body;
    const print = async (label: string | null) => {
      const address = `${home.address}/api/deliveries/${id}/pack.pdf`;
      const headers = { cookie: nessa.cookie, origin: home.address, "content-type": "application/json" };
      const answer =
        label === null
          ? await fetch(`${address}?paper=${paper}&layout=${layout}`, { headers })
          : await fetch(address, { method: "POST", headers, body: JSON.stringify({ paper, layout, token: label }) });
      const file = join(folder, `${id}${label === null}.pdf`);
      writeFileSync(file, Buffer.from(await answer.arrayBuffer()));
      const info = execFileSync("pdfinfo", [file], { encoding: "utf8" });
      // Of each page the height of most of its words: its type size, as a reader sees it.
      const boxes = execFileSync("pdftotext", ["-bbox", file, "-"], { encoding: "utf8" }).split("<page ").slice(1);
      const heights = boxes.map((page) => {
        const found = [...page.matchAll(/yMin="([\d.]+)" xMax="[\d.]+" yMax="([\d.]+)"/g)];
        const sizes = found.map(([, top, bottom]) => (Number(bottom) - Number(top)).toFixed(1));
        return sizes.toSorted((a, b) => count(sizes, b) - count(sizes, a))[0];
      });
      return {
        heights,
        pages: Number(/Pages:\s+(\d+)/.exec(info)![1]),
        text: execFileSync("pdftotext", ["-layout", file, "-"], { encoding: "utf8" }),
      };
    };
    const plain = await print(null);
    expect(plain.pages).toBe(layout === "single" ? 12 : 6);
    // Each page says whose it is and how they are reached.
    for (const page of plain.text.split("\f").slice(0, plain.pages)) expect(page).toMatch(/Pellow & Marr.*555 0142/);
    // No code at the helm is promised where there is none.
    expect(plain.text).not.toMatch(/code at the helm/i);
    expect(plain.text).toContain("the emergency number, 911.");
    if (layout === "single") {
      const [shared] = plain.heights.toSorted((a, b) => count(plain.heights, b) - count(plain.heights, a));
      expect(count(plain.heights, shared), plain.heights.join(" ")).toBeGreaterThanOrEqual(9);
    }
    for (const words of ["It will not start", "Before you leave the boat", "Whom to call", "555 0142"])
      expect(plain.text).toContain(words);
    const labelled = await print(token);
    expect(labelled.text).toContain("Cut out and stick where the helm is");
    expect(plain.text).not.toContain("Cut out and stick");
    const wrong = await nessa.send("POST", "/api/deliveries/d-w118/pack.pdf", { token });
    expect(wrong.body.error.code).toBe("link-ended");
  });
});
