import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { addDays } from "../core/dates/index.ts";
import { makeFleet } from "../demo/makeFleet.ts";
import { type Answer, type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let ines: Caller;
let nessa: Caller;
let token: string;
const today = () => store.services.clock.today();

beforeAll(async () => {
  store = await openTestStore();
  await makeFleet(store.database, store.services.clock.today(), 40);
  [ines, nessa] = [await store.signIn("ines"), await store.signIn("nessa")];
  token = (await nessa.send("POST", "/api/deliveries/d-w112/link", { isRemote: false })).body.token;
});
afterAll(() => store.stop());

const steady = (minutes: number, rpm: number) =>
  Array.from({ length: minutes * 60 + 1 }, (_, s): [number, number] => [s, rpm]);
const runOf = (change: object = {}, engine: object = {}) => ({
  date: today(),
  startMin: 750,
  source: "file",
  fileName: "a.csv",
  engines: [{ id: ulid(), engine: "port", samples: steady(30, 2800), ...engine }],
  ...change,
});
const engineOf = async (boat: string, i = 0) => (await nessa.get(`/api/boats/${boat}`)).body.care[i];

describe("runs", () => {
  it("are judged as they come, kept once, move the hours on, and cover the speeds they turned", async () => {
    const before = await engineOf("w112");
    const run = runOf();
    const first = await nessa.send("POST", "/api/boats/w112/runs", run);
    expect(first.body.runs[0].verdict.breaches[0].says).toContain("longer than 10 min at one speed");
    expect((await nessa.send("POST", "/api/boats/w112/runs", run)).body.runs).toEqual(first.body.runs);
    const after = await engineOf("w112");
    expect(after.toldH).toBeCloseTo(before.toldH + 0.5, 6);
    expect(after.coverage.find(({ fromRpm }: { fromRpm: number }) => fromRpm === 2500).s).toBe(1800);
    const { body } = await nessa.get(`/api/boats/w112/runs/${run.engines[0]!.id}`);
    expect(body.samples.length).toBeGreaterThan(1000);
    expect(body.limits[0].maxRpm).toBe(3000);
    expect(body.temperatures).toEqual([]);
  });

  it("keep the coolant that was recorded with them, and refuse what no coolant is", async () => {
    const temperatures = [
      [0, 18],
      [600, 71.5],
    ];
    const run = runOf({}, { engine: "starboard", temperatures });
    expect((await nessa.send("POST", "/api/boats/w097/runs", run)).status).toBe(200);
    const { body } = await nessa.get(`/api/boats/w097/runs/${run.engines[0]!.id}`);
    expect(body.temperatures).toEqual(temperatures);
    const slipped = runOf({}, { temperatures: [[0, 3200]] });
    expect((await nessa.send("POST", "/api/boats/w097/runs", slipped)).body.error.code).toBe("invalid-input");
  });

  it("of an owner go through their own page and no other boat's", async () => {
    const run = runOf({ source: "gateway" }, { engine: "starboard" });
    const kept = await store.stranger.send("POST", `/api/owner/${token}/runs`, run);
    expect(kept.body.runs[0]).toMatchObject({ by: "Owner", source: "gateway" });
    expect((await store.stranger.get(`/api/owner/${token}/runs/${run.engines[0]!.id}`)).status).toBe(200);
    const other = await nessa.send("POST", "/api/boats/w097/runs", runOf());
    expect((await store.stranger.get(`/api/owner/${token}/runs/${other.body.runs[0].id}`)).status).toBe(404);
  });

  it.each([
    ["a day to come", { date: "2199-01-01" }, {}, "date-ahead"],
    ["a day before the handover", { date: "2020-01-01" }, {}, "before-delivery"],
    ["an engine this boat has not", {}, { engine: "third" }, "invalid-input"],
    [
      "samples out of order",
      {},
      {
        samples: [
          [0, 700],
          [2, 700],
          [1, 700],
        ],
      },
      "invalid-input",
    ],
    [
      "negative speed",
      {},
      {
        samples: [
          [0, 700],
          [1, -1],
        ],
      },
      "invalid-input",
    ],
  ])("with %s are refused, and nothing of them is kept", async (_, change, engine, code) => {
    const before = (await nessa.get("/api/boats/w112")).body;
    const answer = await nessa.send("POST", "/api/boats/w112/runs", runOf(change, engine));
    expect(answer.body.error.code).toBe(code);
    const after = (await nessa.get("/api/boats/w112")).body;
    expect([after.runs.length, after.readings.length]).toEqual([before.runs.length, before.readings.length]);
  });

  it("wait for the handover", async () => {
    expect((await nessa.send("POST", "/api/boats/w121/runs", runOf())).body.error.code).toBe("not-delivered");
  });
});

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
      store.services.boats.setCare("f207", { inService: today(), dueDate: null }, transaction),
    );
    const { visits } = await read();
    const planned = visits.flatMap(({ items }: { items: { item: string }[] }) => items.map(({ item }) => item));
    expect(planned).toContain("annual");
    expect(planned).not.toContain("first-service");
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
  const countInTanks = async (burnLph?: number) => {
    const owner = await store.signIn("odile");
    const { rig, name, hull, version } = (await owner.get("/api/boats/w081/rig")).body;
    const engines = rig.engines.map(({ burnLph: _, ...engine }: { burnLph?: number }) => ({
      ...engine,
      breakInPack: "tanks-3",
      ...(burnLph === undefined ? {} : { burnLph }),
    }));
    const answer = await owner.send("PUT", "/api/boats/w081/rig", { name, hull, version, rig: { ...rig, engines } });
    expect(answer.status).toBe(200);
  };

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
    expect((await ines.send("DELETE", `/api/boats/w081/fills/${fill.id}`, {})).status).toBe(200);
    expect((await read()).care[0].tankHours).toMatchObject({ burnLph: 30, measured: null });
  });

  it("is refused in words where it cannot be", async () => {
    expect((await note({ litres: 0, isFull: false })).body.error.issues![0]!.path).toBe("litres");
    expect((await note({ litres: 5000 })).body.error.issues![0]!.message).toContain("more than the tanks hold");
    expect((await note({ date: addDays(today(), 1) })).body.error.code).toBe("date-ahead");
    expect((await note({ date: "2020-02-29" })).body.error.code).toBe("before-delivery");
    const early = { id: ulid(), date: today(), litres: 20, isFull: true };
    expect((await ines.send("POST", "/api/boats/w121/fills", early)).body.error.code).toBe("not-delivered");
    expect((await ines.send("DELETE", `/api/boats/w081/fills/${ulid()}`, {})).body.error.code).toBe("not-found");
  });

  it("of an owner goes through their own page", async () => {
    const fill = { id: ulid(), date: today(), litres: 40, isFull: false };
    expect((await store.stranger.send("POST", `/api/owner/${token}/fills`, fill)).status).toBe(200);
    const page = async () => (await store.stranger.get(`/api/owner/${token}`)).body.fills;
    expect(await page()).toMatchObject([{ litres: 40, isFull: false, by: "Owner" }]);
    expect((await store.stranger.send("DELETE", `/api/owner/${token}/fills/${fill.id}`, {})).status).toBe(200);
    expect(await page()).toEqual([]);
  });
});

