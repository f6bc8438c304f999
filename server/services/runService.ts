import { isDeepStrictEqual } from "node:util";
import type { NewRun, RunLine, RunSheet } from "../../api/index.ts";
import {
  adviseNext,
  breakInTrace,
  createHoursAt,
  describeCoverage,
  formatBreach,
  type LimitPhase,
} from "../../core/breakin/index.ts";
import { fuelOf, limitsOf, type Packs, readingsOf } from "../../core/care/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import { resolveReadings } from "../../core/hours/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Runs } from "../repositories/runs.ts";
import type { Withdrawals } from "../repositories/withdrawals.ts";
import { toFill, toReading } from "./careReader.ts";
import { isKept } from "./isKept.ts";
import type { PackService } from "./packService.ts";
import type { RigService } from "./rigService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly runs: Runs;
  readonly withdrawals: Withdrawals;
  readonly packService: PackService;
  readonly rigService: RigService;
  readonly clock: Clock;
}

type Samples = readonly (readonly [number, number])[];

/** A run as its break-in sees it, in words. */
export function judgeRun(
  limits: readonly LimitPhase[],
  hoursBefore: number,
  samples: Samples,
  startMin: number,
  topRpm: number,
): RunLine["verdict"] {
  const trace = breakInTrace({ phases: [...limits], hoursBefore, samples: samples.map(([s, rpm]) => [s, rpm]) });
  const hoursAt = createHoursAt(samples, hoursBefore);
  const covered = Object.fromEntries(trace.bands.map(({ fromRpm, s }) => [String(fromRpm), s]));
  const least = describeCoverage(limits, covered, trace.hoursAfter, topRpm)
    .filter(({ s, goalS, isOpen }) => isOpen && s < goalS / 4)
    .map(({ fromRpm }) => fromRpm);
  return {
    ...trace,
    breaches: trace.breaches.map((breach) => ({
      ...breach,
      says: formatBreach(breach, samples, limits, hoursAt, startMin),
    })),
    advice: limits.length === 0 ? [] : adviseNext(trace, trace.hoursAfter < (limits.at(-1)?.toH ?? 0) ? least : []),
  };
}

/** Runs that were logged: judged as they come in, and kept with what they were judged by. */
export function createRunService(parts: Parts) {
  const { database, boats, runs, packService, rigService, clock } = parts;
  return {
    async add(boatId: string, by: string, run: NewRun, readingSource: "file" | "owner"): Promise<RunLine[]> {
      const packs = await packService.read();
      return database.inTransaction(async (transaction) => {
        const boat = await boats.find(boatId, transaction);
        if (boat === null) throw new Failure("not-found", { what: "boat", id: boatId });
        checkDay(boat, run.date, clock.today());
        const question: RunQuestion = {
          boatId,
          by,
          run,
          readingSource,
          packs,
          rig: rigService.read(boat.rigText),
          known: await runs.listOf([boatId], transaction),
          readings: (await boats.listReadings([boatId], transaction)).map(toReading),
          fills: (await boats.listFills([boatId], transaction)).map(toFill),
        };
        const kept: RunLine[] = [];
        for (const ran of run.engines) kept.push(...(await keepRun(parts, question, ran, transaction)));
        return kept;
      });
    },

    async describe(boatId: string, id: string): Promise<RunSheet> {
      const found = await runs.find(id);
      if (found === null || found.run.boatId !== boatId) throw new Failure("not-found", { what: "run", id });
      const { boatId: _, ...run } = found.run;
      const { limits, samples, temperatures = [] } = found.trace;
      return { run, limits, samples, temperatures };
    },
  };
}

interface RunQuestion {
  readonly boatId: string;
  readonly by: string;
  readonly run: NewRun;
  readonly readingSource: "file" | "owner";
  readonly packs: Packs;
  readonly rig: Rig;
  /** The runs of this boat that are here. */
  readonly known: readonly (RunLine & { readonly boatId: string })[];
  readonly readings: readonly ReturnType<typeof toReading>[];
  readonly fills: readonly ReturnType<typeof toFill>[];
}

function checkDay({ id, inService }: Pick<BoatRecord, "id" | "inService">, date: LocalDate, today: LocalDate) {
  if (inService === null) throw new Failure("not-delivered", { boat: id });
  if (date > today) throw new Failure("date-ahead", { path: "date", got: date, today });
  if (date < inService) throw new Failure("before-delivery", { path: "date", got: date, inService });
}

