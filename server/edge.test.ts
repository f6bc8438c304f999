import { Writable } from "node:stream";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { createFuzz, listOperations } from "../cli/fuzz.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let odile: Caller;
let ines: Caller;
const logged: string[] = [];
const logTo = new Writable({
  write(chunk, _, done) {
    logged.push(String(chunk));
    done();
  },
});
beforeAll(async () => {
  store = await openTestStore({ logTo });
  odile = await store.signIn("odile");
  ines = await store.signIn("ines");
});
afterAll(() => store.stop());

const linkTo = async (delivery: string): Promise<string> =>
  (await odile.send("POST", `/api/deliveries/${delivery}/link`, { isRemote: false })).body.token;
const today = () => store.services.clock.today();

describe("what once stopped the server or made it fail", () => {
  const raw = (path: string, init: RequestInit) =>
    fetch(store.address + path, { ...init, headers: { cookie: odile.cookie, origin: store.address, ...init.headers } });
  const jpeg = { "content-type": "image/jpeg" };
  const json = { "content-type": "application/json" };
  it.each([
    ["an empty photo", () => raw("/api/photos/p1", { method: "PUT", headers: jpeg, body: new Uint8Array() })],
    [
      "plain JSON that says it is packed",
      () => raw("/api/verify", { method: "POST", headers: { ...json, "content-encoding": "gzip" }, body: "{}" }),
    ],
    [
      "NUL in a text",
      () => raw("/api/care/texts", { method: "PUT", headers: json, body: '{"texts":{"a\\u0000":"b"}}' }),
    ],
    [
      "NUL in a hull number",
      () =>
        raw("/api/boats", {
          method: "POST",
          headers: json,
          body: JSON.stringify({ name: "Boat", hull: "SLW\u0000", template: "wending-23" }),
        }),
    ],
    ["a path that climbs", () => raw("/api/boats/%2e%2e%2f%2e%2e%2fdata", {})],
    ["a lone %", () => raw("/api/boats/%", {})],
  ])("%s is answered with a word of what is wrong", async (_, send) => {
    const answer = await send();
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
  });

  it("a browser that takes nothing unpacked is answered all the same", async () => {
    const answer = await raw("/api/today", { headers: { "accept-encoding": "identity;q=0" } });
    expect(answer.status).toBeLessThan(500);
  });

  it("one id for a reading, a fill, a service or a run of two boats is refused on the second", async () => {
    const reading = { id: ulid(), engine: "port", date: today(), hours: 30, source: "phone" };
    expect((await ines.send("POST", "/api/boats/w097/readings", reading)).status).toBe(200);
    const again = await ines.send("POST", "/api/boats/w112/readings", { ...reading, answer: "slip", reason: "x" });
    expect([again.status, again.body.error?.code]).toEqual([422, "invalid-input"]);
    expect((await ines.send("POST", "/api/boats/w097/readings", reading)).status).toBe(200);
    const fill = { id: ulid(), date: today(), litres: 20, isFull: true };
    expect((await ines.send("POST", "/api/boats/w097/fills", fill)).status).toBe(200);
    expect((await ines.send("POST", "/api/boats/w112/fills", fill)).status).toBe(422);
    const id = ulid();
    const run = { date: today(), startMin: 720, source: "hand", fileName: "" };
    const samples = Array.from({ length: 60 }, (_, s) => [s, 1200]);
    const once = { ...run, engines: [{ id: ulid(), engine: "port", samples }] };
    expect((await ines.send("POST", "/api/boats/w097/runs", once)).status).toBe(200);
    expect((await ines.send("POST", "/api/boats/w112/runs", once)).status).toBe(422);
    const twice = { ...run, engines: ["port", "starboard"].map((engine) => ({ id, engine, samples })) };
    const both = await ines.send("POST", "/api/boats/w097/runs", twice);
    expect([both.status >= 400, both.status < 500]).toEqual([true, true]);
  });
});

describe("a fuzz from the server's own description", () => {
  it("is never answered with a fault of ours", { timeout: 120_000 }, async () => {
    const operations = listOperations((await odile.get("/api/openapi.json")).body);
    expect(operations.length).toBeGreaterThan(60);
    const ids = ["w097", "w112", "d-w118", "d-m204", "wending-23", "horn", "port", "readings", ulid(), "none"];
    const ask = createFuzz(operations, ids, 15);
    const failed: unknown[] = [];
    for (let i = 0; i < 700; i++) {
      const { method, path, body } = ask();
      const caller = i % 2 === 0 ? odile : ines;
      const answer = await (method === "GET"
        ? caller.get(path)
        : caller.send(method as "POST", path, JSON.stringify(body)));
      if (answer.status >= 500 && answer.body.error?.code !== "busy") failed.push([method, path, body]);
    }
    expect(failed).toEqual([]);
  });
});

describe("what one may ask", () => {
  it("papers by one link: a few at once, the rest are told to come again; a mark is stored meanwhile", async () => {
    const token = await linkTo("d-w112");
    const packs = Array.from({ length: 12 }, () => fetch(`${store.address}/api/owner/${token}/pack.pdf`));
    const statuses = (await Promise.all(packs)).map(({ status }) => status);
    expect(statuses.filter((status) => status === 200)).toHaveLength(4);
    expect(statuses.filter((status) => status === 503)).toHaveLength(8);
  });

  it("only so often", async () => {
    const token = await linkTo("d-w121");
    let last = 200;
    for (let i = 0; i < 41 && last !== 429; i++)
      last = (await fetch(`${store.address}/api/owner/${token}/pack.pdf?layout=x`)).status;
    expect(last).toBe(429);
  });
});

describe("the log", () => {
  it("holds no token of an owner, no code and no password", async () => {
    const token = await linkTo("d-m204");
    await store.stranger.get(`/api/owner/${token}`);
    await store.stranger.get(`/api/owner/${token}/pack.pdf?layout=x`);
    await fetch(`${store.address}/o/${token}`);
    const { code } = (await odile.send("POST", "/api/invites", { name: "Anybody", role: "sales" })).body;
    await store.stranger.send("POST", "/api/joining", { code });
    await store.stranger.send("POST", "/api/sign-in", { login: "odile", password: "a guess at it" });
    const all = logged.join("");
    expect(all).toContain("/api/owner/…");
    for (const secret of [token, code, "a guess at it", "slack-water"]) expect(all).not.toContain(secret);
  });
});
