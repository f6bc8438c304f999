import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { rigTemplates, towRules } from "../../content/index.ts";
import { askTow, looseKgOf, tongueByLever, tongueByMoving, type Vehicle } from "./index.ts";

const rig = rigTemplates["wending-23"];
const [neutral] = towRules;
const full = { fuelShare: 1, waterShare: 1, ballastShare: 1, gearKg: 180 };
const pickup: Vehicle = {
  name: "Pickup",
  kg: 2600,
  loadKg: 200,
  payloadKg: 800,
  towLimitKg: 3500,
  brakelessLimitKg: 750,
  tongueLimitKg: 350,
  combinedLimitKg: 6500,
  hitchLimitKg: 3600,
  ballMm: 58.7375,
  ballLimitKg: 3600,
  pins: 7,
};

describe("the tow check of a boat and a car", () => {
  it("weighs what its sheets say: hull, engines, tanks, gear and trailer", () => {
    const { answer, missing, unread } = askTow(rig, pickup, full, neutral!);
    const { dryKg, enginesKg } = rig.weights!;
    const byHand = dryKg! + enginesKg! + 378.5411784 * 0.745 + 45.424941408 + 180 + rig.trailer!.kg!;
    expect(answer!.towedKg).toBeCloseTo(byHand, 6);
    expect([missing, unread]).toEqual([[], []]);
  });

  it("puts what is broken first, then the weakest; a wrong ball is a stop", () => {
    const { checks, answer } = askTow(rig, { ...pickup, ballMm: 50 }, full, neutral!);
    expect(checks[0]!.id).toBe("ball-size");
    const heavy = askTow(rig, { ...pickup, ballMm: 50, towLimitKg: 500 }, full, neutral!).checks;
    expect(heavy.slice(0, 2).map(({ id }) => id)).toEqual(["ball-size", "vehicle-tow"]);
    expect(answer!.verdict).toBe("over");
    const others = checks.filter(({ verdict }) => verdict !== "over").map(({ ratio }) => ratio);
    expect(others).toEqual([...others].sort((a, b) => b - a));
  });

  it("reads a ball as it is stamped: a tenth of a millimetre is rounding, and eight are another ball", () => {
    const fits = (ballMm: number) =>
      askTow(rig, { name: "Car", ballMm }, full, neutral!).checks.find(({ id }) => id === "ball-size")!.verdict;
    expect([58.7, 58.74, 58.8].map(fits)).toEqual(["ok", "ok", "ok"]);
    expect([58, 50.8, 60].map(fits)).toEqual(["over", "over", "over"]);
  });

  it("says that a ball does not fit also where nobody has weighed anything", () => {
    const { weights: _, ...bare } = rig;
    const sheet = askTow(bare as typeof rig, { ...pickup, ballMm: 50 }, full, neutral!);
    expect(sheet).toMatchObject({
      answer: null,
      missing: ["boat"],
      checks: [{ id: "ball-size", verdict: "over" }, { id: "plug" }],
    });
  });

  it("says nothing of limits that nobody has read, and makes none up", () => {
    const { checks, unread, answer } = askTow(rig, { name: "Car", towLimitKg: 1500 }, full, neutral!);
    expect(unread).toEqual(
      expect.arrayContaining(["payload", "tongue-vehicle", "combined", "ball-size", "hitch", "plug"]),
    );
    expect(checks.map(({ id }) => id)).not.toContain("payload");
    expect(checks[0]).toMatchObject({ id: "vehicle-tow", verdict: "over" });
    expect(answer!.verdict).toBe("over");
  });

  it("without the boat's or the trailer's weight answers nothing; without the tongue's all but that", () => {
    const { weights: _, ...bare } = rig;
    expect(askTow(bare as typeof rig, pickup, full, neutral!)).toMatchObject({ answer: null, missing: ["boat"] });
    const { tongueKg: __, ...trailer } = rig.trailer!;
    const { checks, missing, unread } = askTow({ ...rig, trailer }, pickup, full, neutral!);
    expect(missing).toEqual(["tongue"]);
    expect(unread).toContain("tongue-share");
    expect(checks.some(({ id }) => id === "tongue-share" || id === "payload")).toBe(false);
    expect(checks.some(({ id }) => id === "vehicle-tow")).toBe(true);
  });

  it("what can be taken out is what the sliders put in", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 500, noNaN: true }),
        (share, gearKg) => {
          const empty = askTow(rig, pickup, { fuelShare: 0, waterShare: 0, ballastShare: 0, gearKg: 0 }, neutral!);
          const loaded = askTow(
            rig,
            pickup,
            { fuelShare: share, waterShare: share, ballastShare: share, gearKg },
            neutral!,
          );
          expect(loaded.answer!.towedKg - empty.answer!.towedKg).toBeCloseTo(looseKgOf(loaded.ask), 6);
        },
      ),
    );
  });

  it("knows the lever and the moments", () => {
    expect(tongueByLever(60, 0.3, 0.9)).toBeCloseTo(240, 12);
    expect(tongueByMoving(40, 2, 5)).toBeCloseTo(16, 12);
    expect(tongueByMoving(40, -2, 5)).toBeCloseTo(-16, 12);
  });

  it("ships a neutral pack and two that are marked as examples", () => {
    expect(towRules.map(({ isExample }) => isExample)).toEqual([false, true, true]);
  });
});
