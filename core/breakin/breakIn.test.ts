import { describe, expect, it } from "vitest";
import { breakInPacks, servicePacks } from "../../content/index.ts";
import { breakInPackSchema, findBreakInStanding } from "./index.ts";

const pack = breakInPacks[0]!;

describe("findBreakInStanding", () => {
  it("holds the limits of the phase the hours are in, off the engine's own rated band", () => {
    expect(findBreakInStanding(pack, 0.4, 6000)).toMatchObject({ done: false, phase: { maxRpm: 3000, wotMaxS: 0 } });
    expect(findBreakInStanding(pack, 1, 6000).phase).toMatchObject({ fromH: 1, maxRpm: 4500 });
    expect(findBreakInStanding(pack, 1.99, 5830).phase?.maxRpm).toBe(4350);
    expect(findBreakInStanding(pack, 9.99, 6000).phase).toMatchObject({ toH: 10, maxRpm: 6000, wotMaxS: 300 });
  });

  it("is over at its last hour, with no limits of its own left", () => {
    expect(findBreakInStanding(pack, 10, 6000)).toMatchObject({ done: true, phase: null });
  });
});

describe("breakInPackSchema", () => {
  it("says what is wrong with a pack without phases, and does not stumble over it", () => {
    expect(breakInPackSchema.safeParse({ ...pack, phases: [] }).success).toBe(false);
  });

  it("refuses phases with a gap between them", () => {
    const phases = pack.phases.map((phase, i) => (i === 1 ? { ...phase, fromH: 1.5 } : phase));
    expect(breakInPackSchema.safeParse({ ...pack, phases }).error?.issues[0]?.message).toBe(
      "must be 1, where the last ends",
    );
  });

  it("refuses a total that is not where the last phase ends", () => {
    expect(breakInPackSchema.safeParse({ ...pack, totalH: 12 }).success).toBe(false);
  });
});

describe("packs that ship", () => {
  it("serve first at 20 h, then 100 h or a year, 200 h or two, 300 h or three", () => {
    const items = servicePacks[0]!.items.map(({ id, firstH, everyH, everyMonths }) => ({
      id,
      firstH,
      everyH,
      everyMonths,
    }));
    expect(items).toMatchObject([
      { id: "first-service", firstH: 20 },
      { id: "annual", firstH: 100, everyH: 100, everyMonths: 12 },
      { id: "plugs", everyH: 200, everyMonths: 24 },
      { id: "pump", everyH: 300, everyMonths: 36 },
      { id: "lay-up", everyMonths: 12 },
      { id: "spring-check", everyMonths: 12 },
    ]);
  });
});
