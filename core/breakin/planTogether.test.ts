import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { breakInPacks } from "../../content/index.ts";
import { createRandom } from "../random.ts";
import { breakInTrace, createLimits, planTogether, sampleLegs, type Together } from "./index.ts";

const inHours = breakInPacks.filter(({ per }) => per !== "tank");
const engine = (hoursBefore: number, change: Partial<Together> = {}, pack = inHours[0]!): Together => ({
  phases: createLimits(pack, 6000),
  hoursBefore,
  coveredS: {},
  topRpm: 6000,
  ...change,
});
const planOf = (engines: readonly Together[], minutes = 90) => {
  const answer = planTogether(engines, minutes, 650);
  if (!answer.ok) throw new Error(`no plan for ${JSON.stringify(engines)}`);
  return answer.value.legs;
};

describe("planTogether", () => {
  it("keeps to the engine with the stricter limits, whichever it is", () => {
    for (const pair of [
      [engine(0.1), engine(5)],
      [engine(5), engine(0.1)],
      // Long run in: no limits of its own any more.
      [engine(300), engine(0.1)],
    ])
      for (const { rpm } of planOf(pair, 45)) expect(rpm).toBeLessThanOrEqual(3000);
  });

  it("goes on to higher speeds as soon as both may, not before", () => {
    const legs = planOf([engine(0.5), engine(0.8)]);
    let atMin = 0;
    for (const { rpm, minutes } of legs) {
      if (atMin + minutes <= 30) expect(rpm).toBeLessThanOrEqual(3000);
      atMin += minutes;
    }
    expect(Math.max(...legs.map(({ rpm }) => rpm))).toBeGreaterThan(3000);
  });

  it("goes to what one of them has not turned yet, though the other has", () => {
    const all = { "1500": 3000, "2000": 3000, "2500": 3000, "3000": 3000, "3500": 3000, "4000": 3000, "4500": 3000 };
    const { "2500": _, ...but2500 } = all;
    const legs = planOf([engine(4, { coveredS: all }), engine(4, { coveredS: but2500 })], 30);
    expect(legs.some(({ rpm }) => rpm >= 2500 && rpm < 3000)).toBe(true);
  });

  it("of engines that are alike is the plan of one of them; without limits it is a plan still", () => {
    expect(planOf([engine(1), engine(1)])).toEqual(planOf([engine(1)]));
    expect(planOf([engine(50), engine(60)], 30).at(-1)!.rpm).toBe(650);
  });

  it("passes the judge of every engine, for any two packs, hours and lengths", () => {
    fc.assert(
      fc.property(fc.nat(1e6), (seed) => {
        const random = createRandom(seed);
        const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
        const pair = [0, 1].map(() => {
          const topRpm = pick([5000, 5750, 6300]);
          const pack = pick(inHours);
          return engine(random() * pack.totalH, { phases: createLimits(pack, topRpm), topRpm });
        });
        const minutes = pick([20, 45, 90, 120]);
        const legs = planOf(pair, minutes);
        expect(legs.reduce((sum, leg) => sum + leg.minutes, 0)).toBeCloseTo(minutes, 9);
        for (const { phases, hoursBefore, topRpm } of pair) {
          const { breaches } = breakInTrace({ phases: [...phases], hoursBefore, samples: sampleLegs(legs) });
          expect(breaches, `seed ${seed}`).toEqual([]);
          for (const { rpm } of legs) expect(rpm).toBeLessThanOrEqual(topRpm);
        }
      }),
      { seed: 21, numRuns: 40 },
    );
  });
});
