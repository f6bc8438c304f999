import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boatCarePack, servicePacks } from "../../content/index.ts";
import { addDays, addMonths, type LocalDate } from "../dates/index.ts";
import { createSeason, forecastEngine } from "../hours/index.ts";
import {
  due,
  keptServicePackSchema,
  listComing,
  listDue,
  planYears,
  type Scope,
  seasonEnd,
  seasonStart,
  servicePackSchema,
} from "./index.ts";

const outboard = servicePacks.find(({ id }) => id === "outboard-20-100")!;
const lake = createSeason([0, 0, 0.02, 0.07, 0.13, 0.19, 0.22, 0.18, 0.11, 0.06, 0.02, 0]);
/** An engine read on these days, whose owner runs some 70 h a year. */
const read = (readings: readonly { date: LocalDate; hours: number }[], today: LocalDate) =>
  forecastEngine({ readings, meanH: 70, varianceH2: 900 }, lake, today);
const engine = (change: Partial<Scope> = {}, hours = 5, today: LocalDate = "2026-06-10"): Scope => ({
  id: "main",
  label: "Engine",
  forecast: read([{ date: today, hours }], today),
  items: outboard.items,
  since: "2026-05-01",
  done: [],
  ...change,
});

describe("seasons of service", () => {
  it("end in their month, this year or next, and may go over the turn of the year", () => {
    const autumn = { fromMonth: 10, toMonth: 11 };
    expect(seasonEnd(autumn, "2026-05-01")).toBe("2026-11-30");
    expect(seasonEnd(autumn, "2026-12-01")).toBe("2027-11-30");
    expect(seasonStart(autumn, "2026-11-30")).toBe("2026-10-01");
    const winter = { fromMonth: 12, toMonth: 2 };
    expect(seasonEnd(winter, "2023-12-24")).toBe("2024-02-29");
    expect(seasonStart(winter, "2024-02-29")).toBe("2023-12-01");
  });
});

describe("listDue", () => {
  const timed = outboard.items.filter(({ season }) => season === undefined);

  it("has the targets of the contract due, and its calendar days", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 400 }),
        fc.integer({ min: 0, max: 900 }),
        fc.boolean(),
        (hours, daysIn, wasServed) => {
          const inService = "2024-02-29";
          const today = addDays(inService, daysIn);
          const done = wasServed
            ? [{ item: "annual", date: addDays(inService, Math.floor(daysIn / 2)), hours: hours / 2 }]
            : [];
          const asked = timed.map(({ id, firstH, everyH, firstMonths, everyMonths }) => ({
            id,
            firstH,
            everyH,
            firstMonths,
            everyMonths,
          }));
          const monthlyHours = lake.share.map((share) => share * 70);
          const answer = due({ inService, today, hoursNow: hours, monthlyHours, items: asked, done });
          const scope = engine({ items: timed, since: inService, done }, hours, today);
          for (const [i, { targetH, calendarDate, dueDate, state }] of listDue(scope, today).entries()) {
            const same = answer.items[i]!;
            expect([targetH, calendarDate]).toEqual([same.targetH, same.calendarDate]);
            expect(state === "finished").toBe(same.state === "finished");
            // What was read to be past, or past by the calendar, is overdue in both from the day after.
            if (same.state === "overdue" && dueDate !== today) expect(state).toBe("overdue");
          }
        },
      ),
      { seed: 7, numRuns: 120 },
    );
  });

  it("keeps the day on which something fell due, whenever it is asked", () => {
    const readings = [
      { date: "2026-05-01", hours: 1 },
      { date: "2026-06-01", hours: 11 },
      { date: "2026-06-30", hours: 31 },
    ] as const;
    const first = timed.filter(({ id }) => id === "first-service");
    const days = (["2026-06-30", "2026-07-10", "2027-01-01"] as const).map((today) => {
      const [found] = listDue(engine({ items: first, forecast: read(readings, today) }), today);
      expect(found).toMatchObject({ state: "overdue", by: "hours", range: null, isAnyDay: false, targetH: 20 });
      return found!.dueDate;
    });
    expect(new Set(days).size).toBe(1);
    expect(days[0]! > "2026-06-01" && days[0]! < "2026-06-30").toBe(true);
  });

  it("has the middle of the forecast with its range; any day now when its early end has passed; overdue when its middle has", () => {
    const first = timed.filter(({ id }) => id === "first-service");
    const at = (today: LocalDate) =>
      listDue(engine({ items: first, forecast: read([{ date: "2026-05-01", hours: 5 }], today) }), today)[0]!;
    const ahead = at("2026-05-02");
    expect(ahead).toMatchObject({ state: expect.not.stringMatching("overdue"), isAnyDay: false });
    const { from, to } = ahead.range!;
    expect(from < ahead.dueDate! && ahead.dueDate! < to!).toBe(true);
    // The same forecast on every day: nothing moves while nothing is read.
    expect(at(addDays(from, 1))).toMatchObject({ dueDate: ahead.dueDate, range: ahead.range, isAnyDay: true });
    expect(at(ahead.dueDate!)).toMatchObject({ isAnyDay: true, state: "soon" });
    expect(at(addDays(ahead.dueDate!, 1))).toMatchObject({ dueDate: ahead.dueDate, isAnyDay: false, state: "overdue" });
  });

  it("ends its range with the calendar", () => {
    const annual = timed.filter(({ id }) => id === "annual");
    const [found] = listDue(engine({ items: annual }, 60), "2026-06-10");
    expect(found).toMatchObject({ by: "hours", calendarDate: "2027-05-01" });
    expect(found!.range!.to! <= "2027-05-01").toBe(true);
  });

  it("offers a season again only when it comes again", () => {
    const items = outboard.items.filter(({ id }) => id === "lay-up");
    const at = (today: LocalDate, done: Scope["done"] = []) =>
      listDue(engine({ items, since: "2025-06-01", done }), today)[0]!.dueDate;
    expect(at("2025-10-10")).toBe("2025-11-30");
    expect(at("2025-10-10", [{ item: "lay-up", date: "2025-10-08", hours: 30 }])).toBe("2026-11-30");
    expect(at("2026-01-10")).toBe("2026-11-30");
  });
});

