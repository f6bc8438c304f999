import type { BoatCare, EngineCare, RunLine } from "../../api/index.ts";
import {
  addBands,
  burnOf,
  createLimits,
  describeCoverage,
  findBreakInStanding,
  measureFuel,
  measureProgress,
  type TankBurn,
  tanksBurnt,
  toHours,
  turnTanks,
} from "../../core/breakin/index.ts";
import type { IsoDate } from "../../core/dates/index.ts";
import {
  believeOwner,
  describeOwner,
  type Fleet,
  fanHours,
  findDrift,
  forecastHours,
  type Owner,
  type Reading,
  type ReadingAnswer,
  type Resolved,
  resolveReadings,
  sumSeason,
  usualTripH,
} from "../../core/hours/index.ts";
import type { Engine, Rig } from "../../core/rig/index.ts";
import {
  type Dated,
  due,
  estimateHours,
  listComing,
  planYears,
  type Scope,
  type ServiceItem,
  type ServicePack,
} from "../../core/service/index.ts";
import type { FillRow, ReadingRow, ServiceRow } from "../database/models.ts";
import type { Packs } from "./packService.ts";

export interface CareQuestion {
  readonly rig: Rig;
  readonly inService: IsoDate | null;
  readonly today: IsoDate;
  readonly packs: Packs;
  readonly fleet: Fleet;
  readonly readings: readonly ReadingRow[];
  readonly fills: readonly FillRow[];
  readonly services: readonly ServiceRow[];
  readonly runs: readonly RunLine[];
}

/** The id under which the boat itself is served, its engines aside. */
export const boatScope = "boat";

/** One engine as known today: what it has run, what its owner is believed to run, its packs. */
export interface EngineStatus {
  readonly engine: Engine;
  readonly resolved: readonly Resolved[];
  readonly last: { readonly date: IsoDate; readonly hours: number } | null;
  readonly owner: Owner;
  readonly meanH: number;
  readonly monthlyHours: readonly number[];
  readonly likelyNowH: number | null;
  readonly servicePack: ServicePack;
}

/** The readings of one engine, as core takes them. `rows` as the repository lists them. */
export const readingsOf = (rows: readonly ReadingRow[], engine: string): Reading[] =>
  rows
    .filter((row) => row.engine === engine)
    .map(({ date, hours, answer }) => ({ date, hours, answer: answer as ReadingAnswer | null }));

/** What this owner is known by: of a used boat not the hours before its handover, which others ran, but the last of them. */
function ofOwner(resolved: readonly Resolved[], rig: Rig, inService: IsoDate | null): readonly Resolved[] {
  if (rig.used === undefined || inService === null) return resolved;
  const own = resolved.filter(({ date }) => date >= inService);
  return own.length === 0 ? resolved.slice(-1) : own;
}

export function readEngineStatus(question: CareQuestion, engine: Engine): EngineStatus {
  const { fleet, today, inService, rig } = question;
  const resolved = resolveReadings(readingsOf(question.readings, engine.id));
  const reported = resolved.at(-1) ?? null;
  const last = reported === null ? null : { date: reported.date, hours: reported.engineH };
  // One stretch from the first to the last reading says nearly all that the single ones do.
  const [first] = ofOwner(resolved, rig, inService);
  const passed =
    first === undefined || last === null || last.date === first.date
      ? []
      : [{ share: sumSeason(first.date, last.date, fleet.seasonShare), hours: last.hours - first.engineH }];
  const owner = believeOwner(fleet.yearH, passed, usualTripH);
  const { meanH } = describeOwner(owner);
  const monthlyHours = fleet.seasonShare.map((share) => share * meanH);
  return {
    engine,
    resolved,
    last,
    owner,
    meanH,
    monthlyHours,
    likelyNowH:
      last === null
        ? null
        : inService === null
          ? last.hours
          : estimateHours(last.hours, last.date, today, monthlyHours),
    servicePack: findPack(question.packs.service, engine.servicePack),
  };
}

/** Break-in and service of every engine of a boat, as known today. Before delivery nothing falls due. */
export function describeCare(question: CareQuestion, withForecast = true): EngineCare[] {
  return question.rig.engines.map((engine) =>
    describeEngine(question, readEngineStatus(question, engine), withForecast),
  );
}

function describeEngine(question: CareQuestion, status: EngineStatus, withForecast: boolean): EngineCare {
  const { engine, last, resolved, likelyNowH, servicePack } = status;
  const pack = findPack(question.packs.breakIn, engine.breakInPack);
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
  const items =
    careSince(question) === null || likelyNowH === null ? [] : listItems(question, engine.id, servicePack, status);
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
    forecast:
      withForecast && last !== null && question.inService !== null
        ? forecastEngine(question, status, inHours?.totalH ?? null, items)
        : null,
  };
}