describe("services", () => {
  const serve = (change: object) =>
    ines.send("POST", "/api/boats/w081/services", {
      id: ulid(),
      engine: "port",
      item: "annual",
      date: today(),
      hours: 24,
      ...change,
    });

  it("done elsewhere or skipped say who or why, and move the next one like any", async () => {
    expect((await serve({ outcome: "elsewhere" })).body.error.issues![0]!.path).toBe("note");
    expect((await serve({ outcome: "elsewhere", note: "Yard on the north shore, receipt seen" })).status).toBe(200);
    const { body } = await ines.get("/api/boats/w081");
    expect(body.services.at(-1)).toMatchObject({ outcome: "elsewhere", note: expect.stringContaining("receipt") });
    expect(body.care[0].items.find(({ id }: { id: string }) => id === "annual")).toMatchObject({
      targetH: 124,
      lastDone: today(),
    });
  });

  it("of the boat itself are kept beside those of its engines", async () => {
    expect((await serve({ engine: "boat", item: "bearing-grease", hours: 0, priceCents: 4500 })).status).toBe(200);
    expect((await serve({ engine: "boat", item: "annual" })).body.error.issues![0]!.path).toBe("item");
    const { body } = await ines.get("/api/boats/w081");
    const soon = body.visits
      .filter(({ date }: { date: string }) => date < addDays(today(), 300))
      .flatMap(({ items }: { items: object[] }) => items);
    expect(soon.map(({ item }: { item: string }) => item)).not.toContain("bearing-grease");
  });
});

