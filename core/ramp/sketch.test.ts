import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { createRandom } from "../random.ts";
import { drawRamp, fitLaunches, gradeOf, type Launch, markOn, type RampInput, ramp, withFitted } from "./index.ts";

const ask: RampInput = {
  gradePct: 13,
  trailer: { hitchToTransomM: 8.4, bunkHeightM: 0.6, fenderFromTransomM: 2.2, fenderHeightM: 0.88 },
  boat: { sternDraftM: 0.5 },
  vehicle: { hitchToRearAxleM: 1.1, wadeLimitM: 0.3 },
};
const anyAsk = fc.record({
  gradePct: fc.double({ min: 1, max: 45, noNaN: true }),
  trailer: fc.record({
    hitchToTransomM: fc.double({ min: 3, max: 12, noNaN: true }),
    bunkHeightM: fc.double({ min: 0.2, max: 1, noNaN: true }),
    fenderFromTransomM: fc.double({ min: 0.5, max: 4, noNaN: true }),
    fenderHeightM: fc.double({ min: 0.4, max: 1.2, noNaN: true }),
  }),
  boat: fc.record({ sternDraftM: fc.double({ min: 0.1, max: 1, noNaN: true }) }),
  vehicle: fc.record({
    hitchToRearAxleM: fc.double({ min: 0.6, max: 2, noNaN: true }),
    wadeLimitM: fc.double({ min: 0.1, max: 0.8, noNaN: true }),
  }),
});

describe("the ramp sketch", () => {
  it("agrees with the contract, at any tide", () => {
    fc.assert(
      fc.property(anyAsk, fc.double({ min: -3, max: 3, noNaN: true }), (question, waterM) => {
        const drawn = drawRamp({ ask: question, waterM, loaM: 7, axles: 2 });
        const answer = ramp(question);
        expect(drawn.draftM).toBeCloseTo(question.boat.sternDraftM, 9);
        expect(drawn.fenderUnderM).toBeCloseTo(answer.fenderUnderM, 9);
        expect(drawn.rearWheelDepthM).toBeCloseTo(answer.rearWheelDepthM, 9);
        // The edge is where the water meets the ground, and the wheels stand on that.
        expect(drawn.edge.yM).toBeCloseTo(-drawn.edge.xM * (question.gradePct / 100), 9);
        for (const point of [drawn.rearWheel, drawn.frontWheel, drawn.transomFoot, ...drawn.trailerWheels])
          expect(point.yM).toBeCloseTo(-point.xM * (question.gradePct / 100), 9);
      }),
    );
  });

  it("moves with the tide as one, and changes nothing in itself", () => {
    const [low, high] = [-0.5, 0.5].map((waterM) => drawRamp({ ask, waterM, loaM: 7, axles: 1 }));
    expect(high!.edge.xM).toBeLessThan(low!.edge.xM);
    expect(high!.transom.xM - high!.edge.xM).toBeCloseTo(low!.transom.xM - low!.edge.xM, 9);
  });

  it("knows a grade by rise and run", () => {
    expect(gradeOf({ riseM: 0.26, runM: 2 })).toBeCloseTo(13, 12);
  });
});

describe("a ramp learned from launches", () => {
  const truth = { ...ask, trailer: { ...ask.trailer, bunkHeightM: 0.52 }, boat: { sternDraftM: 0.44 } };
  const seen = (gradePct: number, noiseM = 0): Launch => ({
    id: String(gradePct),
    at: "2026-05-14T09:00:00.000Z",
    by: "Nessa Quill",
    ramp: "North",
    gradePct,
    fenderUnderM: markOn(truth, gradePct) + noiseM,
  });

  it("without any goes by the sheet, and is less sure", () => {
    const before = fitLaunches(ask, []);
    expect(before).toMatchObject({ bunkHeightM: 0.6, sternDraftM: 0.5 });
    expect(fitLaunches(ask, [seen(13)]).markSdM).toBeLessThan(before.markSdM);
  });

  it("comes close to the true mark after one launch, also on another grade", () => {
    const after = withFitted(ask, fitLaunches(ask, [seen(13)]));
    const off = (with_: RampInput, gradePct: number) => Math.abs(markOn(with_, gradePct) - markOn(truth, gradePct));
    expect(off(ask, 13)).toBeGreaterThan(0.13);
    expect(off(after, 13)).toBeLessThan(0.025);
    expect(off(after, 9)).toBeLessThan(0.03);
  });

  it("finds the true mark from noisy launches, and is as sure as it is right", () => {
    const random = createRandom(11);
    const noise = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()) * 0.04;
    const misses = Array.from({ length: 60 }, () => {
      const fitted = fitLaunches(
        ask,
        [8, 10, 13, 13, 15, 12, 9, 11].map((grade) => seen(grade, noise())),
      );
      return (markOn(withFitted(ask, fitted), 13) - markOn(truth, 13)) / fitted.markSdM;
    });
    expect(
      Math.abs(
        markOn(
          withFitted(
            ask,
            fitLaunches(
              ask,
              [8, 13, 10, 15].map((g) => seen(g)),
            ),
          ),
          12,
        ) - markOn(truth, 12),
      ),
    ).toBeLessThan(0.02);
    expect(misses.filter((miss) => Math.abs(miss) < 2).length).toBeGreaterThan(50);
  });

  it("never makes a bunk or a draft that cannot be", () => {
    const wild = { ...seen(13), fenderUnderM: -2 };
    const fitted = fitLaunches(
      ask,
      Array.from({ length: 20 }, () => wild),
    );
    expect(fitted.bunkHeightM).toBeGreaterThanOrEqual(0);
    expect(fitted.sternDraftM).toBeGreaterThanOrEqual(0);
  });
});
