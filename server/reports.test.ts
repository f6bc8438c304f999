import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { ReportSheet } from "../api/index.ts";
import { servicePacks } from "../content/index.ts";
import { addDays, addMonths, type LocalDate } from "../core/dates/index.ts";
import type { Rig } from "../core/rig/index.ts";
import { followMerges } from "../core/topic/index.ts";
import type { Entry, EntryOf } from "../core/walk/index.ts";
import { makeLargeStore } from "../demo/makeLargeStore.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let sheet: ReportSheet;
let today: LocalDate;
interface Walk {
  readonly id: string;
  readonly isNow: boolean;
  readonly boat: string;
  readonly entries: readonly Entry[];
}
/** All handovers of these two years with their entries in the order in which they came, read plainly. */
let walks: Walk[];

const plain = <R>(rows: readonly { get(what: { plain: true }): unknown }[]) =>
  rows.map((row) => row.get({ plain: true })) as R[];

beforeAll(async () => {
  store = await openTestStore();
  today = store.services.clock.today();
  await makeLargeStore(store.database, today, 60, { sealed: 30 });
  const { deliveries, entries, boats } = store.database.models;
  const [from, turn] = [addMonths(today, -24), addMonths(today, -12)];
  const rows = plain<{ id: string; boatId: string; date: LocalDate }>(await deliveries.findAll());
  const sealed = plain<{ deliveryId: string; kind: string }>(await store.database.models.chain.findAll());
  const closed = new Set(sealed.flatMap(({ deliveryId, kind }) => (kind === "handover" ? [deliveryId] : [])));
  const latest = rows.filter(({ id, date }) => closed.has(id) && date <= today && date >= turn);
  // What the demo tells none of: musts left undone, and topics put off at last.
  let number = 10_000_000;
  for (const [i, { id }] of latest.slice(0, 9).entries()) {
    const base = { id: ulid(), delivery: id, at: `${today}T10:00:00Z`, by: "nessa", device: "test" };
    const told = [
      { ...base, kind: "reason", topic: "extinguisher", reason: i % 3 === 0 ? "No time" : "Buyer knows it" },
      { ...base, id: ulid(), kind: "mark", topic: "horn", mark: "later", person: null, spentS: 4 },
    ];
    for (const body of told)
      await entries.create({
        id: body.id,
        deliveryId: id,
        body: JSON.stringify(body),
        receivedAt: `${today}T10:00:00Z`,
        number: number++,
        via: "staff",
      });
  }
  // Of boats handed over long enough ago that their 90 days are over, in both years.
  const old = rows.filter(({ id, date }) => closed.has(id) && date < addDays(today, -120) && date >= from);
  for (const [i, { id, date }] of old.slice(0, 16).entries())
    for (const body of tellOwedTo(id, i, date)) {
      const told = body as { id: string; at: string };
      await entries.create({
        id: told.id,
        deliveryId: id,
        body: JSON.stringify(body),
        receivedAt: told.at as never,
        number: number++,
        via: "staff",
      });
    }
  // Signed by older versions, which did not note it, and by this one.
  for (const [i, { id }] of old.slice(0, 10).entries()) {
    const row = (await deliveries.findByPk(id))!;
    const summary = JSON.parse(row.get("summary") as string);
    const unreached = i === 9 ? undefined : i % 3 === 0 ? ["horn", "anchor"] : ["horn"];
    await row.update({ summary: JSON.stringify({ ...summary, state: "signed", unreached }) });
  }
  // Begun as one of those boats, and called otherwise.
  await (await boats.findByPk(old[0]!.boatId))!.update({ name: "Harlow 18 Skiff" });
  const nameOf = new Map(plain<{ id: string; name: string }>(await boats.findAll()).map(({ id, name }) => [id, name]));
  const all = plain<{ deliveryId: string; body: string; number: number }>(await entries.findAll());
  walks = rows
    .filter(({ date }) => date >= from && date <= today)
    .map(({ id, boatId, date }) => ({
      id,
      isNow: date >= turn,
      boat: nameOf.get(boatId)!,
      entries: all
        .filter(({ deliveryId }) => deliveryId === id)
        .sort((a, b) => a.number - b.number)
        .map(({ body }) => JSON.parse(body) as Entry),
    }));
  const odile = await store.signIn("odile");
  for (const [i, rpm] of [1500, 2800, 5500].entries()) {
    const samples = Array.from({ length: 900 }, (_, s) => [s, rpm]);
    const engines = [{ id: ulid(), engine: "port", samples }];
    const run = { date: today, startMin: 400 + i * 60, source: "file", fileName: `${i}.csv`, engines };
    expect((await odile.send("POST", "/api/boats/w112/runs", run)).status).toBe(200);
  }
  const answer = await odile.get("/api/reports");
  expect(answer.status).toBe(200);
  sheet = answer.body as unknown as ReportSheet;
}, 120_000);
afterAll(() => store.stop());

