import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { addDays } from "../core/dates/index.ts";
import { type Answer, type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let ines: Caller;
let nessa: Caller;
let odile: Caller;
let token: string;
const today = () => store.services.clock.today();

beforeAll(async () => {
  store = await openTestStore();
  [ines, nessa, odile] = [await store.signIn("ines"), await store.signIn("nessa"), await store.signIn("odile")];
  token = (await nessa.send("POST", "/api/deliveries/d-w112/link", { isRemote: false })).body.token;
});
afterAll(() => store.stop());

const engineOf = async (boat: string, i = 0) => (await nessa.get(`/api/boats/${boat}`)).body.care[i];
/** Saves a boat's rig with its engines changed. */
const changeEngines = async (boat: string, change: (engine: { burnLph?: number }) => object) => {
  const { rig, name, hull, version } = (await odile.get(`/api/boats/${boat}/rig`)).body;
  const engines = rig.engines.map(change);
  const answer = await odile.send("PUT", `/api/boats/${boat}/rig`, { name, hull, version, rig: { ...rig, engines } });
  expect(answer.status).toBe(200);
};

describe("a used boat", () => {
  const read = async () => (await ines.get("/api/boats/f207")).body;
  const itemsOf = ({ care }: Answer["body"]) =>
    new Map(care[0].items.map((item: Record<string, unknown>) => [item.id, item]));

  it("has its hours and services written down before it goes out; a new one has not", async () => {
    const body = await read();
    expect(body.inService).toBeNull();
    const items = itemsOf(body);
    expect(items.has("first-service")).toBe(false);
    expect(items.get("annual")).toMatchObject({ lastDone: addDays(today(), -1), targetH: 286.4, isUnknown: false });
    expect(items.get("impeller")).toMatchObject({ lastDone: addDays(today(), -410), targetH: 321, state: "ahead" });
    // Of 2022, three years or 300 h, and nobody knows: it counts as not done.
    expect(items.get("bellows")).toMatchObject({ lastDone: null, isUnknown: true, state: "overdue", by: "calendar" });
    expect(body.care[0].forecast).toBeNull();
    const service = { id: ulid(), engine: "main", item: "annual", date: today(), hours: 1 };
    expect((await ines.send("POST", "/api/boats/h402/services", service)).body.error.code).toBe("not-delivered");
    const reading = { id: ulid(), engine: "main", date: today(), hours: 1, source: "phone" };
    expect((await ines.send("POST", "/api/boats/h402/readings", reading)).body.error.code).toBe("not-delivered");
  });

  it("takes papers that turn up later, of any day that has been", async () => {
    const paper = { id: ulid(), engine: "main", item: "bellows", date: addDays(today(), -900), hours: 60 };
    const elsewhere = { ...paper, outcome: "elsewhere", note: "Stamp in its book" };
    expect((await ines.send("POST", "/api/boats/f207/services", elsewhere)).status).toBe(200);
    expect(itemsOf(await read()).get("bellows")).toMatchObject({ isUnknown: false, targetH: 360 });
    const ahead = { ...elsewhere, id: ulid(), date: addDays(today(), 1) };
    expect((await ines.send("POST", "/api/boats/f207/services", ahead)).body.error.code).toBe("date-ahead");
  });

  it("once handed over is planned from that, and has no first service to come", async () => {
    await store.database.inTransaction((transaction) =>
      store.services.boats.setInService("f207", today(), transaction),
    );
    const { visits } = await read();
    const planned = visits.flatMap(({ items }: { items: { item: string }[] }) => items.map(({ item }) => item));
    expect(planned).toContain("annual");
    expect(planned).not.toContain("first-service");
  });

  it("is not foretold from hours that others ran", async () => {
    const yearH = async () => (await read()).care[0].forecast.yearH.p50;
    const before = await yearH();
    // 20 h in ten days, by whoever had it before, would make a heavy user of anybody.
    const reading = { id: ulid(), engine: "main", date: addDays(today(), -11), hours: 166, source: "phone" };
    expect((await ines.send("POST", "/api/boats/f207/readings", reading)).status).toBe(200);
    expect(await yearH()).toBe(before);
  });

  it("says in the walk and in make-ready what others changed", async () => {
    const { topics, makeReady } = (await nessa.get("/api/deliveries/d-f207")).body;
    const told = topics.find(({ id }: { id: string }) => id === "used-changes");
    expect(told.say).toContain("second battery under the port seat, on the house switch; stereo and four speakers");
    expect(makeReady.map(({ id }: { id: string }) => id)).toContain("used-service");
    const other = (await nessa.get("/api/deliveries/d-h402")).body;
    expect(other.topics.some(({ id }: { id: string }) => id.startsWith("used-"))).toBe(false);
  });
});

describe("fuel taken", () => {
  const note = (change: object = {}) =>
    ines.send("POST", "/api/boats/w081/fills", { id: ulid(), date: today(), litres: 90, isFull: true, ...change });
  const read = async () => (await ines.get("/api/boats/w081")).body;
  const countInTanks = (burnLph?: number) =>
    changeEngines("w081", ({ burnLph: _, ...engine }) => ({
      ...engine,
      breakInPack: "tanks-3",
      ...(burnLph === undefined ? {} : { burnLph }),
    }));

  it("from brim to brim measures what each of twins burns, and turns tanks into hours without anything entered", async () => {
    await countInTanks();
    const before = await read();
    expect(before.care[0]).toMatchObject({ isByTanks: true, tankHours: null, limits: [] });
    const last = before.readings.at(-1).date;
    expect((await note({ date: last, litres: 0 })).status).toBe(200);
    expect((await read()).care[0].tankHours).toBeNull();
    for (const { engine, meterH } of before.care) {
      const reading = { id: ulid(), engine, date: today(), hours: meterH + 4, source: "phone", answer: "as-read" };
      expect((await ines.send("POST", "/api/boats/w081/readings", reading)).status).toBe(200);
    }
    const fill = { id: ulid() };
    for (const _ of [1, 2]) expect((await note(fill)).status).toBe(200);
    const { care, fills } = await read();
    expect(fills.map(({ litres, hasHours, by }: Record<string, unknown>) => [litres, hasHours, by])).toEqual([
      [0, true, "Ines Marr"],
      [90, true, "Ines Marr"],
    ]);
    for (const { tankHours } of care) {
      expect(tankHours.burnLph).toBeCloseTo(90 / 2 / 4, 6);
      expect(tankHours.measured.litres).toBe(45);
      expect(tankHours.lowH).toBeLessThanOrEqual(tankHours.likelyH);
    }
    expect(care[0].limits.at(-1).toH).toBeCloseTo(care[0].tankHours.likelyH, 6);
    // What is measured goes before what is entered; taken back, what is entered holds again.
    await countInTanks(30);
    expect((await read()).care[0].tankHours.burnLph).toBeCloseTo(11.25, 6);
    const wrong = { kind: "fill", id: fill.id, reason: "The other boat's" };
    expect((await ines.send("POST", "/api/boats/w081/withdrawals", wrong)).status).toBe(200);
    expect((await read()).care[0].tankHours).toMatchObject({ burnLph: 30, measured: null });
  });

  it("is refused in words where it cannot be", async () => {
    expect((await note({ litres: 0, isFull: false })).body.error.issues![0]!.path).toBe("litres");
    const tooMuch = (await note({ litres: 5000 })).body.error.issues![0]!.message;
    expect(tooMuch).toMatch(/is more than the tanks hold, \d+ gal/);
    const other = await note({ litres: 90, typed: { value: 90, unit: "us-gal" } });
    expect(other.body.error.issues![0]!).toMatchObject({ path: "typed" });
    expect((await note({ date: addDays(today(), 1) })).body.error.code).toBe("date-ahead");
    expect((await note({ date: "2020-02-29" })).body.error.code).toBe("before-delivery");
    const early = { id: ulid(), date: today(), litres: 20, isFull: true };
    expect((await ines.send("POST", "/api/boats/w121/fills", early)).body.error.code).toBe("not-delivered");
  });

  it("stays as it was typed, also when it is put right and when it is taken along", async () => {
    const fill = { id: ulid(), litres: 10 * 3.785411784, typed: { value: 10, unit: "us-gal" } };
    expect((await note(fill)).status).toBe(200);
    const kept = async () => (await read()).fills.find(({ litres }: { litres: number }) => litres < 60 && litres > 0);
    expect((await kept()).typed).toEqual(fill.typed);
    const right = { id: ulid(), date: today(), amount: 12.5 * 3.785411784, typed: { value: 12.5, unit: "us-gal" } };
    const wrong = { kind: "fill", id: fill.id, reason: "Read again", right };
    expect((await ines.send("POST", "/api/boats/w081/withdrawals", wrong)).status).toBe(200);
    expect((await kept()).typed).toEqual(right.typed);
    const csv = (await ines.get("/api/care/fills.csv")).body.text.split("\r\n");
    expect(csv[0]).toContain('"fuel, gal",as typed');
    expect(csv.some((line: string) => line.includes(",12.5,12.5 gal"))).toBe(true);
    const again = { kind: "fill", id: right.id, reason: "It was another boat's" };
    expect((await ines.send("POST", "/api/boats/w081/withdrawals", again)).status).toBe(200);
  });

  it("of an owner goes through their own page", async () => {
    const fill = { id: ulid(), date: today(), litres: 40, isFull: false };
    expect((await store.stranger.send("POST", `/api/owner/${token}/fills`, fill)).status).toBe(200);
    const page = async () => (await store.stranger.get(`/api/owner/${token}`)).body.fills;
    expect(await page()).toMatchObject([{ litres: 40, isFull: false, by: "Owner" }]);
    const withdraw = (id: string, kind = "fill") =>
      store.stranger.send("POST", `/api/owner/${token}/withdrawals`, { kind, id, reason: "Typed wrong" });
    const [ours] = (await store.stranger.get(`/api/owner/${token}`)).body.readings ?? (await read()).readings;
    if (ours !== undefined) expect((await withdraw(ours.id, "reading")).body.error.code).toMatch(/not-(allowed|found)/);
    expect((await withdraw(fill.id)).status).toBe(200);
    expect(await page()).toEqual([]);
  });
});

describe("what was entered wrong", () => {
  const post = (path: string, body: object, who = ines) => who.send("POST", `/api/boats/w097${path}`, body);
  const read = async () => (await ines.get("/api/boats/w097")).body;
  const add = (hours: number, change: object = {}) =>
    post("/readings", {
      id: ulid(),
      engine: "port",
      date: today(),
      hours,
      source: "phone",
      answer: "as-read",
      ...change,
    });

  it("a reading is put right: the wrong one stays to be seen and moves nothing, sent again it is not taken anew", async () => {
    const id = ulid();
    const before = (await read()).care[0].reportedH;
    expect((await add(before + 200, { id })).status).toBe(200);
    expect((await read()).care[0].reportedH).toBe(before + 200);
    const right = { id: ulid(), date: today(), amount: before + 2 };
    const wrong = { kind: "reading", id, reason: "A digit too many", right };
    for (const _ of [1, 2]) expect((await post("/withdrawals", wrong)).status).toBe(200);
    expect((await add(before + 200, { id })).status).toBe(200);
    const { care, readings, withdrawn } = await read();
    expect(care[0].reportedH).toBe(before + 2);
    expect(readings.map((each: { id: string }) => each.id)).toContain(right.id);
    expect(readings.map((each: { id: string }) => each.id)).not.toContain(id);
    expect(withdrawn).toMatchObject([
      { kind: "reading", id, reason: "A digit too many", by: "Ines Marr", isCorrected: true, amount: before + 200 },
    ]);
  });

  it("what would be right is asked about like any other, and nothing is withdrawn meanwhile", async () => {
    const { readings } = await read();
    const last = readings.at(-1);
    const fall = { kind: "reading", id: last.id, reason: "Misread", right: { id: ulid(), date: today(), amount: 0.1 } };
    expect((await post("/withdrawals", fall)).body.error.code).toBe("hours-fall");
    expect((await read()).readings.map(({ id }: { id: string }) => id)).toContain(last.id);
    const answered = { ...fall, right: { ...fall.right, answer: "meter-changed" } };
    expect((await post("/withdrawals", answered)).status).toBe(200);
    expect((await read()).care[0].meterH).toBe(0.1);
  });

  it("a service is its recorders' to withdraw, of this boat alone, with a reason", async () => {
    const service = { id: ulid(), engine: "port", item: "annual", date: today(), hours: 18 };
    expect((await post("/services", service)).status).toBe(200);
    const wrong = { kind: "service", id: service.id, reason: "The other engine" };
    const nessa = await store.signIn("nessa");
    expect((await post("/withdrawals", wrong, nessa)).body.error.code).toBe("not-allowed");
    expect((await ines.send("POST", "/api/boats/w081/withdrawals", wrong)).body.error.code).toBe("not-found");
    expect((await post("/withdrawals", { ...wrong, reason: " " })).status).toBe(422);
    const annual = async () => (await read()).care[0].items.find(({ id }: { id: string }) => id === "annual");
    expect((await annual()).lastDone).toBe(today());
    expect((await post("/withdrawals", wrong)).status).toBe(200);
    expect((await annual()).lastDone).not.toBe(today());
  });

  it("a run takes its reading with it", async () => {
    const id = ulid();
    const samples = Array.from({ length: 3601 }, (_, s) => [s, 3000]);
    const run = {
      date: today(),
      startMin: 600,
      source: "hand",
      fileName: "",
      engines: [{ id, engine: "starboard", samples }],
    };
    const before = (await read()).care[1].reportedH;
    expect((await post("/runs", run)).status).toBe(200);
    expect((await read()).care[1].reportedH).toBeGreaterThan(before + 0.9);
    expect((await post("/withdrawals", { kind: "run", id, reason: "Not this boat" })).status).toBe(200);
    const after = await read();
    expect(after.care[1].reportedH).toBe(before);
    expect(after.runs.map((each: { id: string }) => each.id)).not.toContain(id);
    // Sent again by a device that does not know, it is not taken anew; logged anew, it is.
    expect((await post("/runs", run)).status).toBe(200);
    expect((await read()).care[1].reportedH).toBe(before);
    const anew = ulid();
    const again = (runId: string) => post("/runs", { ...run, engines: [{ ...run.engines[0], id: runId }] });
    expect((await again(anew)).status).toBe(200);
    // The same file once more is noticed.
    const twice = await again(ulid());
    expect([twice.body.error.code, twice.body.error.minutes]).toEqual(["run-known", 60]);
    const { runs, care } = await read();
    expect(runs.filter((each: { date: string }) => each.date === today())).toHaveLength(1);
    expect(runs.at(-1).verdict.hoursAfter).toBeCloseTo(care[1].reportedH, 6);
  });
});

describe("packs", () => {
  it("of the store's own are laid over what ships, versioned, and hold for runs from then on", async () => {
    const { breakIn } = (await odile.get("/api/packs")).body;
    const shipped = breakIn.find(({ pack }: { pack: { id: string } }) => pack.id === "stepped-10").pack;
    const stricter = { ...shipped, phases: shipped.phases.map((phase: object) => ({ ...phase, steadyMaxMin: 2 })) };
    expect((await odile.send("PUT", "/api/packs/stepped-10", { kind: "breakin", pack: stricter })).status).toBe(200);
    const changed = (await odile.get("/api/packs")).body.breakIn.find(
      ({ pack }: { pack: { id: string } }) => pack.id === "stepped-10",
    );
    expect(changed).toMatchObject({ isShipped: true, isChanged: true, version: 2 });
    expect((await engineOf("w112")).limits[0].steady.maxMin).toBe(2);
    expect((await odile.send("DELETE", "/api/packs/stepped-10", {})).status).toBe(200);
    expect((await engineOf("w112")).limits[0].steady.maxMin).toBe(10);
  });

  it("whose rules contradict each other are refused, and one that is used is not removed", async () => {
    const { breakIn, service } = (await odile.get("/api/packs")).body;
    const [{ pack }] = breakIn;
    const gap = {
      ...pack,
      phases: pack.phases.map((phase: object, i: number) => (i === 1 ? { ...phase, fromH: 1.5 } : phase)),
    };
    const refused = await odile.send("PUT", `/api/packs/${pack.id}`, { kind: "breakin", pack: gap });
    expect(refused.status).toBe(422);
    const own = { ...service[0].pack, id: "our-own" };
    expect((await odile.send("PUT", "/api/packs/our-own", { kind: "service", pack: own })).status).toBe(200);
    await changeEngines("w112", (engine) => ({ ...engine, servicePack: "our-own" }));
    expect((await odile.send("DELETE", "/api/packs/our-own", {})).body.error).toMatchObject({
      code: "pack-used",
      boats: 1,
    });
    expect(
      (await ines.send("PUT", "/api/packs/other", { kind: "service", pack: own })).body.error.issues![0]!.path,
    ).toBe("pack.id");
  });

  it("of a rig that names one the store has not are the usual ones, and say so", async () => {
    await changeEngines("w081", (engine) => ({ ...engine, breakInPack: "gone", servicePack: "gone" }));
    const care = await engineOf("w081");
    expect(care.breakInTitle).toContain('("gone" is not in the library)');
    expect(care.serviceTitle).toContain('("gone" is not in the library)');
    expect(care.items.length).toBeGreaterThan(0);
    expect((await odile.get("/api/care")).status).toBe(200);
  });

  it("with a price say it on the visits of every boat that has them", async () => {
    const { service } = (await odile.get("/api/packs")).body;
    const boat = (await odile.get("/api/boats/w097")).body;
    const { pack } = service.find(
      ({ pack: { id } }: { pack: { id: string } }) => id === boat.rig.engines[0].servicePack,
    );
    const items = pack.items.map((item: { id: string }) =>
      item.id === "annual" ? { ...item, priceCents: 20_000 } : item,
    );
    expect(
      (await odile.send("PUT", `/api/packs/${pack.id}`, { kind: "service", pack: { ...pack, items } })).status,
    ).toBe(200);
    const visits: { priceCents: number | null; items: { item: string }[] }[] = (await odile.get("/api/boats/w097")).body
      .visits;
    for (const { priceCents, items: planned } of visits) {
      const annual = planned.filter(({ item }) => item === "annual").length;
      expect(priceCents).toBe(annual === 0 ? null : annual * 20_000);
    }
    expect(visits.some(({ priceCents }) => priceCents !== null)).toBe(true);
    expect((await odile.send("DELETE", `/api/packs/${pack.id}`, {})).status).toBe(200);
  });
});