describe("planYears", () => {
  const plan = (change: Partial<Scope> = {}, hours = 5) =>
    planYears("2026-06-10", [
      engine(change, hours),
      engine({ ...change, id: "twin", label: "Twin" }, hours),
      { ...engine({ items: boatCarePack.items }), id: "boat", forecast: null },
    ]);

  it("puts everything that falls due in five years into visits, each within its time, twins together", () => {
    const visits = plan();
    const dates = visits.map(({ date }) => date);
    expect(dates).toEqual([...dates].sort());
    expect(dates.at(-1)! <= addMonths("2026-06-10", 60)).toBe(true);
    for (const { date, items, labourH } of visits) {
      for (const { dueDate } of items) expect(date <= dueDate).toBe(true);
      expect(labourH).toBeCloseTo(
        items.reduce((sum, item) => sum + item.labourH, 0),
        9,
      );
      const twins = items.filter(({ item }) => item === "annual").map(({ scope }) => scope);
      if (twins.length > 0) expect(twins.sort()).toEqual(["main", "twin"]);
    }
    const times = (item: string) =>
      visits.flatMap(({ items }) => items).filter((each) => each.item === item && each.scope === "main").length;
    expect(times("first-service")).toBe(1);
    expect(times("annual")).toBe(5);
    expect(times("lay-up")).toBe(5);
    expect(times("spring-check")).toBe(5);
    expect(times("plugs")).toBe(2);
  });

  it("has fewer visits than things to do, and moves on from what was done", () => {
    const visits = plan();
    expect(visits.length).toBeLessThan(visits.flatMap(({ items }) => items).length / 2);
    const later = plan({ done: [{ item: "first-service", date: "2026-06-09", hours: 20 }] }, 21);
    expect(later.flatMap(({ items }) => items).some(({ item }) => item === "first-service")).toBe(false);
  });

  it("has gear that goes out of date in its visits, no later than its day", () => {
    const dated = [{ id: "flares", title: "Flares out of date", date: "2027-03-20" }] as const;
    const visits = planYears("2026-06-10", [engine()], dated);
    const visit = visits.find(({ items }) => items.some(({ item }) => item === "flares"))!;
    expect(visit.date <= "2027-03-20").toBe(true);
    expect(visits.flatMap(({ items }) => items).filter(({ item }) => item === "flares")).toHaveLength(1);
    const late = planYears("2027-06-10", [engine()], dated);
    expect(late.flatMap(({ items }) => items).find(({ item }) => item === "flares")).toMatchObject({
      isOverdue: true,
      by: "calendar",
    });
  });

  it("wants what is overdue within two weeks, and says so", () => {
    const [first] = plan({}, 60);
    expect(first!.date <= addDays("2026-06-10", 14)).toBe(true);
    expect(first!.items.find(({ item }) => item === "first-service")).toMatchObject({ by: "hours" });
    const old = planYears("2026-06-10", [engine({ items: outboard.items.slice(0, 2), since: "2024-05-01" })]);
    expect(old[0]!.items.every(({ isOverdue }) => isOverdue)).toBe(true);
  });

  it("adds up the prices the store has filled in, and has none where there are none", () => {
    const items = outboard.items.map((item) => (item.id === "first-service" ? { ...item, priceCents: 31_240 } : item));
    const visits = plan({ items }, 60);
    for (const { items: planned, priceCents } of visits) {
      const first = planned.filter(({ item }) => item === "first-service").length;
      expect(priceCents).toBe(first === 0 ? null : first * 31_240);
    }
    expect(visits.some(({ priceCents }) => priceCents !== null)).toBe(true);
  });
});

describe("listComing", () => {
  const ids = (isUsed: boolean, done: string[] = []) =>
    listComing(outboard.items, isUsed, (item) => done.includes(item)).map(({ id }) => id);
  it("leaves out of a used boat what is done once only, unless it was done here", () => {
    expect(ids(false)).toEqual(outboard.items.map(({ id }) => id));
    expect(ids(true)).toEqual(ids(false).filter((id) => id !== "first-service"));
    expect(ids(true, ["first-service"])).toEqual(ids(false));
  });
});

describe("a service pack", () => {
  const withFirst = (change: object) =>
    servicePackSchema.safeParse({
      ...outboard,
      items: [{ ...outboard.items[0]!, ...change }, ...outboard.items.slice(1)],
    });
  const none = { firstH: undefined, everyH: undefined, firstMonths: undefined, everyMonths: undefined };
  const season = { fromMonth: 11, toMonth: 2 };

  it.each([
    ["never falls due", none, '"First service" never falls due'],
    ["has a season and hours", { season }, "has a season and hours"],
    ["is there twice", { id: "annual" }, '"annual" is there twice'],
    ["costs less than nothing", { priceCents: -1 }, "Too small"],
    ["has no work", { work: [] }, "Too small"],
  ])("is refused where an item %s", (_, change, message) => {
    expect(withFirst(change).error?.issues[0]?.message).toContain(message);
  });

  it("may have a season in place of hours, and one that was kept before a rule is read all the same", () => {
    expect(withFirst({ ...none, season }).success).toBe(true);
    const items = [{ ...outboard.items[0]!, ...none }];
    expect(keptServicePackSchema.safeParse({ ...outboard, items }).success).toBe(true);
  });
});
