import { dayOf, differenceDays, fromClock, type LocalDate, minutesOfDay } from "../dates/index.ts";
import { type GearOutput, type GearPack, gear } from "../gear/index.ts";
import { type Rig, sumTankL } from "../rig/index.ts";
import { type SunDay, sunOn } from "./sun.ts";
import { type TripOutput, trip } from "./trip.ts";
import type { TripPlan } from "./tripPlan.ts";

/** What speaks for or against going, the reasons against first. */
export const tripReasons = [
  "no-legs",
  "fuel",
  "wind",
  "wind-unchecked",
  "wind-old",
  "gear",
  "nobody-aboard",
  "dark",
  "sun-unknown",
  "nobody-ashore",
  "fuel-over-tank",
] as const;
export type TripReason = (typeof tripReasons)[number];

/** Against it; not known, so that it is no go either; or worth knowing. */
export type ReasonWeight = "stops" | "unknown" | "mind";

export interface JudgedTrip {
  /** By the contract; the wind that is not there is no wind, so that `go` of it is never taken by itself. */
  readonly answer: TripOutput;
  readonly verdict: "go" | "no-go" | "not-checked";
  readonly reasons: readonly { readonly code: TripReason; readonly weight: ReasonWeight }[];
  readonly gear: GearOutput;
  /** Null where nobody has said where it is. */
  readonly sun: SunDay | null;
  /** Minutes after midnight of the day, in the store's zone, past midnight going on; null where the sun does neither or is not known. */
  readonly sunsetMin: number | null;
  /** The same for sunrise. */
  readonly sunriseMin: number | null;
  readonly backMin: number;
  /** Fuel at the start, turned at, and back, litres. */
  readonly fuel: { readonly outL: number; readonly backL: number; readonly leftL: number };
}

/**
 * Go or no go, with each reason. Wind that nobody has looked at, or that ends before the boat is back, is "not checked" and never
 * a go. In the dark the rules for gear ask for what a night asks for.
 */
export function judgeTrip(plan: TripPlan, rig: Rig, pack: GearPack, today: LocalDate, timeZone: string): JudgedTrip {
  const answer = trip({
    legsNm: plan.legs.map(({ nm }) => nm),
    cruiseKn: plan.cruiseKn,
    burnLph: plan.burnLph,
    fuelL: plan.fuelL,
    departAt: plan.departAt,
    stayH: plan.stayH,
    wind: plan.wind.map(({ at, kn }) => ({ at, kn })),
    windLimitKn: plan.windLimitKn,
    ...(plan.anchor === null ? {} : { anchor: plan.anchor }),
  });
  const backMin = fromClock(answer.backAt);
  const sun = plan.from === null ? null : sunOn(plan.date, plan.from);
  const sunsetMin = sun?.kind === "day" ? sinceMidnight(sun.setMs, plan.date, timeZone) : null;
  const sunriseMin = sun?.kind === "day" ? sinceMidnight(sun.riseMs, plan.date, timeZone) : null;
  const departMin = fromClock(plan.departAt);
  const isDark =
    sun?.kind === "never-up" ||
    (sunsetMin !== null && backMin > sunsetMin) ||
    (sunriseMin !== null && departMin < sunriseMin);
  const checked = gear({
    rules: pack.rules.map(({ id, need, per, qty, when }) => ({
      id,
      need,
      ...(per === undefined ? {} : { per }),
      ...(qty === undefined ? {} : { qty }),
      ...(when === undefined ? {} : { when }),
    })),
    trip: {
      adults: plan.people.filter(({ isChild }) => !isChild).length,
      children: plan.people.filter(({ isChild }) => isChild).length,
      night: isDark,
      offshoreNm: plan.offshoreNm,
    },
    boat: { loaM: rig.loaM, enclosedFuel: rig.enclosedFuel, engine: true },
    aboard: pack.rules.flatMap(({ id, gear: items, fitted = [] }) => [
      ...plan.aboard.flatMap(({ item, qty, expires }) =>
        items.includes(item) ? [{ rule: id, qty, ...(expires === undefined ? {} : { expires }) }] : [],
      ),
      ...(rig.parts.some(({ kind }) => fitted.includes(kind)) ? [{ rule: id, qty: 1 }] : []),
    ]),
    today: plan.date > today ? plan.date : today,
  });
  const lastWind = plan.wind.at(-1);
  const firstWind = plan.wind[0];
  // Nothing is said of hours beyond the last figure or before the first.
  const isWindKnown =
    lastWind !== undefined &&
    firstWind !== undefined &&
    fromClock(lastWind.at) >= backMin &&
    fromClock(firstWind.at) <= departMin;
  const tankL = sumTankL(rig, ["petrol", "diesel"]);
  const found: [boolean, TripReason, ReasonWeight][] = [
    [plan.legs.length === 0 || answer.oneWayH === 0, "no-legs", "unknown"],
    [!answer.fuelOk, "fuel", "stops"],
    [tankL > 0 && plan.fuelL > tankL * 1.001, "fuel-over-tank", "stops"],
    [!answer.windOk, "wind", "stops"],
    [!isWindKnown && answer.windOk, "wind-unchecked", "unknown"],
    // A forecast of days ago is no forecast on the morning itself.
    [isWindKnown && answer.windOk && plan.windOn !== plan.date, "wind-old", today >= plan.date ? "unknown" : "mind"],
    [!checked.ready, "gear", "stops"],
    [plan.people.length === 0, "nobody-aboard", "unknown"],
    [isDark, "dark", "mind"],
    [sun === null, "sun-unknown", "mind"],
    [plan.ashore === null, "nobody-ashore", "mind"],
  ];
  const order: Record<ReasonWeight, number> = { stops: 0, unknown: 1, mind: 2 };
  const reasons = found
    .flatMap(([is, code, weight]) => (is ? [{ code, weight }] : []))
    .sort((a, b) => order[a.weight] - order[b.weight]);
  const worst = reasons[0]?.weight;
  return {
    answer,
    verdict: worst === "stops" ? "no-go" : worst === "unknown" ? "not-checked" : "go",
    reasons,
    gear: checked,
    sun,
    sunsetMin,
    sunriseMin,
    backMin,
    fuel: { outL: answer.oneWayL, backL: answer.oneWayL, leftL: plan.fuelL - 2 * answer.oneWayL },
  };
}

/** Minutes after midnight of `date` in a zone; what falls on the day after goes on past 24 hours. */
const sinceMidnight = (ms: number, date: LocalDate, timeZone: string): number =>
  minutesOfDay(ms, timeZone) + differenceDays(date, dayOf(ms, timeZone)) * 24 * 60;
