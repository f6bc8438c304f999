import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { createRandom } from "../random.ts";
import {
  type Breach,
  breakInTrace,
  type LimitPhase,
  type TraceInput,
  type TraceOutput,
  traceInputSchema,
} from "./index.ts";

const cases = readFileSync(new URL("./traceCases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n");
const round = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, n) => (typeof n === "number" ? Math.round(n * 1e6) / 1e6 : n)));

/** The slow way: every step in turn, every row from every step. */
function judgeSlowly(input: TraceInput): TraceOutput {
  const { phases, hoursBefore, samples, runningRpm = 300, gapS = 10, graceS = 5 } = input;
  let runS = 0;
  let gaps = 0;
  const steps = samples.slice(0, -1).map(([fromS, rpm], i) => {
    const toS = samples[i + 1]![0];
    const hours = hoursBefore + runS / 3600;
    const phase = phases.find((each) => each.fromH <= hours && hours < each.toH);
    const isGap = toS - fromS > gapS;
    const runs = !isGap && rpm >= runningRpm;
    if (isGap) gaps++;
    if (runs) runS += toS - fromS;
    return { fromS, toS, rpm, phase, isGap, runs };
  });
  type Step = (typeof steps)[number];
  const breaches: Breach[] = [];
  const rows = (rule: Breach["rule"], meets: (step: Step) => boolean, limit: (phase: LimitPhase) => number) => {
    for (let i = 0; i < steps.length; i++) {
      const isIn = (step: Step | undefined) =>
        step !== undefined && !step.isGap && step.phase !== undefined && meets(step);
      if (!isIn(steps[i]) || isIn(steps[i - 1])) continue;
      let j = i;
      while (isIn(steps[j + 1])) j++;
      const row = steps.slice(i, j + 1);
      if (row.at(-1)!.toS - row[0]!.fromS > limit(row[0]!.phase!))
        breaches.push({
          rule,
          startS: row[0]!.fromS,
          endS: row.at(-1)!.toS,
          peakRpm: Math.max(...row.map(({ rpm }) => rpm)),
        });
    }
  };
  rows(
    "over-rpm",
    ({ rpm, phase }) => phase!.maxRpm !== undefined && rpm > phase!.maxRpm,
    () => graceS,
  );
  rows(
    "wot",
    ({ rpm, phase }) => phase!.wot !== undefined && rpm >= phase!.wot.rpm,
    (phase) => phase.wot!.maxContinuousS,
  );
  rows(
    "idle",
    ({ rpm, phase, runs }) => phase!.idle !== undefined && runs && rpm < phase!.idle.belowRpm,
    (phase) => phase.idle!.maxMin * 60,
  );
  const rowFrom = (i: number): Step[] => {
    const rule = steps[i]?.phase?.steady;
    const row: Step[] = [];
    for (const step of rule === undefined ? [] : steps.slice(i)) {
      const all = [...row, step].map(({ rpm }) => rpm);
      if (!step.runs || step.rpm < rule!.aboveRpm || Math.max(...all) - Math.min(...all) > rule!.bandRpm) break;
      row.push(step);
    }
    return row;
  };
  const lastS = (row: Step[]) => (row.length === 0 ? 0 : row.at(-1)!.toS - row[0]!.fromS);
  for (let i = 0; i < steps.length; i++) {
    const row = rowFrom(i);
    if (lastS(row) <= (steps[i]!.phase?.steady?.maxMin ?? Number.POSITIVE_INFINITY) * 60) continue;
    breaches.push({
      rule: "steady",
      startS: row[0]!.fromS,
      endS: row.at(-1)!.toS,
      peakRpm: Math.max(...row.map(({ rpm }) => rpm)),
    });
    i += row.length - 1;
  }
  const bands = new Map<number, number>();
  for (const { fromS, toS, rpm, runs } of steps) {
    const band = Math.floor(rpm / 500) * 500;
    if (runs) bands.set(band, (bands.get(band) ?? 0) + toS - fromS);
  }
  return {
    runS,
    hoursAfter: hoursBefore + runS / 3600,
    gaps,
    bands: [...bands].sort(([a], [b]) => a - b).map(([fromRpm, s]) => ({ fromRpm, s })),
    breaches: breaches.sort((a, b) => a.startS - b.startS || (a.rule < b.rule ? -1 : 1)),
    longestSteadyS: Math.max(0, ...steps.map((_, i) => lastS(rowFrom(i)))),
    wotS: steps.reduce(
      (s, { fromS, toS, rpm, runs, phase }) =>
        runs && phase?.wot !== undefined && rpm >= phase.wot.rpm ? s + toS - fromS : s,
      0,
    ),
  };
}

