import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { breakInPacks } from "../../content/index.ts";
import { createTell, type Language, sayTold, type Told } from "../language/index.ts";
import {
  addBands,
  adviseNext,
  breakInPlan,
  breakInTrace,
  createHoursAt,
  createLimits,
  describeCoverage,
  formatBreach,
  formatSeconds,
  measureProgress,
  minuteAt,
  sampleLegs,
  toHours,
} from "./index.ts";

const stepped = createLimits(breakInPacks.find(({ id }) => id === "stepped-10")!, 6000);

describe("createLimits", () => {
  it("takes limits off the top of the engine's own band, rounded down to 50 rpm", () => {
    expect(stepped[0]).toMatchObject({ fromH: 0, toH: 1, maxRpm: 3000, idle: { belowRpm: 1000, maxMin: 10 } });
    expect(stepped[0]!.wot).toBeUndefined();
    expect(stepped[2]).toMatchObject({ wot: { rpm: 5700, maxContinuousS: 300 } });
    expect(stepped[2]!.maxRpm).toBeUndefined();
    expect(createLimits(breakInPacks[0]!, 5830)[1]!.maxRpm).toBe(4350);
  });

  it("of every pack that ships leaves a run possible at any of its hours, that its own judge finds good", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...breakInPacks),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 8, max: 180 }),
        (pack, share, minutes) => {
          const inHours = toHours(pack, { tankL: 90, burnLph: 20, used: null })!;
          const phases = createLimits(inHours, 5800);
          const hoursBefore = share * inHours.totalH;
          const plan = breakInPlan({ phases, hoursBefore, minutes, idleRpm: 650, topRpm: 5800 });
          expect(plan.ok, `${pack.id} at ${hoursBefore} h for ${minutes} min`).toBe(true);
          if (plan.ok)
            expect(breakInTrace({ phases, hoursBefore, samples: sampleLegs(plan.value.legs) }).breaches).toEqual([]);
        },
      ),
      { seed: 6, numRuns: 120 },
    );
  });
});

describe("coverage", () => {
  it("counts hours and speeds, and neither alone makes a break-in", () => {
    const none = describeCoverage(stepped, {}, 10, 6000);
    expect(measureProgress(none, 10, 10)).toEqual({ hoursShare: 1, bandShare: 0, share: 0.5 });
    const all = describeCoverage(stepped, Object.fromEntries(none.map(({ fromRpm }) => [fromRpm, 1e6])), 0, 6000);
    expect(measureProgress(all, 0, 10).share).toBe(0.5);
    expect(measureProgress(all, 12, 10).share).toBe(1);
  });
  it("leaves idle out, opens bands as the hours allow, and asks less of full throttle", () => {
    const early = describeCoverage(stepped, { "2500": 300 }, 0.5, 6000);
    expect(early[0]!.fromRpm).toBe(1000);
    expect(early.filter(({ isOpen }) => isOpen).map(({ fromRpm }) => fromRpm)).toEqual([1000, 1500, 2000, 2500]);
    expect(early.find(({ fromRpm }) => fromRpm === 2500)!.s).toBe(300);
    expect(early.at(-1)!.goalS).toBeLessThan(early[0]!.goalS);
  });
  it("adds runs up by band", () => {
    expect(
      addBands([
        [{ fromRpm: 1000, s: 5 }],
        [
          { fromRpm: 1000, s: 7 },
          { fromRpm: 2000, s: 1 },
        ],
      ]),
    ).toEqual({ "1000": 12, "2000": 1 });
  });
});

describe("words of a run", () => {
  const say = (told: Told, language: Language = "en") => sayTold(told, createTell(null), language);
  const judge = (legs: { rpm: number; minutes: number }[], hoursBefore: number) => {
    const samples = sampleLegs(legs);
    const { breaches } = breakInTrace({ phases: stepped, hoursBefore, samples });
    return breaches.map((breach) =>
      say(formatBreach(breach, samples, stepped, createHoursAt(samples, hoursBefore), 12 * 60 + 30)),
    );
  };
  it("say when, what and what the limit is", () => {
    expect(
      judge(
        [
          { rpm: 1200, minutes: 10 },
          { rpm: 2800, minutes: 45 },
          { rpm: 650, minutes: 2 },
        ],
        0,
      ),
    ).toEqual(["12:40–13:25 at 2,800 rpm: longer than 10 min at one speed"]);
    expect(
      judge(
        [
          { rpm: 1200, minutes: 5 },
          { rpm: 4900, minutes: 3 },
        ],
        0,
      ),
    ).toEqual(["12:35–12:38 up to 4,900 rpm: above the 3,000 rpm of these hours"]);
    expect(judge([{ rpm: 5900, minutes: 7 }], 5)).toEqual([
      "12:30–12:37 full throttle for 7 min: longer than 5 min at a time",
    ]);
    expect(judge([{ rpm: 700, minutes: 20 }], 0)).toEqual([
      "12:30–12:50 below 1,000 rpm for 20 min: longer than 10 min of idling",
    ]);
  });
  it("give the hours their own phase when the run passes from one to the next", () => {
    expect(
      judge(
        [
          { rpm: 2900, minutes: 5 },
          { rpm: 2500, minutes: 5 },
          { rpm: 4000, minutes: 5 },
        ],
        0.85,
      ),
    ).toEqual([]);
    expect(
      judge(
        [
          { rpm: 4000, minutes: 8 },
          { rpm: 2500, minutes: 5 },
        ],
        0.95,
      )[0],
    ).toContain("above the 3,000 rpm");
  });
  it("advise what was missed, else to go on", () => {
    const trace = breakInTrace({ phases: stepped, hoursBefore: 0, samples: sampleLegs([{ rpm: 2800, minutes: 40 }]) });
    const advice = adviseNext(trace, [1500, 2000]);
    expect(advice.map((each) => say(each)).join(" ")).toMatch(/Change speed.*from 1,500, 2,000 rpm/);
    expect(advice.map((each) => say(each, "es")).join(" ")).toMatch(/from 1500, 2000 rpm/);
    expect(adviseNext({ ...trace, breaches: [] }, []).map((each) => say(each))).toEqual(["Go on like this."]);
  });
  it("say seconds and clocks", () => {
    expect([formatSeconds(45), formatSeconds(60), formatSeconds(95), formatSeconds(3600)]).toEqual([
      "45 s",
      "1 min",
      "1 min 35 s",
      "60 min",
    ]);
    expect([minuteAt(760, 90), minuteAt(1439, 120)]).toEqual([761, 1]);
  });
});