/** What the demo tells none of: a few snags, promises and calls, with what came of them. */
function tellOwedTo(delivery: string, i: number, on: LocalDate): object[] {
  const day = (n: number) => addDays(on, n);
  const entry = (n: number, more: object) => ({
    id: ulid(),
    delivery,
    at: `${day(n)}T10:00:00.000Z`,
    by: "nessa",
    device: "test",
    ...more,
  });
  const snag = entry(0, {
    kind: "snag",
    topic: null,
    note: "Scratch",
    stops: false,
    how: i % 5 === 4 ? "note" : "cosmetic",
  });
  const promise = entry(1, { kind: "promise", note: "Cover", isExtra: false, due: day(10) });
  const taken = entry(1, { kind: "promise", note: "Never said", isExtra: false });
  const wrong = entry(3, { kind: "call", topic: "horn", note: "Another boat" });
  return [
    snag,
    promise,
    taken,
    entry(2, { kind: "undo", ref: taken.id }),
    wrong,
    entry(4, { kind: "undo", ref: wrong.id }),
    ...(i % 3 === 0 ? [] : [entry(1 + i, { kind: "settle", ref: snag.id, note: "Polished" })]),
    ...(i % 2 === 0 ? [entry(5, { kind: "settle", ref: promise.id, note: "Brought" })] : []),
    ...(i % 4 === 0 ? [entry(100, { kind: "call", topic: "horn", note: "Later" })] : []),
    entry(3, { kind: "call", topic: i % 2 === 0 ? "horn" : null, note: "Rang" }),
  ];
}

const marksOf = ({ entries }: Walk, topic: string) =>
  entries.flatMap((entry) => (entry.kind === "mark" && entry.topic === topic ? [entry] : []));

it("minutes by topic are what a slow count says, this year and the year before", async () => {
  const { topics } = await store.services.libraryService.read();
  const nameOf = followMerges(topics);
  expect(sheet.minutes.topics.length).toBeGreaterThan(20);
  for (const { id, now, before } of sheet.minutes.topics) {
    for (const [isNow, estimate] of [
      [true, now],
      [false, before],
    ] as const) {
      const asked = topics.filter((topic) => nameOf(topic.id) === id).map((topic) => topic.id);
      const minutes = walks
        .filter((walk) => walk.isNow === isNow)
        .flatMap((walk) =>
          asked.flatMap((topic) => {
            const spentS = marksOf(walk, topic)
              .filter(({ mark }) => mark === "told" || mark === "shown" || mark === "did")
              .reduce((sum, mark) => sum + mark.spentS, 0);
            return spentS > 0 ? [Math.min(spentS, 1800) / 60] : [];
          }),
        );
      if (minutes.length < 5) expect(estimate).toBeNull();
      else {
        expect(estimate!.n).toBe(minutes.length);
        expect(estimate!.value).toBeCloseTo(minutes.reduce((sum, each) => sum + each, 0) / minutes.length, 6);
      }
    }
  }
});

