import { fail, type Result, succeed } from "../result.ts";
import { breakInPlan, type NoPlan, sampleLegs } from "./breakInPlan.ts";
import { breakInTrace } from "./breakInTrace.ts";
import type { BreakInPlan } from "./planContract.ts";
import type { LimitPhase } from "./traceContract.ts";

/** One engine of several that turn together. As in `BreakInPlanInput`. */
export interface Together {
  readonly phases: readonly LimitPhase[];
  readonly hoursBefore: number;
  readonly coveredS: Readonly<Record<string, number>>;
  readonly topRpm: number;
}

/**
 * The next run of engines whose levers are moved together: one plan that keeps the rules of each of them at its own hours,
 * and goes to the speeds that one of them has turned least. Its own judge has the last word, for every engine.
 *
 * @example one engine at 0.2 h under half speed, its twin at 5 h under full → no leg above half speed.
 */
export function planTogether(
  engines: readonly Together[],
  minutes: number,
  idleRpm: number,
): Result<BreakInPlan, NoPlan> {
  const phases = joinLimits(engines, minutes / 60);
  const strictest = phases.length === 0 ? [] : [{ ...joinPhases(phases), fromH: 0, toH: minutes / 60 + spareH }];
  // Rules joined stretch by stretch nearly always do; else the strictest of each from end to end.
  for (const joined of [phases, strictest]) {
    const plan = breakInPlan({
      phases: joined,
      hoursBefore: 0,
      minutes,
      coveredS: coverLeast(engines),
      idleRpm,
      topRpm: Math.min(...engines.map(({ topRpm }) => topRpm)),
    });
    if (!plan.ok) continue;
    const samples = sampleLegs(plan.value.legs);
    const isGood = engines.every(
      ({ phases: own, hoursBefore }) => breakInTrace({ phases: [...own], hoursBefore, samples }).breaches.length === 0,
    );
    if (isGood) return succeed(plan.value);
  }
  return fail({ code: "no-plan", message: "no run of this length keeps the rules of all engines" });
}

/** What the last phase is longer than the run, so that its end lies within it. */
const spareH = 0.1;

/** The limits of all engines from now on, hours counted from the start of the run: a phase for each stretch in which none changes. */
function joinLimits(engines: readonly Together[], runH: number): LimitPhase[] {
  const edges = new Set([0, runH + spareH]);
  for (const { phases, hoursBefore } of engines)
    for (const { fromH, toH } of phases)
      for (const edge of [fromH - hoursBefore, toH - hoursBefore])
        if (edge > 0 && edge < runH + spareH) edges.add(edge);
  const inOrder = [...edges].sort((a, b) => a - b);
  return inOrder.slice(1).flatMap((toH, i): LimitPhase[] => {
    const fromH = inOrder[i]!;
    const middleH = (fromH + toH) / 2;
    const held = engines.flatMap(({ phases, hoursBefore }) => {
      const atH = hoursBefore + middleH;
      return phases.find((phase) => phase.fromH <= atH && atH < phase.toH) ?? [];
    });
    return held.length === 0 ? [] : [{ ...joinPhases(held), fromH, toH }];
  });
}

/** The strictest of each rule that any of these phases has. */
function joinPhases(phases: readonly LimitPhase[]): Omit<LimitPhase, "fromH" | "toH"> {
  const having = <R extends "maxRpm" | "wot" | "steady" | "idle">(rule: R) =>
    phases.flatMap((phase) => (phase[rule] === undefined ? [] : [phase[rule] as NonNullable<LimitPhase[R]>]));
  const least = (values: readonly number[]) => Math.min(...values);
  const most = (values: readonly number[]) => Math.max(...values);
  const [maxRpm, wot, steady, idle] = [having("maxRpm"), having("wot"), having("steady"), having("idle")];
  return {
    ...(maxRpm.length === 0 ? {} : { maxRpm: least(maxRpm) }),
    ...(wot.length === 0
      ? {}
      : {
          wot: {
            rpm: least(wot.map(({ rpm }) => rpm)),
            maxContinuousS: least(wot.map(({ maxContinuousS }) => maxContinuousS)),
          },
        }),
    ...(steady.length === 0
      ? {}
      : {
          steady: {
            bandRpm: most(steady.map(({ bandRpm }) => bandRpm)),
            aboveRpm: least(steady.map(({ aboveRpm }) => aboveRpm)),
            maxMin: least(steady.map(({ maxMin }) => maxMin)),
          },
        }),
    ...(idle.length === 0
      ? {}
      : {
          idle: {
            belowRpm: most(idle.map(({ belowRpm }) => belowRpm)),
            maxMin: least(idle.map(({ maxMin }) => maxMin)),
          },
        }),
  };
}

/** Of each band the seconds of the engine that has turned it least. */
function coverLeast(engines: readonly Together[]): Record<string, number> {
  const bands = new Set(engines.flatMap(({ coveredS }) => Object.keys(coveredS)));
  return Object.fromEntries(
    [...bands].map((band) => [band, Math.min(...engines.map(({ coveredS }) => coveredS[band] ?? 0))]),
  );
}
