import { existsSync } from "node:fs";
import { get } from "node:http";
import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { toInstant } from "../core/dates/index.ts";
import { hashBytes } from "../core/hash/index.ts";
import { createPhotoId } from "../core/walk/index.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let nessa: Caller;
let token: string;
const makeLink = async (delivery: string, isRemote = true): Promise<string> =>
  (await nessa.send("POST", `/api/deliveries/${delivery}/link`, { isRemote })).body.token;
const entry = (change: object) => ({
  id: ulid(),
  delivery: "d-m204",
  at: toInstant(Date.now()),
  by: "owner",
  device: "owner-page",
  ...change,
});
const post = (entries: object[], key = token) => store.stranger.send("POST", `/api/owner/${key}/entries`, { entries });

beforeAll(async () => {
  store = await openTestStore();
  nessa = await store.signIn("nessa");
  token = await makeLink("d-m204");
});
afterAll(() => store.stop());

describe("an owner's page", () => {
  it("is opened by its token alone, and holds nothing that is the store's own business", async () => {
    expect(token).toMatch(/^[\w-]{22}$/);
    const allow = { id: ulid(), delivery: "d-m204", at: toInstant(Date.now()), by: "odile", device: "t" };
    const odile = await store.signIn("odile");
    await odile.send("POST", "/api/deliveries/d-m204/entries", {
      entries: [{ ...allow, kind: "allow", reason: "ferry" }],
    });
    const { status, body, headers } = await store.stranger.get(`/api/owner/${token}`);
    expect(status).toBe(200);
    expect(headers.get("cache-control")).toBe("no-store");
    expect(headers.get("referrer-policy")).toBe("no-referrer");
    expect(body.delivery.link).toMatchObject({ isRemote: true });
    expect(JSON.stringify(body.delivery.entries)).not.toContain("ferry");
    expect(body.cards.length).toBeGreaterThan(10);
  });

  it("is an app that starts at its own link, with icons that are there", async () => {
    const { status, body, headers } = await store.stranger.get(`/api/owner/${token}/manifest.webmanifest`);
    expect([status, headers.get("cache-control")]).toEqual([200, "no-store"]);
    expect(body).toMatchObject({ id: `/o/${token}`, start_url: `/o/${token}`, scope: `/o/${token}` });
    expect(body.name).toContain("Millrace 24");
    for (const { src } of body.icons) expect(existsSync(`web/public${src}`)).toBe(true);
    expect((await store.stranger.get("/api/owner/0123456789012345678901/manifest.webmanifest")).status).toBe(410);
  });

  it("keeps only the hash of its token", async () => {
    const rows = await store.database.models.ownerLinks.findAll({ raw: true });
    expect(rows).toHaveLength(1);
    expect(JSON.stringify(rows)).not.toContain(token);
  });

  it("is sent to the buyer on wish, and what is kept of the message opens nothing", async () => {
    const link = { isRemote: false, send: true };
    const { body } = await nessa.send("POST", "/api/deliveries/d-w112/link", link);
    const { messages } = (await nessa.get("/api/deliveries/d-w112/messages")).body;
    expect(messages).toMatchObject([{ state: "sent", text: expect.stringContaining("/o/…") }]);
    expect(JSON.stringify(messages)).not.toContain(body.token);
    expect((await store.stranger.get(`/api/owner/${body.token}`)).status).toBe(200);
  });

  it("takes what is the owner's to enter, once, and shows it to the yard", async () => {
    const did = entry({ kind: "remote", topic: "horn", as: "did" });
    const asked = entry({ kind: "ask", topic: null, note: "Which fuel?" });
    expect((await post([did, asked])).body).toEqual({ stored: [did.id, asked.id], known: [] });
    expect((await post([did])).body).toEqual({ stored: [], known: [did.id] });
    const { owed } = (await nessa.get("/api/today")).body;
    expect(owed).toContainEqual(expect.objectContaining({ what: "question", text: "Which fuel?", ref: asked.id }));
  });

  it.each([
    ["a mark", { kind: "mark", topic: "horn", mark: "did", person: null, spentS: 1 }, "not-allowed"],
    ["a close", { kind: "close" }, "not-allowed"],
    ["an entry in another's name", { kind: "ask", topic: null, note: "x", by: "nessa" }, "not-your-entry"],
    ["an entry for another handover", { kind: "ask", topic: null, note: "x", delivery: "d-w118" }, "wrong-delivery"],
    ["a check that there is none of", { kind: "inspect", check: "sails", ok: true }, "invalid-input"],
  ])("refuses %s", async (_, change, code) => {
    expect((await post([entry(change)])).body.error.code).toBe(code);
  });

  it("takes photos, and shows only those of this handover", async () => {
    const picture = { create: { width: 20, height: 20, channels: 3, background: "#123" } } as const;
    const jpeg = await sharp(picture).jpeg().toBuffer();
    const photo = createPhotoId(hashBytes(jpeg), "owner");
    expect((await store.sendFile(store.stranger, `/api/owner/${token}/photos/${photo}`, jpeg)).status).toBe(200);
    expect((await store.stranger.get(`/api/owner/${token}/photos/${photo}`)).status).toBe(404);
    await post([entry({ kind: "photo", photo, topic: null, ref: null })]);
    expect((await store.stranger.get(`/api/owner/${token}/photos/${photo}?size=small`)).status).toBe(200);
    expect((await store.stranger.get(`/api/photos/${photo}`)).status).toBe(401);
  });

  it("ends when it is replaced or ended; another's token opens nothing else", async () => {
    const other = await makeLink("d-w097", false);
    expect((await post([entry({ kind: "ask", topic: null, note: "x" })], other)).body.error.code).toBe(
      "wrong-delivery",
    );
    const fresh = await makeLink("d-m204");
    const old = await store.stranger.get(`/api/owner/${token}`);
    expect([old.status, old.body.error.code]).toEqual([410, "link-ended"]);
    await nessa.send("DELETE", "/api/deliveries/d-m204/link", {});
    expect((await store.stranger.get(`/api/owner/${fresh}`)).body.error.code).toBe("link-ended");
    expect((await store.stranger.get(`/api/owner/${"A".repeat(22)}`)).status).toBe(410);
    expect((await store.stranger.get("/api/owner/short")).status).toBe(410);
  });
});