function forecastEngine(
  { rig, fleet, today, inService }: CareQuestion,
  { resolved, last, owner }: EngineStatus,
  breakInH: number | null,
  items: EngineCare["items"],
): EngineCare["forecast"] {
  const next = items.filter(({ targetH, state }) => targetH !== null && state !== "finished");
  const service = next.sort((a, b) => a.targetH! - b.targetH!)[0] ?? null;
  const targetsH = [...(breakInH === null ? [] : [breakInH]), ...(service === null ? [] : [service.targetH!])];
  const { targets, yearH } = forecastHours({
    readings: ofOwner(resolved, rig, inService)
      .filter(({ date }) => date <= today)
      .map(({ date, engineH }) => ({ date, hours: engineH })),
    seasonShare: [...fleet.seasonShare],
    fleetYearH: fleet.yearH,
    today,
    targetsH,
  });
  const isOver = breakInH === null || last!.hours >= breakInH;
  return {
    yearH,
    fan: fanHours(owner, last!, today, fleet.seasonShare, usualTripH),
    breakInEnds: isOver ? null : targets[0]!,
    nextService: service === null ? null : { ...targets.at(-1)!, title: service.title },
  };
}

/**
 * From which day what was never done on an engine counts: the handover; of a used one, the beginning of its model year, also
 * while it is still here, for what nobody knows counts as not done. Null for a new one before its handover.
 */
function careSince({ inService, rig, today }: CareQuestion): IsoDate | null {
  if (rig.used === undefined) return inService;
  const built = `${rig.modelYear}-01-01`;
  return built < (inService ?? today) ? built : (inService ?? today);
}

/** What can come of a pack on this boat; `scope` is an engine of it, or the boat itself. */
const comingOf = ({ rig, services }: CareQuestion, scope: string, items: readonly ServiceItem[]) =>
  listComing(items, rig.used !== undefined, (id) =>
    services.some(({ engine, item }) => engine === scope && item === id),
  );

function listItems(
  question: CareQuestion,
  engine: string,
  pack: ServicePack,
  status: EngineStatus,
): EngineCare["items"] {
  const items = comingOf(question, engine, pack.items).filter(({ season }) => season === undefined);
  const mine = question.services.filter(
    (service) => service.engine === engine && items.some(({ id }) => id === service.item),
  );
  const answer = due({
    inService: careSince(question)!,
    today: question.today,
    hoursNow: status.likelyNowH!,
    monthlyHours: [...status.monthlyHours],
    items: items.map(({ id, firstH, everyH, firstMonths, everyMonths }) => ({
      id,
      firstH,
      everyH,
      firstMonths,
      everyMonths,
    })),
    done: mine.map(({ item, date, hours }) => ({ item, date, hours })),
  });
  return answer.items.map((item, i) => {
    const dates = mine.filter((service) => service.item === item.id).map(({ date }) => date);
    const lastDone = dates.sort().at(-1) ?? null;
    const isUnknown = lastDone === null && question.rig.used !== undefined;
    return { ...item, title: items[i]!.title, work: items[i]!.work, lastDone, isUnknown };
  });
}

/** The engines with their packs, then the boat itself, as `planYears` and `nextTargets` take them. */
export function listScopes(question: CareQuestion, statuses: readonly EngineStatus[]): Scope[] {
  const doneOf = (scope: string) =>
    question.services
      .filter((service) => service.engine === scope)
      .map(({ item, date, hours }) => ({ item, date, hours }));
  const since = careSince(question);
  const engines = statuses.flatMap(({ engine, servicePack, likelyNowH, monthlyHours }): Scope[] =>
    likelyNowH === null
      ? []
      : [
          {
            id: engine.id,
            label: engine.label,
            hoursNow: likelyNowH,
            monthlyHours,
            items: comingOf(question, engine.id, servicePack.items),
            ...(since === null ? {} : { since }),
            done: doneOf(engine.id),
          },
        ],
  );
  const boat: Scope = {
    id: boatScope,
    label: "The boat",
    hoursNow: 0,
    monthlyHours: [],
    items: comingOf(question, boatScope, question.packs.boatCare.items).filter((item) => isNeeded(item, question.rig)),
    done: doneOf(boatScope),
  };
  return [...engines, boat];
}

