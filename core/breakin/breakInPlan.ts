import { fail, type Result, succeed } from "../result.ts";
import { bandRpm, breakInTrace } from "./breakInTrace.ts";
import { createLegLimits, type Stretch } from "./internal/legLimits.ts";
import type { BreakInPlan, BreakInPlanInput, Leg } from "./planContract.ts";
import type { LimitPhase } from "./traceContract.ts";

const warmUpRpm = 1500;
const fastIdleRpm = 1250;
const warmUpS = 300;
const coolDownS = 120;
/** Full throttle is planned by the minute, whatever more a pack allows. */
const fullThrottleS = 60;
/** How many legs may be tried before the run is given up. */
const mostTries = 20_000;
/** First legs that are easily followed and well within the rules, then ever shorter ones, up to the very limits. */
const ways = [
  { marginS: 3, shortestS: 30 },
  { marginS: 3, shortestS: 10 },
  { marginS: 0, shortestS: 30 },
  { marginS: 0, shortestS: 5 },
] as const;
type Way = (typeof ways)[number];

export type NoPlan = { code: "no-plan"; message: string };

/**
 * The next run (contract `breakin-plan`): legs of whole seconds that keep every rule of their phases, warm up first, end at
 * idle, and go to the speeds this engine has turned least. Legs are put together depth first, the least run band first.
 *
 * @example 90 minutes at 0 h under half speed → warm-up, then every band up to half speed, none for longer than allowed.
 */
export function breakInPlan(input: BreakInPlanInput): Result<BreakInPlan, NoPlan> {
  const { phases, hoursBefore, minutes, idleRpm } = input;
  const none = { code: "no-plan", message: "no run of this length keeps all the rules" } as const;
  if (idleRpm > warmUpRpm) return fail(none);
  const wholeS = Math.floor(minutes * 60 + 1e-9);
  const warmS = minutes < 15 ? Math.ceil((minutes * 60) / 3 - 1e-9) : warmUpS;
  for (const way of ways) {
    const mainS = wholeS - warmS - coolDownS;
    const stretches = search(input, { warmS, mainS, restS: coolDownS }, way);
    if (stretches === null) continue;
    const legs = mergeStretches(stretches).map(({ rpm, s }) => ({ rpm, minutes: s / 60 }));
    // What is over of the last second goes to the warm-up.
    const others = legs.slice(1).reduce((sum, leg) => sum + leg.minutes, 0);
    legs[0] = { rpm: legs[0]!.rpm, minutes: minutes - others };
    if (breakInTrace({ phases, hoursBefore, samples: sampleLegs(legs) }).breaches.length === 0)
      return succeed({ legs });
  }
  return fail(none);
}

/** A run as a sample a second, as a trace has it; the last sample closes it. Seconds and rpm. */
export function sampleLegs(legs: readonly Leg[]): [number, number][] {
  const samples: [number, number][] = [];
  let untilS = 0;
  for (const { rpm, minutes } of legs) {
    untilS += minutes * 60;
    for (let s = samples.length; s < untilS - 1e-6; s++) samples.push([s, rpm]);
  }
  samples.push([Math.max(samples.length, untilS), legs.at(-1)?.rpm ?? 0]);
  return samples;
}

interface Parts {
  readonly warmS: number;
  readonly mainS: number;
  readonly restS: number;
}

/** Depth first over legs; null when none is found. */
function search(input: BreakInPlanInput, { warmS, mainS, restS }: Parts, way: Way): Stretch[] | null {
  const { idleRpm, hoursBefore } = input;
  const limits = createLegLimits(input.phases, hoursBefore, way.marginS);
  const speeds = listSpeeds(input);
  const covered = new Map(Object.entries(input.coveredS ?? {}).map(([band, s]) => [Number(band), s]));
  const totalS = warmS + mainS + restS;
  covered.set(bandOf(idleRpm), (covered.get(bandOf(idleRpm)) ?? 0) + restS);
  const preferredS = preferLegS(mainS, new Set(speeds.map(bandOf)).size);
  const legs: Stretch[] = [];
  let tries = 0;

  type Pieces = ReturnType<typeof limits.cut>;
  const extend = (pieces: Pieces, leg: Stretch, atS: number, runS: number): Pieces | null => {
    // Piece by piece: a row may be too long at the end of one and broken off by the next.
    let grown = pieces;
    for (const piece of limits.cut(leg, atS, runS)) {
      grown = [...grown, piece];
      if (limits.breaks(grown)) return null;
    }
    return grown;
  };
  const runOf = ({ rpm, s }: Stretch) => (rpm >= 300 ? s : 0);

  const go = (pieces: Pieces, atS: number, runS: number): boolean => {
    if (tries++ > mostTries) return false;
    if (atS === warmS + mainS) {
      const rest = { rpm: idleRpm, s: restS };
      if (extend(pieces, rest, atS, runS) === null) return false;
      legs.push(rest);
      return true;
    }
    const isWarm = atS < warmS;
    const leftS = (isWarm ? warmS : totalS - restS) - atS;
    const usable = isWarm ? listWarmUp(speeds) : rankSpeeds(input, speeds, covered, preferredS);
    for (const rpm of usable) {
      const mostS = isWarm ? leftS : isFullThrottle(input, rpm) ? Math.min(fullThrottleS, preferredS) : preferredS;
      for (const s of listLengths(mostS, leftS, way.shortestS)) {
        const leg = { rpm, s };
        const grown = extend(pieces, leg, atS, runS);
        if (grown === null) continue;
        legs.push(leg);
        const band = bandOf(rpm);
        covered.set(band, (covered.get(band) ?? 0) + s);
        if (go(grown, atS + s, runS + runOf(leg))) return true;
        covered.set(band, covered.get(band)! - s);
        legs.pop();
        if (tries > mostTries) return false;
      }
    }
    return false;
  };
  return go([], 0, 0) ? legs : null;
}

