import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { createRandom } from "../random.ts";
import {
  type BreakInPlanInput,
  breakInPlan,
  breakInPlanInputSchema,
  breakInTrace,
  type LimitPhase,
  sampleLegs,
} from "./index.ts";

const stepped: LimitPhase[] = [
  {
    fromH: 0,
    toH: 1,
    maxRpm: 3000,
    steady: { bandRpm: 200, aboveRpm: 1500, maxMin: 5 },
    idle: { belowRpm: 1000, maxMin: 10 },
  },
  { fromH: 1, toH: 2, maxRpm: 4500, steady: { bandRpm: 200, aboveRpm: 1500, maxMin: 10 } },
  {
    fromH: 2,
    toH: 10,
    maxRpm: 6000,
    wot: { rpm: 5700, maxContinuousS: 60 },
    steady: { bandRpm: 200, aboveRpm: 1500, maxMin: 10 },
  },
];
const plan = (change: Partial<BreakInPlanInput>) => {
  const input = { phases: stepped, hoursBefore: 0, minutes: 90, idleRpm: 650, topRpm: 6000, ...change };
  const answer = breakInPlan(input);
  if (!answer.ok) throw new Error(`no plan for ${JSON.stringify(input)}`);
  return answer.value.legs;
};

/** What the contract asks of every plan. */
function expectGood(input: BreakInPlanInput, legs: { rpm: number; minutes: number }[], seed: number) {
  const why = `seed ${seed}: ${JSON.stringify(legs)}`;
  expect(
    legs.reduce((sum, leg) => sum + leg.minutes, 0),
    why,
  ).toBeCloseTo(input.minutes, 9);
  const warm = legs.slice(
    0,
    Math.max(
      0,
      legs.findIndex(({ rpm }) => rpm > 1500),
    ),
  );
  const warmMin = (warm.length === 0 ? legs : warm).reduce((sum, leg) => sum + leg.minutes, 0);
  expect(warmMin, why).toBeGreaterThanOrEqual((input.minutes < 15 ? input.minutes / 3 : 5) - 1e-9);
  expect(legs.at(-1)!.rpm, why).toBe(input.idleRpm);
  expect(legs.at(-1)!.minutes, why).toBeGreaterThanOrEqual(2 - 1e-9);
  for (const { rpm, minutes } of legs) {
    expect(rpm, why).toBeLessThanOrEqual(input.topRpm);
    expect(rpm, why).toBeGreaterThanOrEqual(input.idleRpm);
    expect(minutes, why).toBeGreaterThan(0);
  }
  const { phases, hoursBefore } = input;
  expect(breakInTrace({ phases, hoursBefore, samples: sampleLegs(legs) }).breaches, why).toEqual([]);
}

function createQuestion(seed: number): BreakInPlanInput {
  const random = createRandom(seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  const topRpm = pick([3600, 5000, 5750, 6300]);
  let fromH = 0;
  const phases = Array.from({ length: pick([1, 2, 3, 4]) }, () => {
    const phase: LimitPhase = { fromH, toH: fromH + pick([0.3, 0.5, 1, 2, 7.7]) };
    if (random() < 0.7) phase.maxRpm = pick([0.5, 0.6, 0.75, 1]) * topRpm;
    if (random() < 0.7) phase.wot = { rpm: Math.round(topRpm * 0.95), maxContinuousS: pick([0, 15, 60, 300]) };
    if (random() < 0.8)
      phase.steady = {
        bandRpm: pick([150, 200, 400]),
        aboveRpm: pick([1000, 1500, 2000]),
        maxMin: pick([2, 5, 10, 15]),
      };
    if (random() < 0.6) phase.idle = { belowRpm: pick([900, 1000, 1200]), maxMin: pick([2, 5, 10]) };
    fromH = phase.toH;
    return phase;
  });
  return {
    phases,
    hoursBefore: Math.round(random() * fromH * 100) / 100,
    minutes: pick([5, 7.3, 12, 15, 30, 47.5, 90, 133, 240]),
    idleRpm: pick([550, 650, 800]),
    topRpm,
    coveredS: random() < 0.5 ? {} : { "1500": 3600, "2000": 1200, "3000": 60 },
  };
}

describe("breakInPlan", () => {
  it("keeps every rule of random packs at random hours, by the judge itself, and is found for each of them", () => {
    fc.assert(
      fc.property(fc.nat(1e6), (seed) => {
        const input = createQuestion(seed);
        expect(breakInPlanInputSchema.safeParse(input).success).toBe(true);
        const answer = breakInPlan(input);
        expect(answer.ok, `seed ${seed}: ${JSON.stringify(input)}`).toBe(true);
        if (answer.ok) expectGood(input, answer.value.legs, seed);
      }),
      { seed: 8, numRuns: 300 },
    );
  });

  it("goes to the bands run least first", () => {
    const coveredS = {
      "1500": 900,
      "2000": 900,
      "2500": 0,
      "3000": 900,
      "3500": 900,
      "4000": 900,
      "4500": 900,
      "5000": 900,
      "5500": 900,
      "6000": 900,
    };
    const legs = plan({ hoursBefore: 3, minutes: 12, coveredS });
    expect(legs.find(({ rpm }) => rpm > 1500)).toMatchObject({ rpm: 2750 });
    const before = plan({ hoursBefore: 3, coveredS: {} }).filter(({ rpm }) => rpm > 1500);
    expect(new Set(before.map(({ rpm }) => Math.floor(rpm / 500))).size).toBeGreaterThanOrEqual(8);
  });

  it("stays under half speed in the first hour, and goes up when the hours allow it within the run", () => {
    const legs = plan({ hoursBefore: 0.5 });
    let min = 0;
    for (const { rpm, minutes } of legs) {
      if (min < 30) expect(rpm).toBeLessThanOrEqual(3000);
      min += minutes;
    }
    expect(Math.max(...legs.map(({ rpm }) => rpm))).toBeGreaterThan(3000);
  });

  it("gives full throttle by the minute, not every other leg", () => {
    const legs = plan({ hoursBefore: 3 });
    const full = legs.filter(({ rpm }) => rpm >= 5700);
    expect(full.length).toBeGreaterThan(0);
    expect(full.length).toBeLessThan(legs.length / 3);
    for (const { minutes } of full) expect(minutes).toBeLessThan(1);
  });

  it.each([
    ["the engine idles above what a warm-up may turn", { idleRpm: 1600 }],
    ["nothing may be turned at all", { phases: [{ fromH: 0, toH: 10, maxRpm: 400 }] }],
    [
      "it may not idle for the two minutes at the end",
      { phases: [{ fromH: 0, toH: 10, idle: { belowRpm: 900, maxMin: 1 } }] },
    ],
  ])("has none where %s", (_, change) => {
    const answer = breakInPlan({ phases: stepped, hoursBefore: 0, minutes: 60, idleRpm: 650, topRpm: 6000, ...change });
    expect(answer).toMatchObject({ ok: false, error: { code: "no-plan" } });
  });
});