describe("the desk", () => {
  const setQuietHours = (from: number, to: number) => store.services.settings.change({ quietHours: { from, to } });
  /** The clock of these tests is the wall's: at whatever hour they run, it is not a quiet one. */
  beforeAll(() => setQuietHours(0, 0));

  const line = async (boat: string) =>
    (await ines.get("/api/care")).body.lines.find((each: { boat: string }) => each.boat === boat);
  const write = (boat: string, change: object = {}) =>
    ines.send("POST", `/api/boats/${boat}/messages`, {
      id: ulid(),
      kind: "service",
      text: "Shall we book you a slot?",
      withLink: false,
      ...change,
    });

  it("ranks what matters most first, with reasons in words", async () => {
    const { lines, boats } = (await ines.get("/api/care")).body;
    expect(boats).toBeGreaterThan(30);
    const weights = lines.map(({ weight }: { weight: number }) => weight);
    expect(weights).toEqual([...weights].sort((a: number, b: number) => b - a));
    expect((await line("w097")).reasons[0]).toMatchObject({ reason: "promise-late", isOverdue: true });
  });

  it("honours who does not want messages, and takes calls all the same", async () => {
    await ines.send("PUT", "/api/boats/w097/contact", { name: "", phone: "555 0177", optOut: true });
    expect((await write("w097")).body.error.code).toBe("opted-out");
    const call = await write("w097", { kind: "call", text: "They come on Tuesday" });
    expect(call.body).toMatchObject({ state: "answered", kind: "call" });
    expect((await line("w097")).contact.optOut).toBe(true);
  });

  it("puts the address of their page in the text, keeps none of it, and notes the hours they then tell", async () => {
    const asked = await write("w112", { kind: "ask-hours", text: "Your hours, please: {link}", withLink: true });
    expect(asked.status).toBe(200);
    expect(asked.body.text).toContain("/o/…");
    const reading = { id: ulid(), engine: "port", date: today(), hours: 4.2, answer: "as-read" };
    expect((await store.stranger.send("POST", `/api/owner/${token}/readings`, reading)).status).toBe(200);
    const { messages } = (await ines.get("/api/boats/w112/messages")).body;
    expect(messages[0]).toMatchObject({ state: "answered", answer: "4.2 h" });
    // The first address still opens: it is on the label at the helm.
    expect((await store.stranger.get(`/api/owner/${token}`)).status).toBe(200);
  });

  it("speaks in the store's own words once they are kept, and refuses words for no template", async () => {
    const texts = async () => (await ines.get("/api/care")).body.templates;
    const before = (await texts()).find(({ id }: { id: string }) => id === "hello").text;
    expect(
      (await ines.send("PUT", "/api/care/texts", { texts: { hello: "Good day {buyers}, all well with {boat}?" } }))
        .status,
    ).toBe(200);
    expect((await texts()).find(({ id }: { id: string }) => id === "hello").text).toBe(
      "Good day {buyers}, all well with {boat}?",
    );
    const refused = await ines.send("PUT", "/api/care/texts", { texts: { nothing: "x" } });
    expect(refused.body.error.issues![0]!.path).toBe("texts.nothing");
    await ines.send("PUT", "/api/care/texts", { texts: {} });
    expect((await texts()).find(({ id }: { id: string }) => id === "hello").text).toBe(before);
  });

  it("refuses an address for a boat that has no page", async () => {
    const { lines } = (await ines.get("/api/care")).body;
    const old = lines.find(
      ({ delivery, contact }: { delivery: string | null; contact: { optOut: boolean } }) =>
        delivery === null && !contact.optOut,
    );
    const answer = await write(old.boat, { text: "Hours: {link}", withLink: true });
    expect(answer.body.error.code).toBe("no-owner-page");
    expect((await write(old.boat)).body.state).toBe("sent");
  });

  it("refuses in quiet hours what it would refuse by day, and keeps the rest for the morning", async () => {
    const hour = new Date(store.services.clock.nowMs()).getUTCHours();
    await setQuietHours(hour, (hour + 2) % 24);
    const { lines } = (await ines.get("/api/care")).body;
    const old = lines.find(
      ({ delivery, contact }: { delivery: string | null; contact: { optOut: boolean } }) =>
        delivery === null && !contact.optOut,
    );
    const answer = await write(old.boat, { text: "Hours: {link}", withLink: true });
    expect(answer.body.error.code).toBe("no-owner-page");
    expect((await write(old.boat)).body.state).toBe("waiting");
    await setQuietHours(0, 0);
  });
});

