import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { type TripInput, type TripOutput, trip, tripInputSchema } from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: TripInput; output: TripOutput });

describe("trip", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    const answer = trip(tripInputSchema.parse(input));
    const { oneWayH, oneWayL, needL, rodeM, ...others } = output;
    expect(answer).toMatchObject(others);
    for (const [got, wanted] of [
      [answer.oneWayH, oneWayH],
      [answer.oneWayL, oneWayL],
      [answer.needL, needL],
      [answer.rodeM ?? 0, rodeM ?? 0],
    ] as const)
      expect(got).toBeCloseTo(wanted, 9);
  });

  const plain: TripInput = {
    legsNm: [10],
    cruiseKn: 20,
    burnLph: 20,
    fuelL: 100,
    departAt: "09:00",
    stayH: 2,
    windLimitKn: 15,
    wind: [
      { at: "08:00", kn: 5 },
      { at: "12:00", kn: 10 },
      { at: "16:00", kn: 20 },
    ],
  };

  it("turns back in time for the wind, half way between what is forecast", () => {
    expect(trip(plain)).toMatchObject({
      backAt: "12:00",
      windAt: "14:00",
      latestTurnAt: "13:00",
      windOk: true,
      go: true,
    });
    expect(trip({ ...plain, stayH: 4 })).toMatchObject({ backAt: "14:00", windOk: false, go: false });
    expect(trip({ ...plain, stayH: 3.5 })).toMatchObject({ backAt: "13:30", windOk: true });
  });

  it("blows already at departure, or from the first forecast on, or never within it", () => {
    const wind = [
      { at: "08:00", kn: 18 },
      { at: "10:00", kn: 16 },
    ];
    expect(trip({ ...plain, wind }).windAt).toBe("09:00");
    expect(trip({ ...plain, wind, departAt: "07:00" }).windAt).toBe("08:00");
    expect(trip({ ...plain, wind, departAt: "10:00" }).windAt).toBe("10:00");
    expect(trip({ ...plain, wind, departAt: "10:01" }).windAt).toBeNull();
    expect(trip({ ...plain, wind: [] }).windOk).toBe(true);
  });

  it("goes on past midnight, and keeps a third of the fuel in hand", () => {
    const late = trip({ ...plain, departAt: "22:30", wind: [{ at: "24:30", kn: 30 }] });
    expect(late).toMatchObject({ backAt: "25:30", windAt: "24:30", latestTurnAt: "23:30" });
    expect(trip({ ...plain, fuelL: 30 / 0.9 }).fuelOk).toBe(true);
    expect(trip({ ...plain, fuelL: 33 }).fuelOk).toBe(false);
  });

  it("refuses times that are none, or that do not rise", () => {
    const paths = (change: object) =>
      tripInputSchema.safeParse({ ...plain, ...change }).error!.issues.map(({ path }) => path.join("."));
    expect(paths({ departAt: "9 o'clock" })).toEqual(["departAt"]);
    expect(
      paths({
        wind: [
          { at: "08:00", kn: 1 },
          { at: "08:00", kn: 2 },
        ],
      }),
    ).toEqual(["wind.1.at"]);
  });
});
