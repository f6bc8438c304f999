import Papa from "papaparse";
import { ulid } from "ulid";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { careTables } from "../api/index.ts";
import { addDays, minutesOfDay, toInstant } from "../core/dates/index.ts";
import { createTell, sayTold } from "../core/language/index.ts";
import { makeFleet } from "../demo/makeFleet.ts";
import { type Caller, openTestStore, type TestStore } from "./openTestStore.ts";

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

describe("boats", () => {
  it("are listed and found by their contact where they were sold before handovers were kept here", async () => {
    const { boatService, boats } = store.services;
    const { boats: rows } = await boatService.list();
    const row = rows.find(({ id }) => id.startsWith("f"))!;
    const { name } = JSON.parse((await boats.find(row.id))!.contact) as { name: string };
    expect(row.buyers).toBe(name);
    const stages = (await boatService.list()).stages;
    for (const [stage, count] of Object.entries(stages)) {
      const of = await boatService.list({ stage: stage as keyof typeof stages });
      expect([of.boatsFound, of.boats.every((row) => row.stage === stage)]).toEqual([count, true]);
    }
    expect((await boatService.list({ page: 1 })).boats).toEqual([]);
    const found = await boatService.list({ find: ` ${name.toUpperCase().split(" ").reverse().join("  ")} ` });
    expect(found.boats.map(({ id }) => id)).toContain(row.id);
    expect(found.boatsFound).toBeLessThan(found.boatsInAll);
  });
});

