import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boatCarePack, breakInPacks, rigTemplates, servicePacks } from "../../content/index.ts";
import { addDays, type LocalDate } from "../dates/index.ts";
import { learnFleet } from "../hours/index.ts";
import { createWeekGrid, loadWeeks } from "../workshop/index.ts";
import { boatScope, type CareQuestion, describeBoat, describeCare, describePlan, seasonOf } from "./index.ts";

const packs = { breakIn: breakInPacks, service: servicePacks, boatCare: boatCarePack };
const lake = [0, 0, 2, 5, 9, 12, 14, 11, 6, 3, 1, 0];
const question = (change: Partial<CareQuestion> = {}): CareQuestion & { inService: LocalDate } => ({
  rig: rigTemplates["wending-23"],
  today: "2024-06-01",
  packs,
  fleet: learnFleet([], lake),
  readings: [{ engine: "port", date: "2024-06-01", hours: 1, answer: null }],
  services: [],
  fills: [],
  runs: [],
  ...change,
  inService: change.inService ?? "2024-06-01",
});

describe("describeCare", () => {
  it("says nothing is due, and no break-in, while no hours were reported", () => {
    const [port, starboard] = describeCare(question());
    expect(port).toMatchObject({ reportedH: 1, likelyNowH: 1, breakIn: { hours: 1, done: false } });
    expect(starboard).toMatchObject({ reportedH: null, likelyNowH: null, breakIn: null, items: [], forecast: null });
  });

  it("holds break-in to the hours reported, and dates to the hours likely", () => {
    const [port] = describeCare(question({ today: "2024-09-01" }));
    expect(port!.breakIn!.hours).toBe(1);
    expect(port!.likelyNowH).toBeGreaterThan(20);
    expect(port!.items[0]).toMatchObject({ id: "first-service", state: "overdue" });
  });

  it("moves an item on from when it was last done", () => {
    const services = [
      { engine: "port", item: "annual", date: "2024-07-01", hours: 8 },
      { engine: "starboard", item: "annual", date: "2024-07-20", hours: 9 },
    ] as const;
    const [port] = describeCare(question({ today: "2024-07-02", services }));
    const annual = port!.items.find(({ id }) => id === "annual")!;
    expect(annual).toMatchObject({ targetH: 108, calendarDate: "2025-07-01", lastDone: "2024-07-01" });
  });
});

const rigs = Object.values(rigTemplates);
const aBoat = fc
  .record({
    rig: fc.constantFrom(...rigs),
    pack: fc.constantFrom(...servicePacks.map(({ id }) => id)),
    isUsed: fc.boolean(),
    daysIn: fc.integer({ min: 0, max: 1500 }),
    silentDays: fc.integer({ min: 0, max: 400 }),
    yearH: fc.double({ min: 0, max: 300, noNaN: true }),
    readings: fc.integer({ min: 1, max: 8 }),
    served: fc.array(fc.tuple(fc.nat(20), fc.nat(1500)), { maxLength: 5 }),
    fleetH: fc.double({ min: 10, max: 150, noNaN: true }),
  })
  .map(({ rig, pack, isUsed, daysIn, silentDays, yearH, readings, served, fleetH }) => {
    const today = "2026-11-27";
    const inService = addDays(today, -daysIn - silentDays);
    const items = servicePacks.find(({ id }) => id === pack)!.items;
    return question({
      rig: {
        ...rig,
        engines: rig.engines.map((engine) => ({ ...engine, servicePack: pack })),
        ...(isUsed ? { used: { hours: [] } as never } : {}),
      },
      inService,
      today,
      fleet: learnFleet(
        [],
        lake.map((share) => (share * fleetH) / 63),
      ),
      readings: rig.engines.flatMap(({ id }, e) =>
        Array.from({ length: readings }, (_, n) => {
          const days = Math.floor((daysIn * n) / Math.max(1, readings - 1));
          return { engine: id, date: addDays(inService, days), hours: 1 + (yearH * days) / 365 + e, answer: null };
        }),
      ),
      services: served
        .map(([item, day]) => {
          const days = Math.min(day, daysIn);
          const { id } = items[item % items.length]!;
          return { engine: rig.engines[0]!.id, item: id, date: addDays(inService, days), hours: (yearH * days) / 365 };
        })
        .sort((a, b) => (a.date < b.date ? -1 : 1)),
    });
  });

describe("everything that says when a service is due", () => {
  it("says the same: the boat's page, its five years, the workshop's year and what is due next", () => {
    fc.assert(
      fc.property(aBoat, (asked) => {
        const care = describeCare(asked);
        const grid = createWeekGrid(asked.today, loadWeeks, seasonOf(asked.fleet), 0);
        const { jobs, facts, likelyNowH } = describeBoat("b", asked, grid);
        const planned = describePlan(asked, []).visits.flatMap(({ items }) => items);
        const onPage = care.flatMap(({ engine, items }) => items.map((item) => ({ engine, ...item })));
        for (const { engine, id, dueDate, range, isAnyDay, state, by } of onPage) {
          const first = planned
            .filter(({ scope, item }) => scope === engine && item === id)
            .sort((a, b) => (a.dueDate < b.dueDate ? -1 : 1))[0];
          if (first !== undefined)
            expect(first).toMatchObject({ dueDate, range, isAnyDay, by, isOverdue: state === "overdue" });
          else expect(dueDate === null || dueDate > addDays(asked.today, 1800)).toBe(true);
          const job = jobs.find(({ scope, item }) => scope === engine && item === id);
          if (job !== undefined) expect(job).toMatchObject({ dueDate, range, isAnyDay });
          // Overdue in one place is overdue in all, from the day after it fell due, and on that day it stays.
          expect(state === "overdue").toBe(dueDate !== null && dueDate < asked.today);
          if (range !== null) expect(range.from <= dueDate! && (range.to === null || dueDate! <= range.to)).toBe(true);
        }
        const dates = onPage.flatMap(({ dueDate }) => dueDate ?? []).sort();
        expect(facts.next?.due.dueDate ?? null).toBe(dates[0] ?? null);
        for (const { engine, forecast } of care)
          if (forecast?.nextService != null)
            expect(onPage.filter((item) => item.engine === engine)).toContainEqual({ engine, ...forecast.nextService });
        expect(likelyNowH).toBe(care[0]!.likelyNowH);
        expect(care[0]!.forecast?.fan[0]?.p50 ?? likelyNowH).toBe(likelyNowH);
        expect(planned.every(({ scope }) => scope === boatScope || care.some(({ engine }) => engine === scope))).toBe(
          true,
        );
      }),
      { seed: 12, numRuns: 250 },
    );
  });

  it("says the same tomorrow, while nothing is read and nothing is done", () => {
    fc.assert(
      fc.property(aBoat, fc.integer({ min: 1, max: 60 }), (asked, days) => {
        const later = { ...asked, today: addDays(asked.today, days) };
        const now = describeCare(asked).flatMap(({ items }) => items);
        const then = describeCare(later).flatMap(({ items }) => items);
        for (const [i, { dueDate }] of now.entries())
          if (dueDate !== null && asked.rig.used === undefined) expect(then[i]!.dueDate).toBe(dueDate);
      }),
      { seed: 13, numRuns: 100 },
    );
  });
});