describe("the news of a handover", () => {
  it("come to whoever listens, as they are stored, and not of another handover", async () => {
    const heard: string[] = [];
    const request = get(
      `${store.address}/api/deliveries/d-w118/news`,
      { headers: { cookie: nessa.cookie, "accept-encoding": "gzip" } },
      (answer) => answer.setEncoding("utf8").on("data", (text: string) => heard.push(text)),
    );
    const until = async (isSo: () => boolean) => {
      for (let tries = 0; !isSo() && tries < 200; tries++) await new Promise((resolve) => setTimeout(resolve, 10));
      expect(isSo()).toBe(true);
    };
    await until(() => heard.join("").includes("hello"));
    const mark = (delivery: string) => ({
      id: ulid(),
      delivery,
      at: toInstant(Date.now()),
      by: "nessa",
      device: "t",
      kind: "mark",
      topic: "horn",
      mark: "told",
      person: null,
      spentS: 1,
    });
    const [here, elsewhere] = [mark("d-w118"), mark("d-w121")];
    await nessa.send("POST", "/api/deliveries/d-w121/entries", { entries: [elsewhere] });
    await nessa.send("POST", "/api/deliveries/d-w118/entries", { entries: [here] });
    await until(() => heard.join("").includes(here.id));
    expect(heard.join("")).not.toContain(elsewhere.id);
    request.destroy();
  });
});

describe("messages", () => {
  it("are sent once by the stand-in when somebody tells the buyer, and can be read again", async () => {
    const owed = (await nessa.get("/api/owed")).body.lines.find(
      ({ delivery }: { delivery: string }) => delivery === "d-p615",
    );
    const tell = {
      ...entry({ delivery: "d-p615", by: "nessa" }),
      kind: "tell",
      ref: owed.ref,
      text: "The part is here.",
    };
    for (let i = 0; i < 2; i++) await nessa.send("POST", "/api/deliveries/d-p615/entries", { entries: [tell] });
    const { messages } = (await nessa.get("/api/deliveries/d-p615/messages")).body;
    expect(messages).toMatchObject([{ id: tell.id, recipient: "Severin Halloway", state: "sent" }]);
    const line = (await nessa.get("/api/owed")).body.lines.find(({ ref }: { ref: string }) => ref === owed.ref);
    expect(line.message).toEqual({ id: tell.id, at: tell.at, state: "sent" });
  });
});

describe("their record", () => {
  const send = (delivery: string, id = ulid()) => nessa.send("POST", `/api/deliveries/${delivery}/messages`, { id });
  it("is asked for a number where none is known, then goes to them with the store's name and their page", async () => {
    const none = await send("d-p615");
    expect([none.status, none.body.error.code]).toEqual([409, "no-contact"]);
    const { boat } = (await nessa.get("/api/deliveries/d-p615")).body;
    const { contact } = (await nessa.get(`/api/boats/${boat}`)).body;
    await nessa.send("PUT", `/api/boats/${boat}/contact`, { ...contact, phone: "555 0142" });
    const id = ulid();
    for (let i = 0; i < 2; i++) {
      const { body } = await send("d-p615", id);
      expect(body).toMatchObject({ id, kind: "record", state: "sent" });
      expect(body.text).toContain("this is Pellow & Marr");
      expect(body.text).toMatch(/\/o\/…/);
    }
  });

  it("is not sent before it is sealed", async () => {
    const draft = await send("d-w118");
    expect([draft.status, draft.body.error.code]).toEqual([409, "not-sealed"]);
  });
});

describe("what is forgotten here", () => {
  it("is learned from calls and from marks made late, and ranks what is open", async () => {
    const before = (await nessa.get("/api/deliveries/d-w118")).body.forgotten;
    expect(before["transom-straps"]).toBeGreaterThan(before.covers ?? 0);
    const { rows, handovers } = await store.services.deliveries.countForgotten();
    expect(handovers).toBeGreaterThan(2);
    const call = entry({ delivery: "d-p615", by: "nessa", kind: "call", topic: "horn", note: "No sound" });
    await nessa.send("POST", "/api/deliveries/d-p615/entries", { entries: [call] });
    const after = (await store.services.deliveries.countForgotten()).rows;
    const calls = (list: typeof rows) => list.find(({ topic }) => topic === "horn")?.calls ?? 0;
    expect(calls(after)).toBe(calls(rows) + 1);
  });
});
