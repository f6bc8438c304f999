import { z } from "zod";
import { fromClock, toClock } from "../dates/index.ts";

const clockSchema = z.string().regex(/^\d{2,3}:[0-5]\d$/, "must be HH:MM; past midnight it goes on as 24:30");
const amount = z.number().min(0).max(1e6);

/** Input of the contract `trip`: sea miles, knots, litres, hours, metres; times as HH:MM of the day of departure. */
export const tripInputSchema = z
  .strictObject({
    legsNm: z.array(amount).max(100),
    cruiseKn: z.number().positive().max(200),
    burnLph: amount,
    fuelL: amount,
    usableShare: z.number().min(0).max(1).optional(),
    departAt: clockSchema,
    stayH: z.number().min(0).max(1000),
    wind: z.array(z.strictObject({ at: clockSchema, kn: z.number().min(0).max(300) })).max(1000),
    windLimitKn: z.number().min(0).max(300),
    marginMin: z.number().min(0).max(10_000).optional(),
    anchor: z
      .strictObject({ depthM: amount, tideRiseM: amount, bowHeightM: amount, scope: z.number().min(0).max(100) })
      .optional(),
  })
  .superRefine(({ wind }, check) => {
    wind.forEach(({ at }, i) => {
      if (i > 0 && fromClock(at) <= fromClock(wind[i - 1]!.at))
        check.addIssue({ code: "custom", path: ["wind", i, "at"], message: "must be later than the one before" });
    });
  });
const timeSchema = z.string().nullable();
export const tripOutputSchema = z.strictObject({
  oneWayH: z.number(),
  oneWayL: z.number(),
  needL: z.number(),
  fuelOk: z.boolean(),
  backAt: z.string(),
  windAt: timeSchema,
  latestTurnAt: timeSchema,
  windOk: z.boolean(),
  rodeM: z.number().nullable(),
  go: z.boolean(),
});
export type TripInput = z.infer<typeof tripInputSchema>;
export type TripOutput = z.infer<typeof tripOutputSchema>;

const usual = { usableShare: 0.9, marginMin: 30 } as const;
const minutesPerHour = 60;

/**
 * Can we go, and get back (contract `trip`)? A third of the fuel out, a third back, a third in hand; home by a margin before the
 * wind reaches its limit; and how much rode to let out. `go` is fuel and wind together.
 */
export function trip(input: TripInput): TripOutput {
  const { legsNm, cruiseKn, burnLph, fuelL, departAt, stayH, anchor } = input;
  const oneWayH = legsNm.reduce((sum, leg) => sum + leg, 0) / cruiseKn;
  const oneWayL = oneWayH * burnLph;
  const needL = 3 * oneWayL;
  const fuelOk = fuelL * (input.usableShare ?? usual.usableShare) >= needL;
  const marginMin = input.marginMin ?? usual.marginMin;
  const backMin = fromClock(departAt) + (2 * oneWayH + stayH) * minutesPerHour;
  const windMin = findWind(input);
  const windOk = windMin === null || backMin <= windMin - marginMin;
  return {
    oneWayH,
    oneWayL,
    needL,
    fuelOk,
    backAt: formatTime(backMin),
    windAt: windMin === null ? null : formatTime(windMin),
    latestTurnAt: windMin === null ? null : formatTime(windMin - marginMin - oneWayH * minutesPerHour),
    windOk,
    rodeM: anchor === undefined ? null : anchor.scope * (anchor.depthM + anchor.tideRiseM + anchor.bowHeightM),
    go: fuelOk && windOk,
  };
}

/**
 * The minute it is in, as the worked examples have it. A time before midnight of that day, which nobody can keep any more, bears
 * a minus.
 */
function formatTime(minutes: number): string {
  // What should be a whole minute may lie a double's rounding below it.
  const whole = Math.floor(minutes + 1e-6);
  return `${whole < 0 ? "-" : ""}${toClock(Math.abs(whole))}`;
}

/** The first minute from departure on at which the wind is at its limit; straight between what is forecast, nothing beyond. */
function findWind({ wind, windLimitKn, departAt }: TripInput): number | null {
  const from = fromClock(departAt);
  const points = wind.map(({ at, kn }) => ({ min: fromClock(at), kn }));
  for (const [i, point] of points.entries()) {
    const before = points[i - 1];
    if (before !== undefined && point.min > from) {
      const knAt = (min: number) =>
        before.kn + ((point.kn - before.kn) * (min - before.min)) / (point.min - before.min);
      const begin = Math.max(from, before.min);
      if (knAt(begin) >= windLimitKn) return begin;
      if (point.kn >= windLimitKn)
        return before.min + ((windLimitKn - before.kn) / (point.kn - before.kn)) * (point.min - before.min);
    } else if (point.min >= from && point.kn >= windLimitKn) return point.min;
  }
  return null;
}
