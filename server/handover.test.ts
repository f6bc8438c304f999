import { createHash } from "node:crypto";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { plainWishes } from "../core/route/index.ts";
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
  at: new Date().toISOString(),
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
    expect((await post(nessa, [one])).body).toEqual({ stored: [one.id], known: [] });
    expect((await post(nessa, [one])).body).toEqual({ stored: [], known: [one.id] });
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
      at: new Date().toISOString(),
      by: "nessa",
      device: "t",
      kind: "undo",
    };
    const answer = await post(nessa, [{ ...undo, ref: ulid() }]);
    expect([answer.status, answer.body.error.code]).toEqual([422, "unknown-ref"]);
  });

  it("show on Today as they come", async () => {
    const ready = (check: string) => ({
      id: ulid(),
      delivery: "d-w121",
      at: new Date().toISOString(),
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
    expect((await line()).readyDone).toBe(5);
    await post(tobin, [ready("trailer"), ready("keys")], "d-w121");
    expect((await line()).readyDone).toBe(7);
  });
});

describe("sealing", () => {
  it("waits for every must, count, reading and signature, and says what is missing", async () => {
    const answer = await nessa.send("POST", "/api/deliveries/d-w118/seal", {});
    expect([answer.status, answer.body.error.code]).toEqual([409, "not-ready-to-seal"]);
    expect((answer.body.error.obstacles as { code: string }[]).map(({ code }) => code)).toEqual([
      "must-open",
      "gear-uncounted",
      "hours-unread",
      "unsigned",
    ]);
  });

  it("happens once, from however many devices, and freezes what was marked", async () => {
    const delivery = await store.services.handoverDesk.describe("d-w118");
    const tale = tellWalk(delivery, {
      by: "nessa",
      startMs: Date.now() - 3_600_000,
      seed: 3,
      hours: { port: 0.9, starboard: 0.8 },
      isSigned: true,
    });
    expect((await post(nessa, tale)).status).toBe(200);
    const answers = await Promise.all([1, 2, 3].map(() => nessa.send("POST", "/api/deliveries/d-w118/seal", {})));
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409]);
    const won = answers.find(({ status }) => status === 200)!;
    const lost = answers.find(({ status }) => status === 409)!;
    expect(lost.body.error).toMatchObject({ code: "already-sealed", sha256: won.body.sha256 });
    const seal = (await store.services.deliveries.findSeal("d-w118"))!;
    expect(createHash("sha256").update(seal.canonical).digest("hex")).toBe(won.body.sha256);
    expect(JSON.parse(seal.canonical)).toMatchObject({ format: "ravik.handover/1", sealedBy: "nessa" });
    const keys = Object.keys(JSON.parse(seal.canonical));
    expect(keys).toEqual([...keys].sort());
  });

  it("lets notes and settlements be added, and nothing else", async () => {
    const marked = await post(nessa, [entry({ mark: "told" })]);
    expect([marked.status, marked.body.error.code]).toEqual([409, "sealed"]);
    const style = await nessa.send("PUT", "/api/deliveries/d-w118/plan", { ...plainWishes, style: "sweep" });
    expect(style.body.error.code).toBe("sealed");
    const note = { id: ulid(), delivery: "d-w118", at: new Date().toISOString(), by: "nessa", device: "t" };
    expect((await post(nessa, [{ ...note, kind: "amend", note: "Rang: all well." }])).status).toBe(200);
    const seal = (await store.services.deliveries.findSeal("d-w118"))!;
    expect(seal.canonical).not.toContain("Rang: all well.");
  });

  it("acknowledges again what was stored before the seal", async () => {
    const { body } = await nessa.get("/api/deliveries/d-w118");
    const old = body.entries.find(({ kind }: { kind: string }) => kind === "mark");
    expect((await post(nessa, [old])).body).toEqual({ stored: [], known: [old.id] });
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
    expect((await add(reading(14.5))).status).toBe(200);
    const after = await firstService();
    expect(after.dueDate < before.dueDate).toBe(true);
    const { body } = await nessa.get("/api/boats/w118");
    expect(body.care[0].breakIn).toMatchObject({ done: true, hours: 14.5 });
    expect(body.care[1].breakIn).toMatchObject({ done: false, hours: 0.8, phase: { maxRpm: 3000 } });
  });

  it("never fall without a reason, and keep the reason given", async () => {
    const refused = await add(reading(9));
    expect([refused.status, refused.body.error.code, refused.body.error.before]).toEqual([409, "hours-fall", 14.5]);
    const earlier = await add(reading(16, { date: "2020-01-01" }));
    expect(earlier.body.error.code).toBe("hours-fall");
    expect((await add(reading(9, { reason: "meter changed" }))).status).toBe(200);
    const { body } = await nessa.get("/api/boats/w118");
    expect(body.readings.at(-1).reason ?? body.readings.at(-2).reason).toBe("meter changed");
  });

  it.each([
    ["a date that does not exist", { date: "2026-02-29" }, "invalid-input"],
    ["a day to come", { date: "2199-01-01" }, "date-ahead"],
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
