import { z } from "zod";

const kg = z.number().min(0).max(1e6);
const litres = z.number().min(0).max(1e6);
const limit = z.number().min(0).max(1e6);
const pins = z.int().min(0).max(20);
const share = z.number().min(0).max(1);

/** Input of the contract `tow`: masses in kg, liquids in litres, limits as the plates say them, pins of the plugs. */
export const towInputSchema = z.strictObject({
  boat: z.strictObject({
    dryKg: kg,
    enginesKg: kg,
    fuelL: litres,
    fuelKind: z.enum(["petrol", "diesel"]),
    waterL: litres,
    ballastL: litres,
    gearKg: kg,
  }),
  trailer: z.strictObject({
    kg: kg,
    grossLimitKg: limit,
    axleLimitKg: limit,
    tyres: z.int().min(1).max(12),
    tyreLimitKg: limit,
    couplerLimitKg: limit,
    couplerBallMm: z.number().positive().max(500),
    tongueLimitKg: limit,
    brakes: z.enum(["none", "surge", "electric"]),
    pins,
  }),
  vehicle: z.strictObject({
    kg: kg,
    loadKg: kg,
    payloadKg: limit,
    towLimitKg: limit,
    brakelessLimitKg: limit,
    tongueLimitKg: limit,
    combinedLimitKg: limit,
    hitchLimitKg: limit,
    ballMm: z.number().positive().max(500),
    ballLimitKg: limit,
    pins,
  }),
  tongueKg: kg,
  rules: z.strictObject({ tongueShareMin: share, tongueShareMax: share, brakesAboveKg: limit }),
});

export const towVerdicts = ["ok", "tight", "over"] as const;
export const towCheckIds = [
  "trailer-gross",
  "axles",
  "tyres",
  "coupler",
  "ball",
  "hitch",
  "vehicle-tow",
  "combined",
  "payload",
  "tongue-vehicle",
  "tongue-trailer",
  "tongue-share",
  "ball-size",
  "brakes",
  "plug",
] as const;
const verdictSchema = z.enum(towVerdicts);
export const towOutputSchema = z.strictObject({
  towedKg: z.number(),
  axlesKg: z.number(),
  combinedKg: z.number(),
  tongueShare: z.number(),
  checks: z.array(
    z.strictObject({
      id: z.enum(towCheckIds),
      actual: z.number(),
      limit: z.number(),
      ratio: z.number(),
      verdict: verdictSchema,
    }),
  ),
  verdict: verdictSchema,
  shedKg: z.number().nullable(),
});
export type TowInput = z.infer<typeof towInputSchema>;
export type TowOutput = z.infer<typeof towOutputSchema>;
type TowCheck = TowOutput["checks"][number];

/** Kilograms a litre, as usually taken for planning: fuel varies by a few per cent with season and make. */
export const densities = { petrol: 0.745, diesel: 0.84, water: 1 } as const;
const tightFrom = 0.9;

/**
 * May this rig go on the road (contract `tow`)? Every limit with what stands against it: of the trailer, its axles and tyres,
 * coupler, ball, hitch and vehicle; then what fits or does not. `shedKg`: the least to take out of fuel, water, ballast and gear
 * so that every limit holds with the tongue weight as it is; null where that is not enough.
 */
export function tow(input: TowInput): TowOutput {
  const { boat, trailer, vehicle, tongueKg, rules } = input;
  const looseKg = boat.fuelL * densities[boat.fuelKind] + (boat.waterL + boat.ballastL) * densities.water + boat.gearKg;
  const towedKg = boat.dryKg + boat.enginesKg + looseKg + trailer.kg;
  const axlesKg = towedKg - tongueKg;
  const combinedKg = vehicle.kg + vehicle.loadKg + towedKg;
  const tongueShare = towedKg === 0 ? 0 : tongueKg / towedKg;
  const towLimitKg = trailer.brakes === "none" ? vehicle.brakelessLimitKg : vehicle.towLimitKg;
  // Taking mass out of the boat helps these, and those below it does not.
  const shed = [
    weigh("trailer-gross", towedKg, trailer.grossLimitKg),
    weigh("axles", axlesKg, trailer.axleLimitKg),
    weigh("tyres", axlesKg, trailer.tyres * trailer.tyreLimitKg),
    weigh("coupler", towedKg, trailer.couplerLimitKg),
    weigh("ball", towedKg, vehicle.ballLimitKg),
    weigh("hitch", towedKg, vehicle.hitchLimitKg),
    weigh("vehicle-tow", towedKg, towLimitKg),
    weigh("combined", combinedKg, vehicle.combinedLimitKg),
  ];
  const held = [
    weigh("payload", vehicle.loadKg + tongueKg, vehicle.payloadKg),
    weigh("tongue-vehicle", tongueKg, vehicle.tongueLimitKg),
    weigh("tongue-trailer", tongueKg, trailer.tongueLimitKg),
  ];
  const yesNo = [
    ask("tongue-share", tongueShare >= rules.tongueShareMin && tongueShare <= rules.tongueShareMax),
    ask("ball-size", trailer.couplerBallMm === vehicle.ballMm),
    ask("brakes", trailer.brakes !== "none" || towedKg <= rules.brakesAboveKg),
    ask("plug", trailer.pins <= vehicle.pins),
  ];
  const checks = [...shed, ...held, ...yesNo];
  const excessKg = Math.max(0, ...shed.map(({ actual, limit: most }) => actual - most));
  const canShed = excessKg <= looseKg && held.every(({ verdict }) => verdict !== "over");
  return {
    towedKg,
    axlesKg,
    combinedKg,
    tongueShare,
    checks,
    verdict: towVerdicts.findLast((verdict) => checks.some((check) => check.verdict === verdict))!,
    shedKg: canShed ? excessKg : null,
  };
}

function weigh(id: TowCheck["id"], actual: number, most: number): TowCheck {
  // JSON has no infinity: what may carry nothing is as far over as a number says.
  const ratio = most > 0 ? actual / most : actual > 0 ? Number.MAX_VALUE : 0;
  return { id, actual, limit: most, ratio, verdict: ratio > 1 ? "over" : ratio >= tightFrom ? "tight" : "ok" };
}

const ask = (id: TowCheck["id"], holds: boolean): TowCheck => ({
  id,
  actual: 0,
  limit: 0,
  ratio: 0,
  verdict: holds ? "ok" : "over",
});
