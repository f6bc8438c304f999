import type { ReportSheet } from "../../api/index.ts";
import { rigTemplates } from "../../content/index.ts";
import { type CareQuestion, findPack, readEngineStatus } from "../../core/care/index.ts";
import { addMonths, type LocalDate } from "../../core/dates/index.ts";
import {
  type Counted,
  estimateShare,
  type FirstServiceFate,
  judgeFirstService,
  reportMinutes,
  reportShares,
} from "../../core/reports/index.ts";
import type { Clock } from "../clock.ts";
import { createReadModel, type Versions } from "../readModel.ts";
import type { Boats } from "../repositories/boats.ts";
import type { People } from "../repositories/people.ts";
import type { ReportTables, Span } from "../repositories/reports.ts";
import type { CareReader } from "./careReader.ts";
import type { LibraryService } from "./libraryService.ts";

interface Parts {
  readonly reportTables: ReportTables;
  readonly boats: Boats;
  readonly careReader: CareReader;
  readonly libraryService: LibraryService;
  readonly people: People;
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
  const { reportTables, libraryService, people: staff, clock } = parts;
  const to = clock.today();
  const span: Span = { from: addMonths(to, -24), turn: addMonths(to, -12), to };
  const [{ topics }, people, taught, reasons, closed, firstServices, runs] = await Promise.all([
    libraryService.read(),
    staff.list(),
    reportTables.listTaught(span),
    reportTables.listReasons(span),
    reportTables.countClosed(span),
    countFirstServices(parts, span),
    reportTables.listRuns(span),
  ]);
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
    putOff: reportShares(
      addUp(taught.map((row) => ({ ...row, id: `${row.template} ${row.topic}`, k: row.later, n: row.handovers }))),
    ).flatMap((line) => {
      const [template, topic] = line.id.split(" ") as [string, string];
      const name = titleOf.get(topic);
      const boat = template in rigTemplates ? rigTemplates[template as keyof typeof rigTemplates].model : template;
      return name === undefined || line.k + line.kBefore === 0 ? [] : [{ ...line, boat, topic, name }];
    }),
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
      months: listMonths(span).map(
        (month) => runs.find((row) => row.month === month) ?? { month, k: 0, n: 0, boats: 0 },
      ),
      ...sumRuns(runs, span.turn),
    },
  };
}

/** The months from the turn of the years on, those without anything too: a gap says something. */
function listMonths({ turn, to }: Span): string[] {
  const months: string[] = [];
  for (let n = 0; ; n++) {
    const month = addMonths(turn, n).slice(0, 7);
    if (month > to.slice(0, 7)) return months;
    months.push(month);
  }
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

/** So many boats are worked out at a time, so that whoever asks for something else meanwhile is answered. */
const atOnce = 150;

/** What became of the first services of boats that were handed over in these two years, by the month of that. */
async function countFirstServices({ boats, careReader }: Parts, span: Span): Promise<ReportSheet["firstServices"]> {
  const ids = await boats.listInServiceBetween(span.from, span.to);
  const months = new Map<string, Record<FirstServiceFate, number>>();
  for (let i = 0; i < ids.length; i += atOnce) {
    const sold = await boats.listCared(ids.slice(i, i + atOnce));
    const fresh = sold.filter(({ rig }) => rig.used === undefined);
    const [questions, services] = await Promise.all([
      careReader.askMany(fresh),
      boats.listServices(fresh.map(({ id }) => id)),
    ]);
    const elsewhere = new Set(services.flatMap((row) => (row.outcome === "elsewhere" ? [keyOf(row.boatId, row)] : [])));
    for (const [at, { id, inService }] of fresh.entries()) {
      const month = months.get(inService.slice(0, 7)) ?? { kept: 0, late: 0, lost: 0, open: 0 };
      months.set(inService.slice(0, 7), month);
      for (const fate of judgeBoat({ ...questions[at]!, inService }, span.to, (service) =>
        elsewhere.has(keyOf(id, service)),
      ))
        month[fate]++;
    }
    await new Promise(setImmediate);
  }
  const all = [...months].map(([month, fates]) => ({ month, ...fates }));
  const turn = span.turn.slice(0, 7);
  const keptOf = (those: readonly { kept: number; late: number; lost: number }[]) =>
    estimateShare(
      those.reduce((sum, { kept }) => sum + kept, 0),
      those.reduce((sum, { kept, late, lost }) => sum + kept + late + lost, 0),
    );
  return {
    months: listMonths(span).map((month) => ({
      month,
      ...(months.get(month) ?? { kept: 0, late: 0, lost: 0, open: 0 }),
    })),
    now: keptOf(all.filter(({ month }) => month >= turn)),
    before: keptOf(all.filter(({ month }) => month < turn)),
  };
}

const keyOf = (boat: string, { engine, item }: { engine: string; item: string }) => `${boat} ${engine} ${item}`;

/** The fate of the first service of each engine whose pack has one. */
function judgeBoat(
  question: CareQuestion & { readonly inService: LocalDate },
  today: LocalDate,
  isElsewhere: (service: { engine: string; item: string }) => boolean,
): FirstServiceFate[] {
  const { inService, packs, services, rig } = question;
  return rig.engines.flatMap((engine) => {
    // What is done once, at its first hours.
    const item = findPack(packs.service, engine.servicePack).items.find(
      ({ firstH, everyH, everyMonths }) => firstH !== undefined && everyH === undefined && everyMonths === undefined,
    );
    if (item === undefined) return [];
    const done = services.find((each) => each.engine === engine.id && each.item === item.id);
    const service = {
      inService,
      firstH: item.firstH ?? null,
      firstMonths: item.firstMonths ?? null,
      done: done === undefined ? null : { ...done, isElsewhere: isElsewhere(done) },
      // Only of what is not done yet does it matter how far the engine has come.
      likelyNowH: done === undefined ? readEngineStatus(question, engine).likelyNowH : null,
    };
    return [judgeFirstService(service, today)];
  });
}
