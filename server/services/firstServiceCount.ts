import type { ReportSheet } from "../../api/index.ts";
import { type CareQuestion, findPack, readEngineStatus } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { estimateShare, type FirstServiceFate, judgeFirstService } from "../../core/reports/index.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Span } from "../repositories/reports.ts";
import type { CareReader } from "./careReader.ts";
import { listMonths } from "./reportMonths.ts";

interface Parts {
  readonly boats: Boats;
  readonly careReader: CareReader;
}

/** So many boats are worked out at a time, so that whoever asks for something else meanwhile is answered. */
const atOnce = 150;

/** What became of the first services of boats that were handed over in these two years, by the month of that. */
export async function countFirstServices(
  { boats, careReader }: Parts,
  span: Span,
): Promise<ReportSheet["firstServices"]> {
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