describe("runs", () => {
  it("kept when sentences were whole are read as they were written", async () => {
    const id = ulid();
    await nessa.send("POST", "/api/boats/w112/runs", runOf({ startMin: 60 }, { id }));
    const { runs } = store.database.models;
    const row = (await runs.findByPk(id))!;
    const verdict = JSON.parse(row.get("verdict") as string);
    const asBefore = { ...verdict, breaches: verdict.breaches.map((each: object) => ({ ...each, says: "too long" })) };
    await runs.update({ verdict: JSON.stringify({ ...asBefore, advice: ["Go on."] }) }, { where: { id } });
    const { body } = await nessa.get(`/api/boats/w112/runs/${id}`);
    expect(body.run.verdict.advice).toEqual([{ phrase: "Go on.", values: [] }]);
    expect(body.run.verdict.breaches[0].says).toEqual({ phrase: "too long", values: [] });
    await runs.destroy({ where: { id } });
  });

  it("are judged as they come, kept once, move the hours on, and cover the speeds they turned", async () => {
    const before = await engineOf("w112");
    const run = runOf();
    const first = await nessa.send("POST", "/api/boats/w112/runs", run);
    const { says } = first.body.runs[0].verdict.breaches[0];
    expect(sayTold(says, createTell(null))).toContain("longer than 10 min at one speed");
    expect((await nessa.send("POST", "/api/boats/w112/runs", run)).body.runs).toEqual(first.body.runs);
    const after = await engineOf("w112");
    expect(after.reportedH).toBeCloseTo(before.reportedH + 0.5, 6);
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
    expect(kept.body.runs[0]).toMatchObject({ by: "Owner", source: "file" });
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

describe("the call list", () => {
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

  it("has all messages in one list, found by boat, person or words; what waits can be stopped, what was stopped sent again", async () => {
    const list = async (query: string) => (await ines.get(`/api/messages?${query}`)).body;
    const { clock } = store.services;
    const hour = Math.floor(minutesOfDay(clock.nowMs(), clock.timeZone) / 60);
    await setQuietHours(hour, (hour + 2) % 24);
    const held = await write("w118", { text: "A very quiet word: 100% of it" });
    await setQuietHours(0, 0);
    expect(held.body.state).toBe("waiting");
    const { messages, states, found } = await list("find=quiet%20word%3A%20100%25");
    expect([found, states.waiting]).toEqual([1, 1]);
    expect(messages[0]).toMatchObject({ id: held.body.id, boat: "w118", serial: "23118", state: "waiting" });
    expect((await list("state=failed&find=very%20quiet")).messages).toEqual([]);
    const act = (what: string, body?: object) =>
      ines.send("POST", `/api/boats/w118/messages/${held.body.id}/${what}`, body);
    const again = { id: ulid() };
    expect((await act("again", again)).body.error).toMatchObject({ code: "message-gone", state: "waiting" });
    expect((await act("stop")).status).toBe(200);
    expect((await act("stop")).body.error).toMatchObject({ code: "message-gone", state: "stopped" });
    const twice = [await act("again", again), await act("again", again)];
    expect(twice.map(({ body }) => body.id)).toEqual([again.id, again.id]);
    const found2 = await list("find=very%20quiet");
    expect(found2.messages.map(({ state }: { state: string }) => state).sort()).toEqual(["sent", "stopped"]);
    expect((await ines.send("POST", `/api/boats/w112/messages/${held.body.id}/stop`, undefined)).status).toBe(404);
  });

  it("leaves alone who named a day, calls back on it, and puts a question before all; an e-mail is kept if it is one", async () => {
    const call = (more: object) => write("w097", { kind: "call", text: "After the regatta", ...more });
    const far = addDays(today(), 20);
    expect((await call({ callBackOn: far })).status).toBe(200);
    expect(await line("w097")).toMatchObject({
      callBack: { on: far, note: "After the regatta", by: "ines" },
      reasons: [{ reason: "call-back", date: far, isOverdue: false }],
    });
    await call({ callBackOn: today() });
    expect((await line("w097")).reasons[0]).toMatchObject({ reason: "call-back" });
    // Reached, there is nothing to call back for; what was there before is there again.
    await call({ text: "They come on Friday" });
    const after = await line("w097");
    expect([after.callBack, after.reasons[0].reason]).toEqual([null, "promise-late"]);
    const ask = {
      id: ulid(),
      delivery: "d-w112",
      at: toInstant(Date.now()),
      by: "owner",
      device: "phone",
      kind: "ask",
    };
    const asked = { ...ask, topic: null, note: "Which oil do I buy?" };
    const told = await store.stranger.send("POST", `/api/owner/${token}/entries`, { entries: [asked] });
    expect(told.status).toBe(200);
    const { lines } = (await ines.get("/api/care")).body;
    expect(lines[0].reasons[0].reason).toBe("question");
    expect(await line("w112")).toMatchObject({
      questions: [{ delivery: "d-w112", ref: ask.id, text: "Which oil do I buy?" }],
    });
    const contact = (email: string) =>
      ines.send("PUT", "/api/boats/w097/contact", { name: "", phone: "555 0177", email, optOut: true });
    expect([(await contact("no address")).status, (await contact("ana@example.test")).status]).toEqual([422, 200]);
    expect((await line("w097")).contact.email).toBe("ana@example.test");
  });

  it("takes from an owner until when their gear is good and how they are reached, and overwrites nothing the yard wrote", async () => {
    const put = (what: string, body: object) => store.stranger.send("PUT", `/api/owner/${token}/${what}`, body);
    const page = async () => (await store.stranger.get(`/api/owner/${token}`)).body;
    const { gear } = (await page()).delivery.rig;
    expect((await put("dates", { item: gear[0].id, until: "2028-05-31" })).status).toBe(200);
    expect((await put("dates", { item: "registration", until: "2027-03-31" })).status).toBe(200);
    expect((await put("dates", { item: "sextant", until: "2027-03-31" })).status).toBe(422);
    expect((await put("dates", { item: gear[0].id, until: null })).status).toBe(200);
    expect((await page()).gearDates).toEqual({ registration: "2027-03-31" });
    await ines.send("PUT", "/api/boats/w112/contact", { name: "", phone: "555 0134", optOut: false });
    expect((await put("contact", { phone: "1", email: "dov@example.test", optOut: false })).status).toBe(200);
    expect((await page()).isUnreached).toBe(false);
    expect((await ines.get("/api/boats/w112")).body.contact).toMatchObject({
      phone: "555 0134",
      email: "dov@example.test",
    });
  });

  it("knows a boat by its stock number, sorts by it, and shows which is being made ready", async () => {
    const boats = async (query: string) => (await ines.get(`/api/boats?${query}`)).body.boats;
    expect((await nessa.send("PUT", "/api/boats/w112/stock", { stock: "A-0001", color: "white" })).status).toBe(200);
    expect((await nessa.send("PUT", "/api/boats/w112/stock", { stock: "x".repeat(31), color: "" })).status).toBe(422);
    expect((await boats("find=a-0001")).map(({ id }: { id: string }) => id)).toEqual(["w112"]);
    const sorted = (await boats("sort=stock")).map(({ stock }: { stock: string }) => stock);
    expect(sorted[0]).toBe("A-0001");
    const known = sorted.filter((stock: string) => stock !== "");
    expect(sorted.slice(0, known.length)).toEqual([...known].sort());
    const sold = (await boats("sort=sold")).map(({ inService }: { inService: string | null }) => inService ?? "");
    expect(sold).toEqual([...sold].sort().reverse());
    const making = await boats("stage=making-ready");
    expect(making.length).toBeGreaterThan(0);
    expect(making.every(({ inService }: { inService: string | null }) => inService === null)).toBe(true);
  });

  it("finds a message by letters of every kind, with or without their accents", async () => {
    await ines.send("PUT", "/api/boats/w112/contact", {
      name: "Émile Łącki-Ångström",
      phone: "555 0199",
      optOut: false,
    });
    const sent = await write("w112", { text: "À bientôt" });
    const find = async (words: string) => {
      const { messages } = (await ines.get(`/api/messages?find=${encodeURIComponent(words)}`)).body;
      return messages.some(({ id }: { id: string }) => id === sent.body.id);
    };
    const finds = await Promise.all(["À BIENTÔT", "a bientot", "bientôt", "à demain"].map(find));
    expect(finds).toEqual([true, true, true, false]);
    const boats = async (words: string) =>
      (await ines.get(`/api/boats?find=${encodeURIComponent(words)}&stage=all&page=0`)).body.boats.length;
    expect([await boats("wenche ångström-nobody"), await boats("QXR")]).toEqual([0, expect.any(Number)]);
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

  /** A boat that was never handed over here, whose people may be written to. */
  const findOld = async (): Promise<string> =>
    (await ines.get("/api/care")).body.lines.find(
      ({ delivery, contact }: { delivery: string | null; contact: { optOut: boolean } }) =>
        delivery === null && !contact.optOut,
    ).boat;

  it("refuses an address for a boat that has no page", async () => {
    const boat = await findOld();
    const answer = await write(boat, { text: "Hours: {link}", withLink: true });
    expect(answer.body.error.code).toBe("no-owner-page");
    expect((await write(boat)).body.state).toBe("sent");
  });

  it("refuses in quiet hours what it would refuse by day, and keeps the rest for the morning", async () => {
    const hour = new Date(store.services.clock.nowMs()).getUTCHours();
    await setQuietHours(hour, (hour + 2) % 24);
    const boat = await findOld();
    const answer = await write(boat, { text: "Hours: {link}", withLink: true });
    expect(answer.body.error.code).toBe("no-owner-page");
    expect((await write(boat)).body.state).toBe("waiting");
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
    // The store's weeks begin on Sunday.
    const weekOf = (weeks: { begins: string; byKind: Record<string, number> }[]) =>
      weeks.find(({ begins }) => begins === addDays(nextMonday(), -1))!;
    const week = weekOf(sheet.weeks);
    expect(week.byKind.booked).toBe(3);
    await ines.send("PUT", `/api/bookings/${id}`, booking({ items, date: addDays(nextMonday(), 7) }));
    const moved = (await ines.get("/api/workshop")).body.weeks;
    expect(weekOf(moved).byKind.booked).toBe(0);
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

  it("have a number for each event that goes up when a slot or a handover is moved", async () => {
    const { token } = (await ines.send("POST", "/api/feed", {})).body;
    const numberOf = async (uid: RegExp) => {
      const text = unfold((await store.stranger.get(`/api/feeds/${token}`)).body.text);
      const event = text.split("BEGIN:VEVENT").find((each: string) => uid.test(each))!;
      return Number(/SEQUENCE:(\d+)/.exec(event)![1]);
    };
    const [slot] = (await ines.get("/api/workshop")).body.bookings.filter(
      (each: { state: string; date: string }) => each.state === "booked" && each.date >= today(),
    );
    const uid = new RegExp(`UID:booking-${slot.id}@`);
    const before = await numberOf(uid);
    const { by: _, boatName: __, serial: ___, buyers: ____, id, ...rest } = slot;
    const moved = await ines.send("PUT", `/api/bookings/${id}`, { ...rest, startMin: rest.startMin + 15 });
    expect(moved.status).toBe(200);
    expect(await numberOf(uid)).toBeGreaterThan(before);
    const handover = /UID:handover-d-w118@/;
    const was = await numberOf(handover);
    await store.database.models.deliveries.update({ time: "16:45" }, { where: { id: "d-w118" } });
    const now = await numberOf(handover);
    expect(now).toBeGreaterThan(was);
    // A mark changes what is summed up of a handover, and nothing that stands in a calendar.
    await store.database.models.deliveries.update({ owed: 3 }, { where: { id: "d-w118" } });
    expect(await numberOf(handover)).toBe(now);
  });

  it("give tables with the boat by its hull number, units in the heads, rounded figures, and heads where there is no row", async () => {
    const rows = async (what: string) =>
      Papa.parse<Record<string, string>>((await ines.get(`/api/care/${what}.csv`)).body.text, { header: true });
    const readings = await rows("readings");
    expect(readings.meta.fields).toEqual(expect.arrayContaining(["boat", "hull number", "serial", "engine hours, h"]));
    expect(readings.data[0]!["hull number"]).toMatch(/^[A-Z0-9]{12}/);
    const runs = await rows("runs");
    expect(runs.data.length).toBeGreaterThan(0);
    for (const row of runs.data) expect(row["engine hours after, h"]).toMatch(/^\d+(\.\d)?$/);
    for (const what of careTables) {
      const { meta } = await rows(what);
      expect(meta.fields!.length, what).toBeGreaterThan(8);
      expect(meta.fields!.join(), what).not.toMatch(/boatId|labourH|hoursBefore|priceCents/);
    }
    await store.database.models.messages.destroy({ where: {} });
    expect((await rows("messages")).meta.fields).toContain("words");
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
