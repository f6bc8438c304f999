import sharp from "sharp";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import type { Delivery } from "../api/index.ts";
import { toInstant } from "../core/dates/index.ts";
import { hashBytes } from "../core/hash/index.ts";
import { createPhotoId } from "../core/walk/index.ts";
import { tellWalk } from "../demo/walkEntries.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";
import { listFormer } from "./services/formerOwners.ts";

let store: TestStore;
let nessa: Caller;
let odile: Caller;
let nowMs = Date.parse("2026-06-13T12:00:00Z");
beforeAll(async () => {
  store = await openTestStore({ nowMs: () => nowMs });
  nessa = await store.signIn("nessa");
  odile = await store.signIn("odile");
});
afterAll(() => store.stop());

const dayMs = 86_400_000;
const today = () => store.services.clock.today();
async function handOver(boat: string, buyers: string[], meterH: number): Promise<Delivery> {
  const plan = { boat, date: today(), time: "10:00", buyers, note: "Haggles; short of money" };
  const { delivery } = (await odile.send("POST", "/api/deliveries", plan)).body;
  const allow = { id: ulid(nowMs), delivery, at: toInstant(nowMs), by: "odile", device: "t", kind: "allow" };
  await odile.send("POST", `/api/deliveries/${delivery}/entries`, { entries: [{ ...allow, reason: "As it stands" }] });
  const made = (await nessa.get(`/api/deliveries/${delivery}`)).body as unknown as Delivery;
  const hours = Object.fromEntries(made.rig.engines.map(({ id }) => [id, meterH]));
  const tale = tellWalk(made, { by: "nessa", startMs: nowMs - 8 * 3_600_000, seed: 3, hours, isSigned: true });
  const kept = await nessa.send("POST", `/api/deliveries/${delivery}/entries`, { entries: tale });
  expect([kept.status, kept.body.error]).toEqual([200, undefined]);
  const sealed = (await nessa.get(`/api/deliveries/${delivery}`)).body as unknown as Delivery;
  expect(sealed.seal).not.toBeNull();
  return sealed;
}
const linkTo = async (delivery: string): Promise<string> =>
  (await nessa.send("POST", `/api/deliveries/${delivery}/link`, { isRemote: false })).body.token;
const open = (token: string) => store.stranger.get(`/api/owner/${token}`);
const send = (token: string, what: string, body: object) =>
  store.stranger.send("POST", `/api/owner/${token}/${what}`, body);