it("minutes by specialist and place are made from every topic that was taught, each once a walk", async () => {
  const { topics } = await store.services.libraryService.read();
  const nameOf = followMerges(topics);
  const placeOf = new Map(topics.map(({ id, where }) => [id, where[0]!]));
  const people = new Map<string, number>();
  const places = new Map<string, number>();
  for (const walk of walks.filter(({ isNow }) => isNow)) {
    const marked = new Set(walk.entries.flatMap((entry) => (entry.kind === "mark" ? [entry.topic] : [])));
    for (const topic of marked) {
      const marks = marksOf(walk, topic);
      const spentS = marks
        .filter(({ mark }) => mark === "told" || mark === "shown" || mark === "did")
        .reduce((sum, mark) => sum + mark.spentS, 0);
      const place = placeOf.get(nameOf(topic));
      if (spentS === 0 || place === undefined) continue;
      const by = marks.at(-1)!.by;
      people.set(by, (people.get(by) ?? 0) + 1);
      places.set(place, (places.get(place) ?? 0) + 1);
    }
  }
  const countsOf = (lines: ReportSheet["minutes"]["people"]) =>
    new Map(lines.flatMap(({ id, now }) => (now === null ? [] : [[id, now.n] as const])));
  const enough = (counts: ReadonlyMap<string, number>) => new Map([...counts].filter(([, n]) => n >= 5));
  expect(countsOf(sheet.minutes.people)).toEqual(enough(people));
  expect(countsOf(sheet.minutes.places)).toEqual(enough(places));
  expect(people.size).toBeGreaterThan(0);
});

it("topics put off are those whose last mark says so, by what the boat is called", () => {
  const horn = sheet.putOff.filter(({ topic }) => topic === "horn");
  expect(horn.reduce((sum, { k }) => sum + k, 0)).toBe(9);
  for (const { topic, id, k, n } of sheet.putOff) {
    const [boat] = JSON.parse(id) as [string, string];
    const marked = walks
      .filter((walk) => walk.isNow && walk.boat === boat)
      .map((walk) => marksOf(walk, topic).at(-1)?.mark)
      .filter((mark) => mark !== undefined);
    expect([k, n], id).toEqual([marked.filter((mark) => mark === "later").length, marked.length]);
  }
});

it("musts not done are told with what was said of them, of all that were closed", async () => {
  const sealed = plain<{ deliveryId: string; kind: string }>(await store.database.models.chain.findAll());
  const closed = (isNow: boolean) =>
    walks.filter(
      (walk) => walk.isNow === isNow && sealed.some((link) => link.deliveryId === walk.id && link.kind === "handover"),
    ).length;
  expect(sheet.closed).toEqual({ now: closed(true), before: closed(false) });
  const line = sheet.notDone.find(({ id }) => id === "extinguisher")!;
  expect([line.k, line.n]).toEqual([9, sheet.closed.now]);
  expect(line.reasons).toEqual([
    { reason: "Buyer knows it", k: 6 },
    { reason: "No time", k: 3 },
  ]);
});

it("first services kept are what a slow count says, by the month of the handover", async () => {
  const { boats, services } = store.database.models;
  const sold = plain<{ id: string; rig: string; inService: LocalDate | null }>(await boats.findAll());
  const done = plain<{ boatId: string; engine: string; item: string; date: LocalDate; hours: number; outcome: string }>(
    await services.findAll(),
  );
  const kept = new Map<string, number>();
  for (const { id, rig: text, inService } of sold) {
    const rig = JSON.parse(text) as Rig;
    // Whole months: the first one begins before the year does.
    const isShown = inService !== null && inService.slice(0, 7) >= addMonths(today, -12).slice(0, 7);
    if (!isShown || inService > today || rig.used !== undefined) continue;
    for (const engine of rig.engines) {
      const pack = servicePacks.find((each) => each.id === engine.servicePack)!;
      const item = pack.items.find((each) => each.id === "first-service");
      const service = done.find((each) => each.boatId === id && each.engine === engine.id && each.item === item?.id);
      if (item === undefined || service === undefined || service.outcome === "elsewhere") continue;
      const isInTime =
        service.date <= addDays(addMonths(inService, item.firstMonths!), 30) && service.hours <= item.firstH! + 5;
      const month = inService.slice(0, 7);
      if (isInTime) kept.set(month, (kept.get(month) ?? 0) + 1);
    }
  }
  expect([...kept.values()].reduce((sum, each) => sum + each, 0)).toBeGreaterThan(5);
  expect(sheet.firstServices.months).toHaveLength(13);
  for (const { month, kept: said } of sheet.firstServices.months)
    expect([month, said]).toEqual([month, kept.get(month) ?? 0]);
});

