import type { ReportSheet } from "../../api/index.ts";
import { addDays, addMonths, dayOf, type LocalDate } from "../../core/dates/index.ts";
import {
  type Counted,
  estimateShare,
  judgePromise,
  listCalls,
  type OwedTale,
  reportCalls,
  reportMinutes,
  reportPromises,
  reportShares,
  reportSnags,
  type ShareLine,
  tellOwed,
} from "../../core/reports/index.ts";
import { capacityOfDay, type Workshop } from "../../core/workshop/index.ts";
import type { Clock } from "../clock.ts";
import { createReadModel, type Versions } from "../readModel.ts";
import type { Boats } from "../repositories/boats.ts";
import type { People } from "../repositories/people.ts";
import type { ReportTables, Span } from "../repositories/reports.ts";
import type { Settings } from "../repositories/settings.ts";
import type { CareReader } from "./careReader.ts";
import { countFirstServices } from "./firstServiceCount.ts";
import type { LibraryService } from "./libraryService.ts";
import { listMonths } from "./reportMonths.ts";

interface Parts {
  readonly reportTables: ReportTables;
  readonly boats: Boats;
  readonly careReader: CareReader;
  readonly libraryService: LibraryService;
  readonly people: People;
  readonly settings: { read(): Promise<Settings> };
  readonly versions: Versions;
  readonly clock: Clock;
}

/** What the owner learns from the last twelve months, beside the twelve before. Counted anew when something was written. */
export function createReportService(parts: Parts) {
  const { clock, versions } = parts;
  const model = createReadModel(versions, {
    async key() {
      let highest = 0;
      for (const numbers of (await versions.read()).values())
        for (const number of numbers.values()) highest = Math.max(highest, number);
      return `${clock.today()} ${highest}`;
    },
    make: () => count(parts),
  });
  return { read: async (): Promise<ReportSheet> => (await model()).value };
}
export type ReportService = ReturnType<typeof createReportService>;

async function count(parts: Parts): Promise<ReportSheet> {
  const { reportTables, libraryService, people: staff, settings, clock } = parts;
  const to = clock.today();
  const span: Span = { from: addMonths(to, -24), turn: addMonths(to, -12), to };
  const [{ topics }, people, taught, reasons, closed, firstServices, runs, handovers, owed, booked] = await Promise.all(
    [
      libraryService.read(),
      staff.list(),
      reportTables.listTaught(span),
      reportTables.listReasons(span),
      reportTables.countClosed(span),
      countFirstServices(parts, span),
      reportTables.listRuns(span),
      reportTables.listHandovers(span),
      reportTables.listOwed(span),
      reportTables.listBooked(span),
    ],
  );
  const { workshop } = await settings.read();
  const months = listMonths(span);
  const tales = tellOwed(owed);
  const personOf = new Map(people.map(({ id, name }) => [id, name]));
  const titleOf = new Map(topics.map(({ id, title }) => [id, title]));
  const named = <L extends { id: string }>(lines: readonly L[], nameOf: (id: string) => string | undefined) =>
    lines.map((line) => ({ ...line, name: nameOf(line.id) ?? line.id }));
  const minutes = reportMinutes(
    topics,
    taught.map((row) => ({ ...row, isLastYear: row.isLastYear === 1 })),
  );
  return {
    from: span.turn,
    to,
    closed,
    minutes: {
      topics: named(minutes.topics, (id) => titleOf.get(id)),
      places: named(minutes.places, (id) => id),
      people: named(minutes.people, (id) => personOf.get(id)),
    },
    putOff: nameTopics(
      reportShares(
        addUp(taught.map((row) => ({ ...row, id: pair(row.boat, row.topic), k: row.later, n: row.handovers }))),
      ),
      titleOf,
    ),
    forgotten: nameTopics(countForgotten(handovers), titleOf),
    snags: reportSnags(
      handovers.filter(({ isSigned }) => isSigned),
      tales,
    ).map((line) => ({ ...line, name: line.id })),
    promises: reportPromises(judgePromises(tales, handovers, clock), months),
    calls: nameCalls(
      reportCalls(
        handovers.filter(({ isSigned }) => isSigned),
        listCalls(owed).map(({ delivery, topic, at }) => ({ delivery, topic, on: dayOf(at, clock.timeZone) })),
        months,
        to,
      ),
      titleOf,
    ),
    load: countLoad(booked, workshop, span),
    notDone: reportShares(
      addUp(reasons.map(({ topic, k, isLastYear }) => ({ id: topic, k, n: 0, isLastYear }))).map((line) => ({
        ...line,
        n: closed.now,
        nBefore: closed.before,
      })),
    ).map((line) => ({
      ...line,
      name: titleOf.get(line.id) ?? line.id,
      reasons: reasons
        .filter(({ topic, isLastYear }) => topic === line.id && isLastYear === 0)
        .slice(0, 3)
        .map(({ reason, k }) => ({ reason, k })),
    })),
    firstServices,
    runs: {
      months: months.map((month) => runs.find((row) => row.month === month) ?? { month, k: 0, n: 0, boats: 0 }),
      ...sumRuns(runs, span.turn),
    },
  };
}