describe("an owner's page", () => {
  let first: string;
  let reading: { id: string };
  let boat: string;
  beforeAll(async () => {
    const made = { name: "Wending 23", hull: "SLW23999K526", template: "wending-23" };
    boat = (await odile.send("POST", "/api/boats", made)).body.boat;
    const delivery = await handOver(boat, ["Dov Anselm"], 0.9);
    first = await linkTo(delivery.id);
    nowMs += 2 * dayMs;
    [nessa, odile] = [await store.signIn("nessa"), await store.signIn("odile")];
    reading = { id: ulid(nowMs), engine: "port", date: today(), hours: 3 } as never;
    expect((await send(first, "readings", reading)).status).toBe(200);
  });

  it("says nothing of what the store notes for itself", async () => {
    const page = JSON.stringify((await open(first)).body);
    expect(page).toContain("Dov Anselm");
    expect(page).not.toContain("Haggles");
  });

  it("names no photo that did not come by it, and so reads none", async () => {
    const bytes = await sharp({ create: { width: 9, height: 9, channels: 3, background: "#123456" } })
      .jpeg()
      .toBuffer();
    const photo = createPhotoId(hashBytes(bytes), "staff");
    await store.sendFile(nessa, `/api/photos/${photo}`, bytes);
    const { delivery } = (await open(first)).body;
    const entry = { id: ulid(nowMs), delivery: delivery.id, at: toInstant(nowMs), by: "owner", device: "owner-page" };
    const named = await send(first, "entries", {
      entries: [{ ...entry, kind: "photo", photo, topic: null, ref: null }],
    });
    expect(named.body.error.code).toBe("invalid-input");
    const meter = await send(first, "readings", { ...reading, id: ulid(nowMs), hours: 3.5, photo });
    expect(meter.body.error.code).toBe("invalid-input");
    expect((await store.stranger.get(`/api/owner/${first}/photos/${photo}`)).status).toBe(404);
  });

  it("stays theirs through a second session, and ends when the boat is handed to another", async () => {
    const second = await handOver(boat, ["Dov Anselm", "Una Anselm"], 4);
    expect((await open(first)).status).toBe(200);
    expect(second.seal).not.toBeNull();
    nowMs += 3 * dayMs;
    [nessa, odile] = [await store.signIn("nessa"), await store.signIn("odile")];
    const sold = await handOver(boat, ["Kerra Penhale"], 6);
    const ended = await open(first);
    expect([ended.status, ended.body.error.code]).toEqual([410, "link-ended"]);
    expect(ended.body.error).toMatchObject({ store: expect.stringContaining("Pellow"), phone: expect.any(String) });

    const former = (await nessa.get(`/api/boats/${boat}`)).body.deliveries[0].id;
    const again = await nessa.send("POST", `/api/deliveries/${former}/link`, { isRemote: false });
    expect([again.status, again.body.error.code]).toEqual([409, "boat-resold"]);
    const record = await nessa.send("POST", `/api/deliveries/${former}/messages`, { id: ulid(nowMs) });
    expect([record.status, record.body.error.code]).toEqual([409, "boat-resold"]);
    const token = await linkTo(sold.id);
    const theirs = { kind: "reading", id: reading.id, reason: "not mine" };
    const took = await send(token, "withdrawals", theirs);
    expect([took.status, took.body.error?.code]).toEqual([403, "not-allowed"]);
    const own = { ...reading, id: ulid(nowMs), date: today(), hours: 7 };
    expect((await send(token, "readings", own)).status).toBe(200);
    expect((await send(token, "withdrawals", { ...theirs, id: own.id })).status).toBe(200);
  });

  it("that nobody opens for more than a year ends; opened now and then it stays", async () => {
    const token = await linkTo("d-w112");
    for (let i = 0; i < 3; i++) {
      nowMs += 300 * dayMs;
      expect((await open(token)).status).toBe(200);
    }
    nowMs += 401 * dayMs;
    expect((await open(token)).body.error.code).toBe("link-ended");
  });
});

describe("a record that is sent", () => {
  it("is of its own handover though another is planned, and of nobody's once the boat is meant for others", async () => {
    [nessa, odile] = [await store.signIn("nessa"), await store.signIn("odile")];
    const made = { name: "Wending 23", hull: "SLW23998K526", template: "wending-23" };
    const { boat } = (await odile.send("POST", "/api/boats", made)).body;
    const { id } = await handOver(boat, ["Dov Anselm"], 0.9);
    const { contact } = (await nessa.get(`/api/boats/${boat}`)).body;
    await nessa.send("PUT", `/api/boats/${boat}/contact`, { ...contact, phone: "555 0142" });
    const plan = (buyers: string[]) =>
      odile.send("POST", "/api/deliveries", { boat, date: today(), time: "15:00", buyers, note: "" });
    const sendRecord = () => nessa.send("POST", `/api/deliveries/${id}/messages`, { id: ulid(nowMs) });
    await plan(["Dov Anselm"]);
    expect((await sendRecord()).body).toMatchObject({ kind: "record", recipient: "Dov Anselm" });
    const { messages } = (await nessa.get(`/api/deliveries/${id}/messages`)).body;
    expect(messages).toMatchObject([{ kind: "record" }]);
    await plan(["Kerra Penhale"]);
    expect((await sendRecord()).body.error.code).toBe("boat-resold");
  });
});

describe("whose page ends at a resale", () => {
  const of = (id: string, date: `${number}-${number}-${number}`, name: string) => ({
    id,
    date,
    buyers: [{ id: "b1", name }],
  });
  const now = of("now", "2026-06-13", "Bo Thwaite");
  it("is theirs who had it before, on the same day too; not a second session's, not a later one's", () => {
    const all = [
      of("earlier", "2026-06-01", "Ada Lunt"),
      of("same-day", "2026-06-13", "Cleo Arrow"),
      of("session", "2026-06-01", "bo thwaite"),
      of("later", "2026-06-14", "Dell Fell"),
      now,
    ];
    expect(listFormer(now, all).map(({ id }) => id)).toEqual(["earlier", "same-day"]);
  });
});