const isFullThrottle = ({ phases }: BreakInPlanInput, rpm: number) =>
  phases.some(({ wot }) => wot !== undefined && rpm >= wot.rpm);

const bandOf = (rpm: number) => Math.floor(rpm / bandRpm) * bandRpm;

/** The speeds a leg may have: one in each band, and those just inside the limits. Idle first. */
function listSpeeds({ phases, idleRpm, topRpm }: BreakInPlanInput): number[] {
  const found = new Set<number>([idleRpm, topRpm]);
  for (let band = 0; band <= topRpm; band += bandRpm) found.add(band + bandRpm / 2);
  const edges = (phase: LimitPhase) => [
    phase.maxRpm,
    phase.wot?.rpm,
    phase.wot && phase.wot.rpm - 50,
    phase.steady && phase.steady.aboveRpm - 50,
    phase.idle?.belowRpm,
  ];
  for (const edge of phases.flatMap(edges)) if (edge !== undefined) found.add(edge);
  found.add(Math.min(warmUpRpm, topRpm));
  return [...found].filter((rpm) => rpm >= idleRpm && rpm <= topRpm).sort((a, b) => a - b);
}

/** The speeds to warm up at: a fast idle first. */
const listWarmUp = (speeds: readonly number[]) =>
  speeds.filter((rpm) => rpm <= warmUpRpm).sort((a, b) => Math.abs(a - fastIdleRpm) - Math.abs(b - fastIdleRpm));

/**
 * The speeds of the band run least first; of one band the middle first, as it is the easiest to hold. Least in turns, not
 * in seconds: a minute at full throttle is a turn where no more is allowed, and near idle a third of the time is one.
 */
function rankSpeeds(
  { phases, topRpm }: BreakInPlanInput,
  speeds: readonly number[],
  covered: ReadonlyMap<number, number>,
  preferredS: number,
): number[] {
  const turns = new Map<number, number>();
  // The very top is no band of its own.
  const topBand = bandOf(topRpm - 1);
  const bandIn = (rpm: number) => Math.min(bandOf(rpm), topBand);
  for (const rpm of speeds) {
    const band = bandIn(rpm);
    const short = phases.flatMap(({ wot }) =>
      wot !== undefined && band + bandRpm > wot.rpm ? [Math.min(fullThrottleS, wot.maxContinuousS)] : [],
    );
    const turnS = Math.max(1, Math.min(band < 1000 ? preferredS / 3 : preferredS, ...short));
    const sofarS = (covered.get(band) ?? 0) + (band === topBand ? (covered.get(topBand + bandRpm) ?? 0) : 0);
    turns.set(band, sofarS / turnS);
  }
  const fromMiddle = (rpm: number) => Math.abs(rpm - bandOf(rpm) - bandRpm / 2);
  return [...speeds].sort(
    (a, b) =>
      turns.get(bandIn(a))! - turns.get(bandIn(b))! || bandIn(a) - bandIn(b) || fromMiddle(a) - fromMiddle(b) || a - b,
  );
}

/** How long a leg is at best: short enough to come to every band, long enough to follow, in half minutes. */
function preferLegS(mainS: number, speeds: number): number {
  const evenS = mainS / Math.max(1, Math.min(speeds, 12));
  return Math.min(300, Math.max(60, Math.round(evenS / 30) * 30));
}

/** Lengths to try, the longest first; none that leaves less than the shortest over. */
function listLengths(preferredS: number, leftS: number, shortestS: number): number[] {
  const usual = [preferredS, 240, 180, 120, 90, 60, 45, 30, 20, 10, 5].filter((s) => s <= preferredS && s >= shortestS);
  const fits = usual.filter((s) => leftS - s >= shortestS);
  return leftS <= preferredS + shortestS || fits.length === 0 ? [leftS, ...fits] : fits;
}

function mergeStretches(stretches: readonly Stretch[]): Stretch[] {
  const merged: Stretch[] = [];
  for (const stretch of stretches) {
    const last = merged.at(-1);
    if (last !== undefined && last.rpm === stretch.rpm)
      merged[merged.length - 1] = { rpm: last.rpm, s: last.s + stretch.s };
    else merged.push(stretch);
  }
  return merged;
}