it("break-ins are the runs that were not withdrawn, by the month of the handover", async () => {
  const { runs, boats, withdrawals } = store.database.models;
  const soldOn = new Map(
    plain<{ id: string; inService: LocalDate | null }>(await boats.findAll()).map(({ id, inService }) => [
      id,
      inService,
    ]),
  );
  const gone = new Set(plain<{ id: string }>(await withdrawals.findAll()).map(({ id }) => id));
  const counted = new Map<string, { k: number; n: number }>();
  for (const { id, boatId, verdict } of plain<{ id: string; boatId: string; verdict: string }>(await runs.findAll())) {
    const month = soldOn.get(boatId)?.slice(0, 7);
    if (month === undefined || gone.has(id)) continue;
    const { k, n } = counted.get(month) ?? { k: 0, n: 0 };
    counted.set(month, { k: k + (JSON.parse(verdict).breaches.length === 0 ? 1 : 0), n: n + 1 });
  }
  expect([...counted.values()].reduce((sum, { n }) => sum + n, 0)).toBeGreaterThan(2);
  for (const { month, k, n } of sheet.runs.months)
    expect({ k, n }, month).toEqual(counted.get(month) ?? { k: 0, n: 0 });
});

it("is made anew when something was written, and is for those who keep the store", async () => {
  const nessa = await store.signIn("nessa");
  expect((await nessa.get("/api/reports")).body.error.code).toBe("not-allowed");
  const ines = await store.signIn("ines");
  const steady = Array.from({ length: 1801 }, (_, s) => [s, 2800]);
  const run = {
    date: today,
    startMin: 700,
    source: "file",
    fileName: "a.csv",
    engines: [{ id: ulid(), engine: "port", samples: steady }],
  };
  const countRuns = async () =>
    ((await ines.get("/api/reports")).body as unknown as ReportSheet).runs.months.reduce((sum, { n }) => sum + n, 0);
  const before = await countRuns();
  expect((await ines.send("POST", "/api/boats/w112/runs", run)).status).toBe(200);
  expect(await countRuns()).toBe(before + 1);
});

const signed = async () =>
  new Map(
    plain<{ id: string; summary: string; date: LocalDate }>(await store.database.models.deliveries.findAll()).flatMap(
      ({ id, summary, date }) => {
        const { state, unreached } = JSON.parse(summary) as { state: string; unreached?: string[] };
        return state === "signed" ? [[id, { unreached, date }] as const] : [];
      },
    ),
  );
const kindOf = <K extends Entry["kind"]>({ entries }: Walk, kind: K) => {
  const undone = new Set(entries.flatMap((entry) => (entry.kind === "undo" ? [entry.ref] : [])));
  return entries.filter((entry): entry is EntryOf<K> => entry.kind === kind && !undone.has(entry.id));
};

it("topics never reached are counted by what the boat is called, of the handovers that noted it", async () => {
  const known = await signed();
  expect(
    sheet.forgotten.filter(({ topic }) => topic === "horn").reduce((sum, { k, kBefore }) => sum + k + kBefore, 0),
  ).toBeGreaterThan(5);
  expect(sheet.forgotten.map(({ boat }) => boat)).toContain("Harlow 18 Skiff");
  for (const { id, topic, k, n, kBefore, nBefore } of sheet.forgotten) {
    const ofIt = walks.filter((walk) => walk.boat === JSON.parse(id)[0] && known.get(walk.id)?.unreached !== undefined);
    const count = (isNow: boolean) => {
      const year = ofIt.filter((walk) => walk.isNow === isNow);
      return [year.filter((walk) => known.get(walk.id)!.unreached!.includes(topic)).length, year.length];
    };
    expect([...count(true), ...count(false)], id).toEqual([k, n, kBefore, nBefore]);
  }
});

