import { ulid } from "ulid";
import { afterAll, beforeAll, expect, it } from "vitest";
import type { ReportSheet } from "../api/index.ts";
import { servicePacks } from "../content/index.ts";
import { addDays, addMonths, type LocalDate } from "../core/dates/index.ts";
import type { Rig } from "../core/rig/index.ts";
import { followMerges } from "../core/topic/index.ts";
import type { Entry } from "../core/walk/index.ts";
import { makeLargeStore } from "../demo/makeLargeStore.ts";
import { openTestStore, type TestStore } from "./openTestStore.ts";

let store: TestStore;
let sheet: ReportSheet;
let today: LocalDate;
interface Walk {
  readonly id: string;
  readonly isNow: boolean;
  readonly template: string;
  readonly entries: readonly Entry[];
}
/** All handovers of these two years with their entries in the order in which they came, read plainly. */
let walks: Walk[];

const plain = <R>(rows: readonly { get(what: { plain: true }): unknown }[]) =>
  rows.map((row) => row.get({ plain: true })) as R[];

beforeAll(async () => {
  store = await openTestStore();
  today = store.services.clock.today();
  await makeLargeStore(store.database, today, 60, { sealed: 12 });
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
  const templateOf = new Map(
    plain<{ id: string; template: string | null }>(await boats.findAll()).map(({ id, template }) => [
      id,
      template ?? "",
    ]),
  );
  const all = plain<{ deliveryId: string; body: string; number: number }>(await entries.findAll());
  walks = rows
    .filter(({ date }) => date >= from && date <= today)
    .map(({ id, boatId, date }) => ({
      id,
      isNow: date >= turn,
      template: templateOf.get(boatId)!,
      entries: all
        .filter(({ deliveryId }) => deliveryId === id)
        .sort((a, b) => a.number - b.number)
        .map(({ body }) => JSON.parse(body) as Entry),
    }));
  const odile = await store.signIn("odile");
  const answer = await odile.get("/api/reports");
  expect(answer.status).toBe(200);
  sheet = answer.body as unknown as ReportSheet;
}, 120_000);
afterAll(() => store.stop());

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

it("topics put off are those whose last mark says so, by the boat's template", () => {
  const horn = sheet.putOff.filter(({ topic }) => topic === "horn");
  expect(horn.reduce((sum, { k }) => sum + k, 0)).toBe(9);
  for (const { topic, id, k, n } of sheet.putOff) {
    const template = id.split(" ")[0]!;
    const marked = walks
      .filter((walk) => walk.isNow && walk.template === template)
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
    if (inService === null || inService < addMonths(today, -12) || inService > today || rig.used !== undefined)
      continue;
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
  expect([...kept.values()].reduce((sum, each) => sum + each, 0)).toBeGreaterThan(10);
  expect(sheet.firstServices.months).toHaveLength(13);
  for (const { month, kept: said } of sheet.firstServices.months)
    expect([month, said]).toEqual([month, kept.get(month) ?? 0]);
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