type Handovers = Awaited<ReturnType<ReportTables["listHandovers"]>>;

/** A boat by what it is called, and a topic, as one id: names have spaces. */
const pair = (boat: string, topic: string): string => JSON.stringify([boat, topic]);
const unpair = (id: string): [boat: string, topic: string] => JSON.parse(id) as [string, string];

/** Lines of boats of a name and a topic with their names; what was never so is left out. */
const nameTopics = (lines: readonly ShareLine[], titleOf: ReadonlyMap<string, string>) =>
  lines.flatMap((line) => {
    const [boat, topic] = unpair(line.id);
    const name = titleOf.get(topic);
    return name === undefined || line.k + line.kBefore === 0 ? [] : [{ ...line, boat, topic, name }];
  });

/** Of the signed handovers of boats of each name that noted it, how many never reached a topic that was planned. */
function countForgotten(handovers: Handovers): ShareLine[] {
  const known = handovers.flatMap(({ unreached, ...each }) => (unreached === null ? [] : [{ ...each, unreached }]));
  const countOf = (boat: string, isLastYear: boolean) =>
    known.filter((each) => each.boat === boat && each.isLastYear === isLastYear).length;
  const totals = new Map(
    [...new Set(known.map(({ boat }) => boat))].map((boat) => [
      boat,
      { n: countOf(boat, false), nBefore: countOf(boat, true) },
    ]),
  );
  const rows = known.flatMap(({ boat, isLastYear, unreached }) =>
    unreached.map((topic) => ({ id: pair(boat, topic), k: 1, n: 0, isLastYear: isLastYear ? 1 : 0 })),
  );
  return reportShares(addUp(rows).map((line) => ({ ...line, ...totals.get(unpair(line.id)[0])! })));
}

/** Promises made in these two years, and what became of them. */
function judgePromises(tales: readonly OwedTale[], handovers: Handovers, clock: Clock) {
  const yearOf = new Map(handovers.map(({ delivery, isLastYear }) => [delivery, isLastYear]));
  return tales.flatMap(({ kind, delivery, at, due, settledAt }) => {
    if (kind !== "promise") return [];
    const settledOn = settledAt === null ? null : dayOf(settledAt, clock.timeZone);
    return [
      {
        madeOn: dayOf(at, clock.timeZone),
        isLastYear: yearOf.get(delivery) ?? false,
        fate: judgePromise({ due, settledOn }, clock.today()),
      },
    ];
  });
}

const nameCalls = (report: ReturnType<typeof reportCalls>, titleOf: ReadonlyMap<string, string>) => ({
  ...report,
  months: [...report.months],
  topics: report.topics.map((line) => ({ ...line, name: titleOf.get(line.id) ?? line.id })),
});

/** Hours booked against hours open, by month and over each year; what is open goes by the workshop as it is set now. */
function countLoad(
  booked: readonly { date: LocalDate; hours: number }[],
  workshop: Workshop,
  { from, turn, to }: Span,
): ReportSheet["load"] {
  const hoursOn = new Map(booked.map(({ date, hours }) => [date, hours]));
  const months = new Map<string, { bookedH: number; capacityH: number }>();
  const years = { now: { bookedH: 0, capacityH: 0 }, before: { bookedH: 0, capacityH: 0 } };
  for (let date = from; date <= to; date = addDays(date, 1)) {
    const month = months.get(date.slice(0, 7)) ?? { bookedH: 0, capacityH: 0 };
    months.set(date.slice(0, 7), month);
    for (const sum of [month, years[date < turn ? "before" : "now"]]) {
      sum.bookedH += hoursOn.get(date) ?? 0;
      sum.capacityH += capacityOfDay(workshop, date);
    }
  }
  return {
    months: listMonths({ from, turn, to }).map((month) => ({ month, ...months.get(month)! })),
    ...years,
  };
}

/** Rows of two years under one id as one line. */
function addUp(rows: readonly { id: string; k: number; n: number; isLastYear: number }[]): Counted[] {
  const lines = new Map<string, Counted>();
  for (const { id, k, n, isLastYear } of rows) {
    const line = lines.get(id) ?? { id, k: 0, n: 0, kBefore: 0, nBefore: 0 };
    lines.set(
      id,
      isLastYear === 1
        ? { ...line, kBefore: line.kBefore + k, nBefore: line.nBefore + n }
        : { ...line, k: line.k + k, n: line.n + n },
    );
  }
  return [...lines.values()];
}

const sumRuns = (runs: readonly { month: string; k: number; n: number }[], turn: LocalDate) => {
  const of = (isNow: boolean) => {
    const those = runs.filter(({ month }) => month >= turn.slice(0, 7) === isNow);
    return estimateShare(
      those.reduce((sum, { k }) => sum + k, 0),
      those.reduce((sum, { n }) => sum + n, 0),
    );
  };
  return { now: of(true), before: of(false) };
};
