import {
  addBands,
  createLimits,
  describeCoverage,
  findBreakInStanding,
  measureProgress,
  toHours,
} from "../breakin/index.ts";
import { describeExpected, fanHours, findDrift, findRate } from "../hours/index.ts";
import { compareDue, type Dated, listDue, planYears, type Scope } from "../service/index.ts";
import { type EngineStatus, readEngineStatus } from "./engineStatus.ts";
import { describeTanks, fuelOf } from "./fuel.ts";
import { type CareQuestion, findPack } from "./question.ts";
import { careSince, listScopes } from "./scopes.ts";

/** Break-in and service of every engine of a boat, as known today. Before delivery nothing falls due. */
export function describeCare(question: CareQuestion) {
  const statuses = question.rig.engines.map((engine) => readEngineStatus(question, engine));
  const scopes = careSince(question) === null ? [] : listScopes(question, statuses);
  return statuses.map((status) =>
    describeEngine(
      question,
      status,
      scopes.find(({ id }) => id === status.engine.id),
    ),
  );
}

function describeEngine(question: CareQuestion, status: EngineStatus, scope: Scope | undefined) {
  const { engine, resolved, forecast, likelyNowH } = status;
  const { last = null } = forecast ?? {};
  const pack = findPack(question.packs.breakIn, engine.breakInPack);
  const servicePack = findPack(question.packs.service, engine.servicePack);
  const fuel = fuelOf(question.rig, engine, question.fills, resolved);
  const inHours = toHours(pack, fuel);
  const limits = inHours === null ? [] : createLimits(inHours, engine.ratedRpm.to);
  const runs = question.runs.filter((run) => run.engine === engine.id);
  const hours = last?.hours ?? 0;
  const coverage = describeCoverage(
    limits,
    addBands(runs.map(({ verdict }) => verdict.bands)),
    hours,
    engine.ratedRpm.to,
  );
  const items = scope === undefined ? [] : listItems(question, scope);
  return {
    engine: engine.id,
    label: engine.label,
    kind: engine.kind,
    reportedH: last?.hours ?? null,
    meterH: resolved.at(-1)?.meterH ?? null,
    reportedOn: last?.date ?? null,
    likelyNowH,
    breakInTitle: pack.title,
    breakInBasis: pack.basis,
    isByTanks: pack.per === "tank",
    tankHours: pack.per !== "tank" || fuel === null ? null : describeTanks(pack.totalH, fuel, hours),
    // Limits follow the hours reported, not those supposed: the lower count has the stricter limits.
    breakIn: last === null || inHours === null ? null : findBreakInStanding(inHours, last.hours, engine.ratedRpm.to),
    limits,
    ratedToRpm: engine.ratedRpm.to,
    coverage,
    progress: measureProgress(coverage, hours, inHours?.totalH ?? 0),
    serviceTitle: servicePack.title,
    serviceBasis: servicePack.basis,
    items,
    // Before the handover there is nobody yet whose hours could be foretold.
    forecast: question.inService === null ? null : describeForecast(question, status, inHours?.totalH ?? null, items),
  };
}

function listItems({ services, rig, today }: CareQuestion, scope: Scope) {
  const timed = { ...scope, items: scope.items.filter(({ season }) => season === undefined) };
  return listDue(timed, today).map(({ item, ...due }) => {
    const dates = services.filter((each) => each.engine === scope.id && each.item === item.id).map(({ date }) => date);
    const lastDone = dates.sort().at(-1) ?? null;
    const isUnknown = lastDone === null && rig.used !== undefined;
    return { id: item.id, title: item.title, work: item.work, ...due, lastDone, isUnknown };
  });
}

function describeForecast(
  { today }: CareQuestion,
  { owner, forecast }: EngineStatus,
  breakInH: number | null,
  items: ReturnType<typeof listItems>,
) {
  if (forecast === null) return null;
  const next = items.filter(({ targetH, state }) => targetH !== null && state !== "finished").sort(compareDue)[0];
  const isOver = breakInH === null || forecast.last.hours >= breakInH;
  return {
    yearH: { p10: findRate(owner, 0.1), p50: findRate(owner, 0.5), p90: findRate(owner, 0.9) },
    fan: fanHours(forecast, today),
    breakInEnds: isOver ? null : { targetH: breakInH, ...describeExpected(forecast.datesOf(breakInH), today) },
    nextService: next ?? null,
  };
}

/** The next five years of a boat, and whether its engines have drifted apart. */
export function describePlan(question: CareQuestion, gear: readonly Dated[]) {
  const statuses = question.rig.engines.map((engine) => readEngineStatus(question, engine));
  const hours = statuses.flatMap(({ engine, forecast }) =>
    forecast === null || engine.kind === "kicker" ? [] : [forecast.last.hours],
  );
  const scopes = question.inService === null ? [] : listScopes(question, statuses);
  return { visits: scopes.length === 0 ? [] : planYears(question.today, scopes, gear), driftH: findDrift(hours) };
}