function isNeeded({ needs }: ServiceItem, rig: Rig): boolean {
  if (needs === "trailer") return rig.trailer !== null;
  if (needs === "flooded-battery") return rig.batteries.some(({ chemistry }) => chemistry === "flooded");
  return true;
}

/** The next five years of a boat, and whether its engines have drifted apart. */
export function describePlan(question: CareQuestion, gear: readonly Dated[]): Pick<BoatCare, "visits" | "driftH"> {
  const statuses = question.rig.engines.map((engine) => readEngineStatus(question, engine));
  const hours = statuses.flatMap(({ engine, last }) => (last === null || engine.kind === "kicker" ? [] : [last.hours]));
  return {
    visits:
      question.inService === null
        ? []
        : planYears(question.inService, question.today, listScopes(question, statuses), gear),
    driftH: findDrift(hours),
  };
}

/** The engines that burn what is noted as fuel: those of the main engines' fuel, kickers aside. */
const sharing = (rig: Rig, fuel: string) =>
  Math.max(1, rig.engines.filter((each) => fuelKind(each) === fuel && each.kind !== "kicker").length);
const fuelKind = (engine: Engine) => engine.fuel ?? "petrol";

/** What the tanks hold of the fuel of the main engines, L; 0 where it is not on the rig sheet. */
export function sumTanks(rig: Rig): number {
  const main = rig.engines.find(({ kind }) => kind !== "kicker") ?? rig.engines[0];
  return main === undefined ? 0 : litresOf(rig, fuelKind(main));
}
const litresOf = (rig: Rig, fuel: string) =>
  rig.tanks.filter(({ kind }) => kind === fuel).reduce((sum, tank) => sum + tank.litres, 0);

/**
 * What a tank holds for each engine that burns it, and how fast: as measured from full tanks to full tanks, else as entered on
 * the rig sheet; null where neither is known. A kicker burns too little of what is put in to be told from it.
 */
export function fuelOf(
  rig: Rig,
  engine: Engine,
  fills: readonly FillRow[],
  resolved: readonly Resolved[],
): TankBurn | null {
  const fuel = fuelKind(engine);
  const litres = litresOf(rig, fuel);
  if (litres === 0) return null;
  const engines = sharing(rig, fuel);
  const used =
    engine.kind === "kicker" || fuel !== fuelKind(rig.engines.find(({ kind }) => kind !== "kicker")!)
      ? null
      : measureFuel(
          fills.map(({ isFull, ...fill }) => ({ ...fill, isFull: isFull === 1 })),
          engines,
          (day) => resolved.findLast(({ date }) => date === day)?.engineH ?? null,
        );
  const burnLph = used === null ? engine.burnLph : burnOf(used);
  return burnLph === undefined || burnLph <= 0 ? null : { tankL: litres / engines, burnLph, used };
}

function describeTanks(tanks: number, fuel: TankBurn, hours: number): EngineCare["tankHours"] {
  const last = fuel.used?.points.at(-1);
  const measured = last === undefined ? null : { litres: last.litres, hours: last.hours - fuel.used!.fromH };
  const burnt = tanksBurnt(hours, fuel);
  return { tanks, burnt, ...turnTanks(tanks, fuel), burnLph: fuel.burnLph, measured };
}

/** The pack of that id; for a rig that names one which is not here, the first that ships, and its title says so. */
function findPack<P extends { id: string; title: string }>(packs: readonly P[], id: string): P {
  const usual = packs[0]!;
  return packs.find((pack) => pack.id === id) ?? { ...usual, title: `${usual.title} ("${id}" is not in the library)` };
}

/** The earliest due date over all engines and items; null when nothing is. */
export function findNextDue(care: readonly EngineCare[]): IsoDate | null {
  const dates = care.flatMap(({ items }) => items.flatMap(({ dueDate }) => (dueDate === null ? [] : [dueDate])));
  return dates.sort()[0] ?? null;
}

/** After how many hours an engine is run in; null where its tanks are not known. */
export function breakInHoursOf({ rig, packs, fills }: CareQuestion, { engine, resolved }: EngineStatus): number | null {
  const pack = findPack(packs.breakIn, engine.breakInPack);
  return toHours(pack, fuelOf(rig, engine, fills, resolved))?.totalH ?? null;
}

/** The limits that hold for an engine, for its runs to be judged by; empty where its tanks are not known. */
export function limitsOf(engine: Engine, packs: Packs, fuel: TankBurn | null) {
  const pack = toHours(findPack(packs.breakIn, engine.breakInPack), fuel);
  return pack === null ? [] : createLimits(pack, engine.ratedRpm.to);
}