describe("the workshop", () => {
  const booking = (change: object = {}) => ({
    boat: "w097",
    date: nextMonday(),
    startMin: 540,
    labourH: 3,
    items: [],
    note: "",
    state: "booked",
    ...change,
  });
  const nextMonday = () => {
    let day = addDays(today(), 1);
    while (new Date(`${day}T12:00:00Z`).getUTCDay() !== 1) day = addDays(day, 1);
    return day;
  };

  it("books, moves and cancels, and expects a booked job in its week alone", async () => {
    const id = ulid();
    const items = [{ scope: "port", item: "first-service", title: "First service" }];
    expect((await ines.send("PUT", `/api/bookings/${id}`, booking({ items }))).status).toBe(200);
    const sheet = (await ines.get("/api/workshop")).body;
    expect(sheet.bookings).toContainEqual(expect.objectContaining({ id, boatName: "Wending 23" }));
    const week = sheet.weeks.find(({ monday }: { monday: string }) => monday === nextMonday());
    expect(week.byKind.booked).toBe(3);
    await ines.send("PUT", `/api/bookings/${id}`, booking({ items, date: addDays(nextMonday(), 7) }));
    const moved = (await ines.get("/api/workshop")).body.weeks;
    expect(moved.find(({ monday }: { monday: string }) => monday === nextMonday()).byKind.booked).toBe(0);
    await ines.send("PUT", `/api/bookings/${id}`, booking({ items, state: "cancelled" }));
    expect((await ines.get("/api/workshop")).body.bookings.map((each: { id: string }) => each.id)).not.toContain(id);
  });

  it("refuses a day nobody works, a boat it does not know, and another boat's slot", async () => {
    const sunday = booking({ date: addDays(nextMonday(), 6) });
    expect((await ines.send("PUT", `/api/bookings/${ulid()}`, sunday)).body.error).toMatchObject({
      code: "slot-closed",
    });
    const closed = {
      hoursPerDay: [6, 6, 6, 6, 6, 2, 0],
      closed: [{ from: nextMonday(), to: nextMonday(), why: "boat show" }],
    };
    await ines.send("PUT", "/api/workshop", closed);
    expect((await ines.send("PUT", `/api/bookings/${ulid()}`, booking())).body.error).toMatchObject({
      code: "slot-closed",
      why: "boat show",
    });
    await ines.send("PUT", "/api/workshop", { ...closed, closed: [] });
    expect((await ines.send("PUT", `/api/bookings/${ulid()}`, booking({ boat: "none" }))).status).toBe(404);
    const id = ulid();
    await ines.send("PUT", `/api/bookings/${id}`, booking());
    expect((await ines.send("PUT", `/api/bookings/${id}`, booking({ boat: "w112" }))).body.error.issues![0]!.path).toBe(
      "boat",
    );
    expect((await nessa.send("PUT", "/api/workshop", closed)).status).toBe(403);
  });
});

describe("calendars and tables", () => {
  const unfold = (text: string) => text.replace(/\r\n /g, "");

  it("give a boat's milestones under ids that stay, and their number goes up when something changes", async () => {
    const read = async () => unfold((await ines.get("/api/boats/w081/calendar.ics")).body.text);
    const before = await read();
    expect(before).toMatch(/^BEGIN:VCALENDAR/);
    const uids = (text: string) => [...text.matchAll(/UID:(\S+)/g)].map((match) => match[1]).sort();
    expect(uids(await read())).toEqual(uids(before));
    expect(new Set(uids(before)).size).toBe(uids(before).length);
    const sequence = (text: string) => Number(/SEQUENCE:(\d+)/.exec(text)![1]);
    const reading = { id: ulid(), engine: "port", date: today(), hours: 30, answer: "as-read", source: "phone" };
    await ines.send("POST", "/api/boats/w081/readings", reading);
    expect(sequence(await read())).toBeGreaterThan(sequence(before));
  });

  it("give the store a feed by a token that can be replaced", async () => {
    const make = async () => (await ines.send("POST", "/api/feed", {})).body.token;
    const first = await make();
    const feed = await store.stranger.get(`/api/feeds/${first}`);
    expect(unfold(feed.body.text)).toContain("Handover\\, Wending 23");
    await make();
    expect((await store.stranger.get(`/api/feeds/${first}`)).status).toBe(410);
    expect(JSON.stringify(await store.database.models.settings.findAll({ raw: true }))).not.toContain(first);
  });

  it("give everything as CSV and JSON, and no cell that starts a formula", async () => {
    await ines.send("POST", "/api/boats/w081/services", {
      id: ulid(),
      engine: "port",
      item: "plugs",
      date: today(),
      hours: 30,
      note: "=1+1",
    });
    const csv = (await ines.get("/api/care/services.csv")).body.text;
    expect(csv).toContain("'=1+1");
    const all = (await ines.get("/api/care/all.json")).body;
    expect(Object.keys(all)).toEqual(["readings", "fills", "services", "runs", "bookings", "messages"]);
    expect((await nessa.get("/api/care/all.json")).status).toBe(403);
  });
});

