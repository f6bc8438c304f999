import { describe, expect, it } from "vitest";
import type { LocalDate } from "../dates/index.ts";
import { type CareFacts, rankCare } from "./index.ts";

const today = "2026-06-20";
const engine: CareFacts["engines"][number] = {
  label: "Engine",
  reportedOn: "2026-06-18",
  unseenH: 0.4,
  breakInEnds: null,
  isBreakInDone: true,
};
const facts = (change: Partial<CareFacts> = {}): CareFacts => ({
  inService: "2025-06-01",
  lastContact: "2026-05-01",
  engines: [engine],
  next: null,
  isBooked: false,
  latePromises: [],
  questions: [],
  callBack: null,
  ...change,
});
const reasons = (change: Partial<CareFacts>) => rankCare(facts(change), today).reasons.map(({ reason }) => reason);
const weight = (change: Partial<CareFacts>) => rankCare(facts(change), today).weight;
const service = (date: LocalDate, isOverdue = false, isFirst = false): NonNullable<CareFacts["next"]> => ({
  scope: "main",
  engine: "Engine",
  item: "annual",
  title: "100 h or yearly",
  isFirst,
  due: {
    targetH: 100,
    hoursDate: null,
    calendarDate: date,
    dueDate: date,
    by: "calendar",
    range: null,
    state: isOverdue ? "overdue" : date <= "2026-07-20" ? "soon" : "ahead",
    isAnyDay: false,
  },
  reportedH: 20,
  reportedOn: "2026-06-18",
  likelyNowH: 21,
});

describe("rankCare", () => {
  it("leaves a boat alone of which nothing is due and all is told", () => {
    expect(rankCare(facts(), today)).toEqual({ weight: 0, reasons: [] });
  });

  it("asks how it goes two or three days after the handover, until somebody has", () => {
    const fresh: Partial<CareFacts> = { inService: "2026-06-17", lastContact: null };
    expect(reasons(fresh)).toEqual(["first-contact"]);
    expect(reasons({ ...fresh, inService: "2026-06-19" })).toEqual([]);
    expect(reasons({ ...fresh, lastContact: "2026-06-19" })).toEqual([]);
    expect(rankCare(facts({ ...fresh, inService: "2026-06-10" }), today).reasons[0]).toMatchObject({ isOverdue: true });
    expect(reasons({ inService: "2026-03-01", lastContact: null })).toEqual([]);
  });

  it("answers a question first, and then calls back on the day they named; until then they are left alone", () => {
    const questions = [{ text: "Which oil?", since: "2026-06-19" as LocalDate }];
    const next = service("2026-06-01", true, true);
    expect(reasons({ questions, next })).toEqual(["question", "service"]);
    expect(weight({ questions })).toBeGreaterThan(weight({ next }));
    const callBack = (on: LocalDate) => ({ on, note: "after the holidays" });
    expect(reasons({ callBack: callBack("2026-06-20"), next })).toEqual(["call-back", "service"]);
    expect(reasons({ callBack: callBack("2026-06-21"), next, questions })).toEqual(["question", "call-back"]);
    const later = rankCare(facts({ callBack: callBack("2026-07-21"), next }), today);
    expect(later.reasons).toMatchObject([{ reason: "call-back", date: "2026-07-21", isOverdue: false }]);
    expect(later.weight).toBeLessThan(weight({ engines: [{ ...engine, reportedOn: "2026-05-01", unseenH: 13 }] }));
    expect(rankCare(facts({ callBack: callBack("2026-06-18") }), today).reasons[0]).toMatchObject({ isOverdue: true });
  });

  it("turns to what falls due within thirty days, unless a slot is booked", () => {
    expect(reasons({ next: service("2026-07-10") })).toEqual(["service"]);
    expect(reasons({ next: service("2026-07-25") })).toEqual([]);
    expect(reasons({ next: service("2026-07-10"), isBooked: true })).toEqual([]);
    // Half an hour short of it, with the winter between: it is soon all the same.
    const byHours = service("2027-04-10");
    expect(reasons({ next: { ...byHours, due: { ...byHours.due, state: "soon", by: "hours" } } })).toEqual(["service"]);
    expect(rankCare(facts({ next: service("2026-05-10", true) }), today).reasons[0]!.says).toBe(
      "100 h or yearly is past due",
    );
    const likely = service("2026-05-10", true);
    const range = { from: "2026-04-01", to: "2026-07-10" } as const;
    expect(
      rankCare(facts({ next: { ...likely, due: { ...likely.due, by: "hours", range } } }), today).reasons[0],
    ).toMatchObject({ says: "100 h or yearly is likely past due", date: "2026-05-10", range, isOverdue: true });
  });

  it("asks for hours by how many are likely run unseen, sooner in a break-in", () => {
    const silent: CareFacts["engines"][number] = { ...engine, reportedOn: "2026-04-01" };
    expect(reasons({ engines: [{ ...silent, unseenH: 20 }] })).toEqual(["no-hours"]);
    expect(reasons({ engines: [{ ...silent, unseenH: 5 }] })).toEqual([]);
    expect(reasons({ engines: [{ ...silent, unseenH: 5, isBreakInDone: false }] })).toEqual(["no-hours"]);
    expect(reasons({ engines: [{ ...silent, reportedOn: "2026-06-15", unseenH: 20 }] })).toEqual([]);
  });

  it("notes the end of a break-in around its day", () => {
    const ends = (date: LocalDate) => {
      const breakInEnds = { date, range: null, isAnyDay: false };
      return reasons({ engines: [{ ...engine, breakInEnds, isBreakInDone: false }] });
    };
    expect(ends("2026-06-24")).toEqual(["break-in-ends"]);
    expect(ends("2026-06-10")).toEqual(["break-in-ends"]);
    expect(ends("2026-07-10")).toEqual([]);
  });

  it("puts first what costs most: a late first service over a late yearly one, the later the more, two reasons over one", () => {
    const first = weight({ next: service("2026-06-01", true, true) });
    const yearly = weight({ next: service("2026-06-01", true) });
    const older = weight({ next: service("2026-02-01", true) });
    const soon = weight({ next: service("2026-07-01") });
    const promise = weight({ latePromises: [{ text: "table leg", due: "2026-06-01" }] });
    const both = weight({ latePromises: [{ text: "table leg", due: "2026-06-01" }], next: service("2026-07-01") });
    expect(first).toBeGreaterThan(yearly);
    expect(older).toBeGreaterThan(yearly);
    expect(yearly).toBeGreaterThan(soon);
    expect(both).toBeGreaterThan(promise);
    expect(reasons({ latePromises: [{ text: "table leg", due: "2026-06-01" }], next: service("2026-07-01") })[0]).toBe(
      "promise-late",
    );
  });
});
