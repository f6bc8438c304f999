import { type LocalDate, toDayNumber } from "../dates/index.ts";
import type { Position } from "./chart.ts";

/** When the sun rises and sets at a place on a day; milliseconds since 1970, UTC. Above the polar circle it may do neither. */
export type SunDay =
  | { readonly kind: "day"; readonly riseMs: number; readonly setMs: number }
  | { readonly kind: "always-up" }
  | { readonly kind: "never-up" };

const rad = Math.PI / 180;
const dayMs = 86_400_000;
/** Day number of 2000-01-01 counted as days since 1970. */
const j2000Ms = Date.UTC(2000, 0, 1, 12);
/** The sun's centre this far below the horizon: refraction and its own radius. Degrees. */
const atHorizonDeg = -0.833;

/**
 * Sunrise and sunset, to within a minute or two. Method: the sun's mean anomaly, equation of centre and ecliptic longitude of the
 * Astronomical Almanac's low-precision formulas (0.01° until 2050), transit by the equation of time, hour angle at -0.833°; worked
 * out twice, so that the sun stands where it does at that hour and not at noon.
 */
export function sunOn(date: LocalDate, { lat, lon }: Position): SunDay {
  const noonUtcMs = toDayNumber(date) * dayMs + dayMs / 2;
  // Noon at the place, by its longitude alone.
  const noonMs = noonUtcMs - (lon / 360) * dayMs;
  const [rise, set] = [-1, 1].map((side) => {
    let ms: number | null = noonMs;
    for (let round = 0; round < 3 && ms !== null; round++) ms = eventMs(ms, noonMs, { lat, lon }, side);
    return ms;
  });
  if (rise != null && set != null) return { kind: "day", riseMs: rise, setMs: set };
  return { kind: lat * sunAt(noonMs).declination > 0 ? "always-up" : "never-up" };
}

/** Where the sun is at a time: declination in radians, equation of time in milliseconds. */
function sunAt(ms: number) {
  const days = (ms - j2000Ms) / dayMs;
  const anomaly = (357.529 + 0.98560028 * days) * rad;
  const mean = 280.459 + 0.98564736 * days;
  const longitude = (mean + 1.915 * Math.sin(anomaly) + 0.02 * Math.sin(2 * anomaly)) * rad;
  const tilt = (23.439 - 0.00000036 * days) * rad;
  const ascension = Math.atan2(Math.cos(tilt) * Math.sin(longitude), Math.cos(longitude)) / rad;
  const off = ((((mean - ascension + 180) % 360) + 360) % 360) - 180;
  return { declination: Math.asin(Math.sin(tilt) * Math.sin(longitude)), timeMs: (off / 360) * dayMs };
}

/** Sunrise (side -1) or sunset (1) with the sun as it stands at `ms`; null where it never reaches the horizon. */
function eventMs(ms: number, noonMs: number, { lat }: Position, side: number): number | null {
  const { declination, timeMs } = sunAt(ms);
  const cos =
    (Math.sin(atHorizonDeg * rad) - Math.sin(lat * rad) * Math.sin(declination)) /
    (Math.cos(lat * rad) * Math.cos(declination));
  if (!(Math.abs(cos) <= 1)) return null;
  return noonMs - timeMs + side * (Math.acos(cos) / (2 * Math.PI)) * dayMs;
}
