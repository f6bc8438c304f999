import { fromClock } from "../../core/dates/index.ts";
import type { JudgedTrip, TripPlan } from "../../core/trip/index.ts";

/** One leg along the clock, minutes after midnight; `says`: its words, the longest first. */
export interface LaidLeg {
  readonly from: number;
  readonly until: number;
  readonly says: readonly string[];
  readonly isBack: boolean;
}

const [left, right, top, windHeight, legGap] = [34, 24, 22, 120, 34];
const hourMin = 60;
/** A sunset this long after the return is still shown. Minutes. */
const sunsetShownMin = 240;

/** Where everything of a day out is drawn: hours along, wind up, legs in a band below. Pixels of a picture `width` wide. */
export function layDay(plan: TripPlan, { backMin, sunsetMin }: JudgedTrip, isNarrow: boolean) {
  const width = isNarrow ? 370 : 760;
  const departMin = fromClock(plan.departAt);
  const isSunsetNear = sunsetMin !== null && sunsetMin < backMin + sunsetShownMin;
  const fromMin = Math.floor((departMin - 20) / hourMin) * hourMin;
  const untilMin = Math.ceil((Math.max(backMin + 30, isSunsetNear ? sunsetMin + 10 : 0) + 1) / hourMin) * hourMin;
  const wind = plan.wind.map(({ at, kn }) => ({ min: fromClock(at), kn }));
  const mostKn = Math.max(plan.windLimitKn * 1.4, ...wind.map(({ kn }) => kn * 1.1), 10);
  const hours = Array.from({ length: (untilMin - fromMin) / hourMin + 1 }, (_, i) => fromMin + i * hourMin);
  const base = top + windHeight;
  return {
    width,
    left,
    top,
    edge: width - right,
    base,
    legY: base + legGap,
    fromMin,
    untilMin,
    hours,
    /** Every how many hours one is written. */
    every: Math.ceil(hours.length / (isNarrow ? 6 : 13)),
    wind,
    x: (min: number) => left + ((min - fromMin) / (untilMin - fromMin)) * (width - left - right),
    y: (kn: number) => base - (kn / mostKn) * windHeight,
  };
}
export type Day = ReturnType<typeof layDay>;

/** Legs out and back along the clock. */
export function layLegs(plan: TripPlan): LaidLeg[] {
  const minutes = (nm: number) => (nm / plan.cruiseKn) * hourMin;
  const laid: LaidLeg[] = [];
  let at = fromClock(plan.departAt);
  const add = (nm: number, says: readonly string[], isBack: boolean) => {
    if (nm > 0) laid.push({ from: at, until: at + minutes(nm), says, isBack });
    at += minutes(nm);
  };
  for (const { to, nm } of plan.legs) add(nm, [`${to} ${nm.toFixed(1)} nm`, `${nm.toFixed(1)} nm`], false);
  at += plan.stayH * hourMin;
  for (const { nm } of [...plan.legs].reverse()) add(nm, [`${nm.toFixed(1)} nm`], true);
  return laid;
}
