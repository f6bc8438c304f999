import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boatCarePack, servicePacks } from "../../content/index.ts";
import { addDays, addMonths, daysInMonth, differenceDays, type IsoDate } from "../dates/index.ts";
import {
  createHoursLine,
  due,
  keptServicePackSchema,
  listComing,
  nextTargets,
  planYears,
  type Scope,
  seasonEnd,
  seasonStart,
  servicePackSchema,
} from "./index.ts";

const monthly = [1, 1, 2, 5, 8, 11, 12, 10, 6, 3, 1, 1];
const outboard = servicePacks.find(({ id }) => id === "outboard-20-100")!;
const engine = (change: Partial<Scope> = {}): Scope => ({
  id: "main",
  label: "Engine",
  hoursNow: 5,
  monthlyHours: monthly,
  items: outboard.items,
  done: [],
  ...change,
});

/** The slow way: hours day by day. */
function hoursSlowly(hoursNow: number, today: IsoDate, date: IsoDate): number {
  let hours = hoursNow;
  for (let day = addDays(today, 1); day <= date; day = addDays(day, 1))
    hours += monthly[+day.slice(5, 7) - 1]! / daysInMonth(+day.slice(0, 4), +day.slice(5, 7));
  return hours;
}

describe("createHoursLine", () => {
  it("is the sum day by day, and finds the first day that reaches", () => {
    const line = createHoursLine(3, "2023-11-20", monthly, 900);
    for (const days of [0, 1, 11, 100, 467, 900]) {
      const date = addDays("2023-11-20", days);
      expect(line.hoursOn(date)).toBeCloseTo(hoursSlowly(3, "2023-11-20", date), 6);
    }
    const date = line.dateOf(40)!;
    expect(line.hoursOn(date)).toBeGreaterThanOrEqual(40);
    expect(line.hoursOn(addDays(date, -1))).toBeLessThan(40);
    expect([line.dateOf(2), line.dateOf(9999)]).toEqual(["2023-11-20", null]);
  });
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

describe("nextTargets", () => {
  it("agrees with the contract due on every item without a season", () => {
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
          const items = outboard.items.filter(({ season }) => season === undefined);
          const answer = due({
            inService,
            today,
            hoursNow: hours,
            monthlyHours: monthly,
            items: items.map(({ id, firstH, everyH, firstMonths, everyMonths }) => ({
              id,
              firstH,
              everyH,
              firstMonths,
              everyMonths,
            })),
            done,
          });
          for (const { item, targetH, calendarDate, likelyDate, isOverdue } of nextTargets(
            inService,
            today,
            engine({ hoursNow: hours, items, done }),
          )) {
            const same = answer.items.find(({ id }) => id === item.id)!;
            expect([targetH, calendarDate]).toEqual([same.targetH, same.calendarDate]);
            expect(isOverdue).toBe(same.state === "overdue");
            // Summed day by day or month by month, a target that is met to the last bit may fall a day apart.
            if (!isOverdue) expect(Math.abs(differenceDays(likelyDate, same.dueDate!))).toBeLessThanOrEqual(1);
            else expect(likelyDate < today).toBe(true);
          }
        },
      ),
      { seed: 7, numRuns: 120 },
    );
  });

  it("offers a season again only when it comes again", () => {
    const items = outboard.items.filter(({ id }) => id === "lay-up");
    const at = (today: IsoDate, done: Scope["done"] = []) =>
      nextTargets("2025-06-01", today, engine({ items, done }))[0]!.likelyDate;
    expect(at("2025-10-10")).toBe("2025-11-30");
    expect(at("2025-10-10", [{ item: "lay-up", date: "2025-10-08", hours: 30 }])).toBe("2026-11-30");
    expect(at("2026-01-10")).toBe("2026-11-30");
  });
});

describe("planYears", () => {
  const plan = (change: Partial<Scope> = {}, today = "2026-06-10") =>
    planYears("2026-05-01", today, [
      engine(change),
      engine({ ...change, id: "twin", label: "Twin" }),
      { ...engine({ items: boatCarePack.items }), id: "boat", hoursNow: 0, monthlyHours: [] },
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
    const later = plan({ hoursNow: 21, done: [{ item: "first-service", date: "2026-06-09", hours: 20 }] });
    expect(later.flatMap(({ items }) => items).some(({ item }) => item === "first-service")).toBe(false);
  });

  it("has gear that goes out of date in its visits, no later than its day", () => {
    const dated = [{ id: "flares", title: "Flares out of date", date: "2027-03-20" }];
    const visits = planYears("2026-05-01", "2026-06-10", [engine()], dated);
    const visit = visits.find(({ items }) => items.some(({ item }) => item === "flares"))!;
    expect(visit.date <= "2027-03-20").toBe(true);
    expect(visits.flatMap(({ items }) => items).filter(({ item }) => item === "flares")).toHaveLength(1);
    const late = planYears("2026-05-01", "2027-06-10", [engine()], dated);
    expect(late.flatMap(({ items }) => items).find(({ item }) => item === "flares")).toMatchObject({
      isOverdue: true,
      by: "calendar",
    });
  });

  it("wants what is overdue within two weeks, and says so", () => {
    const [first] = plan({ hoursNow: 60 });
    expect(first!.date <= addDays("2026-06-10", 14)).toBe(true);
    expect(first!.items.find(({ item }) => item === "first-service")).toMatchObject({ by: "hours" });
    const old = planYears("2024-05-01", "2026-06-10", [engine({ items: outboard.items.slice(0, 2) })]);
    expect(old[0]!.items.every(({ isOverdue }) => isOverdue)).toBe(true);
  });

  it("adds up the prices the store has filled in, and has none where there are none", () => {
    const items = outboard.items.map((item) => (item.id === "first-service" ? { ...item, priceCents: 31_240 } : item));
    const visits = plan({ items, hoursNow: 60 });
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