it("snags and their days, promises and calls are what a slow count says", async () => {
  const known = await signed();
  const signedWalks = walks.filter(({ id }) => known.has(id));
  const snagsOf = (walk: Walk) => kindOf(walk, "snag").filter(({ how, stops }) => stops || how !== "note");
  expect(sheet.snags.reduce((sum, { k, kBefore }) => sum + k + kBefore, 0)).toBeGreaterThan(8);
  for (const { id, k, n, kBefore, nBefore, days, open } of sheet.snags) {
    const ofIt = signedWalks.filter(({ boat }) => boat === id);
    const count = (isNow: boolean) => {
      const year = ofIt.filter((walk) => walk.isNow === isNow);
      return [year.filter((walk) => snagsOf(walk).length > 0).length, year.length];
    };
    expect([...count(true), ...count(false)], id).toEqual([k, n, kBefore, nBefore]);
    const mended = ofIt
      .filter(({ isNow }) => isNow)
      .flatMap((walk) =>
        snagsOf(walk).flatMap((snag) => {
          const settled = kindOf(walk, "settle").find(({ ref }) => ref === snag.id);
          return settled === undefined ? [null] : [(Date.parse(settled.at) - Date.parse(snag.at)) / 86_400_000];
        }),
      );
    expect(open, id).toBe(mended.filter((each) => each === null).length);
    const done = mended.flatMap((each) => each ?? []).sort((a, b) => a - b);
    if (done.length < 6) expect(days).toBeNull();
    else
      expect(days).toMatchObject({
        n: done.length,
        value: (done[(done.length - 1) >> 1]! + done[done.length >> 1]!) / 2,
      });
  }
  const fates = walks.flatMap((walk) =>
    kindOf(walk, "promise").map((promise) => {
      const settled = kindOf(walk, "settle").find(({ ref }) => ref === promise.id);
      const isKept = settled !== undefined && (promise.due === undefined || settled.at.slice(0, 10) <= promise.due);
      return isKept ? "kept" : settled !== undefined || (promise.due ?? "9") < today ? "late" : "open";
    }),
  );
  const said = sheet.promises;
  expect((said.now?.n ?? 0) + (said.before?.n ?? 0)).toBe(fates.filter((fate) => fate !== "open").length);
  expect(fates.filter((fate) => fate === "kept").length).toBeGreaterThan(2);

  const isOver = ({ id }: Walk) => addDays(known.get(id)!.date, 90) < today;
  for (const isNow of [true, false]) {
    const year = signedWalks.filter((walk) => walk.isNow === isNow && isOver(walk));
    const calls = year.flatMap((walk) =>
      kindOf(walk, "call").filter(({ at }) => at.slice(0, 10) <= addDays(known.get(walk.id)!.date, 90)),
    );
    const rate = isNow ? sheet.calls.now : sheet.calls.before;
    expect(rate?.n ?? 0).toBe(year.length);
    if (rate !== null) expect(rate.value).toBeCloseTo(calls.length / year.length, 9);
    const horn = sheet.calls.topics.find(({ id }) => id === "horn")!;
    expect(isNow ? horn.k : horn.kBefore).toBe(calls.filter(({ topic }) => topic === "horn").length);
  }
});

it("the workshop's hours are those booked against those open, day by day", async () => {
  const { workshop } = await store.services.settings.read();
  const booked = plain<{ date: LocalDate; labourH: number; state: string }>(
    await store.database.models.bookings.findAll(),
  );
  for (const { month, bookedH, capacityH } of sheet.load.months.slice(1, -1)) {
    const hours = booked.filter(({ date, state }) => date.startsWith(month) && state !== "cancelled");
    expect(bookedH).toBeCloseTo(
      hours.reduce((sum, { labourH }) => sum + labourH, 0),
      6,
    );
    let open = 0;
    for (let day = `${month}-01` as LocalDate; day.startsWith(month); day = addDays(day, 1))
      if (!workshop.closed.some(({ from, to }) => from <= day && day <= to))
        open += workshop.hoursPerDay[(new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7]!;
    expect(capacityH).toBeCloseTo(open, 6);
  }
  expect(sheet.load.now.capacityH).toBeGreaterThan(1000);
});