/** Of one engine: none where it was withdrawn since, for that is not taken anew. */
async function keepRun(
  { boats, runs, withdrawals, clock }: Parts,
  question: RunQuestion,
  { id, engine: engineId, samples, temperatures = [] }: NewRun["engines"][number],
  transaction: Transaction,
): Promise<RunLine[]> {
  const { boatId, by, run, rig, known } = question;
  const before = known.find((other) => other.id === id);
  if (before !== undefined) {
    const { boatId: _, ...line } = before;
    return [line];
  }
  if (isKept(await withdrawals.find("run", id, transaction), boatId)) return [];
  const engine = rig.engines.find((each) => each.id === engineId);
  if (engine === undefined)
    throw new Failure("invalid-input", {
      issues: [{ path: "engines", message: `no engine "${engineId}" on this boat` }],
    });
  checkOrder(samples);
  const reported = resolveReadings(readingsOf(question, engineId));
  const last = reported.findLast(({ date }) => date <= run.date);
  const hoursBefore = last?.engineH ?? 0;
  const limits = limitsOf(engine, question.packs, fuelOf(rig, engine, question.fills, reported));
  const verdict = judgeRun(limits, hoursBefore, samples, run.startMin, engine.ratedRpm.to);
  refuseSame(question, engineId, verdict);
  const { date, startMin, source, fileName } = run;
  const line: RunLine = { id, engine: engineId, date, startMin, source, fileName, hoursBefore, by, verdict };
  const trace = { samples: thin(samples), limits, temperatures: thin(temperatures) };
  await runs.add({ ...line, boatId }, trace, clock.now(), transaction);
  // A run after the last reading moves the hours on; one that was forgotten and comes late does not.
  if (last === reported.at(-1) && verdict.runS > 0) {
    const hours = (last?.meterH ?? 0) + verdict.runS / 3600;
    const reading = { id, boatId, engine: engineId, date, hours, by, source: question.readingSource };
    await boats.addReading({ ...reading, reason: null, answer: null, photo: null }, transaction);
  }
  return [line];
}

function checkOrder(samples: Samples) {
  const at = samples.findIndex(([s], i) => i > 0 && s <= samples[i - 1]![0]);
  if (at > 0)
    throw new Failure("invalid-input", {
      issues: [{ path: `engines.samples[${at}]`, message: "must be later than the sample before" }],
    });
}

function refuseSame({ known, run }: RunQuestion, engine: string, verdict: RunLine["verdict"]) {
  const same = known.find((other) => isSameRun(other, engine, run, verdict));
  if (same === undefined) return;
  const { date, startMin, by } = same;
  throw new Failure("run-known", { date, startMin, by, minutes: Math.round(verdict.runS / 60) });
}

/** The same minutes at the same speeds of one engine, begun at the same minute: the same file once more. */
const isSameRun = (other: RunLine, engine: string, { date, startMin }: NewRun, { runS, bands }: RunLine["verdict"]) =>
  other.engine === engine &&
  other.date === date &&
  other.startMin === startMin &&
  other.verdict.runS === runS &&
  isDeepStrictEqual(other.verdict.bands, bands);

export type RunService = ReturnType<typeof createRunService>;

const mostDrawn = 4000;

/** What is kept for drawing: of each of at most 2,000 stretches the lowest and the highest speed, in order of time. */
export function thin(samples: Samples): [number, number][] {
  if (samples.length <= mostDrawn) return samples.map(([s, rpm]) => [s, rpm]);
  const size = Math.ceil((samples.length * 2) / mostDrawn);
  const kept: [number, number][] = [];
  for (let from = 0; from < samples.length; from += size) {
    const stretch = samples.slice(from, from + size);
    const lowest = stretch.reduce((a, b) => (b[1] < a[1] ? b : a));
    const highest = stretch.reduce((a, b) => (b[1] > a[1] ? b : a));
    for (const [s, rpm] of [lowest, highest].sort((a, b) => a[0] - b[0]))
      if (kept.at(-1)?.[0] !== s) kept.push([s, rpm]);
  }
  return kept;
}