describe("packs", () => {
  const odile = () => store.signIn("odile");

  it("of the store's own are laid over what ships, versioned, and hold for runs from then on", async () => {
    const owner = await odile();
    const { breakIn } = (await owner.get("/api/packs")).body;
    const shipped = breakIn.find(({ pack }: { pack: { id: string } }) => pack.id === "stepped-10").pack;
    const stricter = { ...shipped, phases: shipped.phases.map((phase: object) => ({ ...phase, steadyMaxMin: 2 })) };
    expect((await owner.send("PUT", "/api/packs/stepped-10", { kind: "breakin", pack: stricter })).status).toBe(200);
    const changed = (await owner.get("/api/packs")).body.breakIn.find(
      ({ pack }: { pack: { id: string } }) => pack.id === "stepped-10",
    );
    expect(changed).toMatchObject({ isShipped: true, isChanged: true, version: 2 });
    expect((await engineOf("w112")).limits[0].steady.maxMin).toBe(2);
    expect((await owner.send("DELETE", "/api/packs/stepped-10", {})).status).toBe(200);
    expect((await engineOf("w112")).limits[0].steady.maxMin).toBe(10);
  });

  it("whose rules contradict each other are refused, and one that is used is not removed", async () => {
    const owner = await odile();
    const { breakIn, service } = (await owner.get("/api/packs")).body;
    const [{ pack }] = breakIn;
    const gap = {
      ...pack,
      phases: pack.phases.map((phase: object, i: number) => (i === 1 ? { ...phase, fromH: 1.5 } : phase)),
    };
    const refused = await owner.send("PUT", `/api/packs/${pack.id}`, { kind: "breakin", pack: gap });
    expect(refused.status).toBe(422);
    const own = { ...service[0].pack, id: "our-own" };
    expect((await owner.send("PUT", "/api/packs/our-own", { kind: "service", pack: own })).status).toBe(200);
    const sheet = (await owner.get("/api/boats/w112/rig")).body;
    const rig = {
      ...sheet.rig,
      engines: sheet.rig.engines.map((engine: object) => ({ ...engine, servicePack: "our-own" })),
    };
    await owner.send("PUT", "/api/boats/w112/rig", { version: sheet.version, name: sheet.name, hull: sheet.hull, rig });
    expect((await owner.send("DELETE", "/api/packs/our-own", {})).body.error).toMatchObject({
      code: "pack-used",
      boats: 1,
    });
    expect(
      (await ines.send("PUT", "/api/packs/other", { kind: "service", pack: own })).body.error.issues![0]!.path,
    ).toBe("pack.id");
  });

  it("of a rig that names one the store has not are the usual ones, and say so", async () => {
    const owner = await odile();
    const sheet = (await owner.get("/api/boats/w081/rig")).body;
    const rig = {
      ...sheet.rig,
      engines: sheet.rig.engines.map((engine: object) => ({ ...engine, breakInPack: "gone", servicePack: "gone" })),
    };
    const saved = { version: sheet.version, name: sheet.name, hull: sheet.hull, rig };
    expect((await owner.send("PUT", "/api/boats/w081/rig", saved)).status).toBe(200);
    const care = await engineOf("w081");
    expect(care.breakInTitle).toContain('("gone" is not in the library)');
    expect(care.serviceTitle).toContain('("gone" is not in the library)');
    expect(care.items.length).toBeGreaterThan(0);
    expect((await owner.get("/api/care")).status).toBe(200);
  });

  it("with a price say it on the visits of every boat that has them", async () => {
    const owner = await odile();
    const { service } = (await owner.get("/api/packs")).body;
    const boat = (await owner.get("/api/boats/w097")).body;
    const { pack } = service.find(
      ({ pack: { id } }: { pack: { id: string } }) => id === boat.rig.engines[0].servicePack,
    );
    const items = pack.items.map((item: { id: string }) =>
      item.id === "annual" ? { ...item, priceCents: 20_000 } : item,
    );
    expect(
      (await owner.send("PUT", `/api/packs/${pack.id}`, { kind: "service", pack: { ...pack, items } })).status,
    ).toBe(200);
    const visits: { priceCents: number | null; items: { item: string }[] }[] = (await owner.get("/api/boats/w097")).body
      .visits;
    for (const { priceCents, items: planned } of visits) {
      const annual = planned.filter(({ item }) => item === "annual").length;
      expect(priceCents).toBe(annual === 0 ? null : annual * 20_000);
    }
    expect(visits.some(({ priceCents }) => priceCents !== null)).toBe(true);
    expect((await owner.send("DELETE", `/api/packs/${pack.id}`, {})).status).toBe(200);
  });
});