/** A run with everything in it: steady stretches, idling, full throttle, dropped samples, engine off. */
function createRun(seed: number): TraceInput {
  const random = createRandom(seed);
  const pick = (of: readonly number[]) => of[Math.floor(random() * of.length)]!;
  const maybe = <T>(value: T) => (random() < 0.7 ? value : undefined);
  let fromH = pick([0, 1, 1.25]);
  const phases = Array.from({ length: pick([0, 1, 2, 4]) }, () => {
    const phase = {
      fromH,
      toH: fromH + pick([0.005, 0.02, 1]),
      maxRpm: maybe(pick([2500, 4000])),
      wot: maybe({ rpm: pick([3000, 4500]), maxContinuousS: pick([0, 10, 40]) }),
      steady: maybe({ bandRpm: pick([0, 100, 400]), aboveRpm: pick([0, 800, 1500]), maxMin: pick([0.1, 0.4, 1]) }),
      idle: maybe({ belowRpm: pick([900, 1200]), maxMin: pick([0.1, 0.5]) }),
    };
    fromH = phase.toH + (random() < 0.2 ? 0.003 : 0);
    return JSON.parse(JSON.stringify(phase)) as LimitPhase;
  });
  const samples: [number, number][] = [];
  let atS = 0;
  let rpm = 700;
  while (samples.length < 120) {
    if (random() < 0.08) rpm = pick([0, 650, 1100, 2000, 2600, 3100, 4600]);
    samples.push([atS, rpm === 0 ? 0 : rpm + Math.round(random() * 90)]);
    atS += random() < 0.03 ? pick([9, 10, 15]) : pick([0.5, 1, 2]);
  }
  return {
    phases,
    hoursBefore: pick([0, 1.25]),
    samples,
    ...(random() < 0.3 ? { gapS: 12, graceS: 0, runningRpm: 650 } : {}),
  };
}

describe("breakInTrace", () => {
  it.each(cases.map((line, i) => [i, line] as const))("answers worked example %i", (_, line) => {
    const { input, output } = JSON.parse(line) as { input: TraceInput; output: TraceOutput };
    expect(traceInputSchema.safeParse(input).success).toBe(true);
    expect(round(breakInTrace(input))).toEqual(round(output));
  });

  it("agrees with the slow way on random runs", () => {
    fc.assert(
      fc.property(fc.nat(1e6), (seed) => {
        const run = createRun(seed);
        expect(round(breakInTrace(run)), `seed ${seed}`).toEqual(round(judgeSlowly(run)));
      }),
      { seed: 5, numRuns: 600 },
    );
  });

  it("finds an hour at one speed, and nothing in an hour that varies enough", () => {
    const phases = [{ fromH: 0, toH: 10, steady: { bandRpm: 200, aboveRpm: 1500, maxMin: 10 } }];
    const samples = Array.from({ length: 3601 }, (_, s): [number, number] => [s, 3000]);
    expect(breakInTrace({ phases, hoursBefore: 0, samples }).breaches).toEqual([
      { rule: "steady", startS: 0, endS: 3600, peakRpm: 3000 },
    ]);
    const varied = samples.map(([s]): [number, number] => [s, s % 1200 < 600 ? 3000 : 3500]);
    expect(breakInTrace({ phases, hoursBefore: 0, samples: varied }).breaches).toEqual([]);
  });

  it.each([
    [
      "out of order",
      {
        samples: [
          [0, 700],
          [2, 700],
          [1, 700],
        ],
      },
      "samples.2.0",
    ],
    ["negative rpm", { samples: [[0, -1]] }, "samples.0.1"],
    ["absurd rpm", { samples: [[0, 65535]] }, "samples.0.1"],
    [
      "phases that contradict each other",
      {
        phases: [
          { fromH: 0, toH: 5 },
          { fromH: 4, toH: 6 },
        ],
      },
      "phases.1.fromH",
    ],
  ])("refuses %s and says where", (_, change, path) => {
    const parsed = traceInputSchema.safeParse({ phases: [], hoursBefore: 0, samples: [], ...change });
    expect(parsed.error?.issues.map((issue) => issue.path.join("."))).toContain(path);
  });

  it("has nothing to say of no samples, or one", () => {
    expect(breakInTrace({ phases: [], hoursBefore: 3, samples: [[0, 800]] })).toMatchObject({
      runS: 0,
      hoursAfter: 3,
      bands: [],
    });
  });
});
