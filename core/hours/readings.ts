import { z } from "zod";
import { differenceDays, type LocalDate } from "../dates/index.ts";
import type { MeterKind } from "../rig/index.ts";

/**
 * Why a reading does not follow from those before it. `typing-slip`: an earlier one was typed wrong;
 * `meter-changed`: another meter, which began anew; `key-left-on`: the meter counted and the engine did not run;
 * `as-read`: it is right, much was run.
 */
export const readingAnswers = ["typing-slip", "meter-changed", "key-left-on", "as-read"] as const;
export const readingAnswerSchema = z.enum(readingAnswers);
export type ReadingAnswer = z.infer<typeof readingAnswerSchema>;

/** Where a reading comes from. */
export const readingSources = ["walk", "phone", "owner", "photo", "file", "workshop"] as const;
export type ReadingSource = (typeof readingSources)[number];

export interface Reading {
  readonly date: LocalDate;
  /** As the meter shows them. */
  readonly hours: number;
  readonly answer: ReadingAnswer | null;
}

/** A reading with the hours the engine has really run. */
export interface Resolved {
  readonly date: LocalDate;
  readonly meterH: number;
  readonly engineH: number;
}

export type ReadingQuestion =
  | { readonly code: "falls"; readonly beforeH: number; readonly on: LocalDate }
  | { readonly code: "leaps"; readonly beforeH: number; readonly on: LocalDate; readonly perDayH: number };

/**
 * More engine hours a day than anybody runs for pleasure: then a meter or a hand has slipped. A meter that counts with the
 * key on is asked about sooner: half a night forgotten looks like a long day. Our own choice.
 */
const mostPerDayH = (meter: MeterKind | undefined): number => (meter === "key-on" ? 6 : 10);

/** What may stand behind hours that fall or leap on such a meter, the likeliest first; of an unknown one all of it. */
export function listAnswers(code: ReadingQuestion["code"], meter: MeterKind | undefined): readonly ReadingAnswer[] {
  if (code === "falls") return ["typing-slip", "meter-changed"];
  if (meter === "key-on") return ["key-left-on", "as-read", "meter-changed"];
  return meter === undefined ? ["as-read", "key-left-on", "meter-changed"] : ["as-read", "meter-changed"];
}

/**
 * Engine hours behind meter hours, by day and in order of entry. A slip before strikes the earlier readings of the same
 * meter that show more; a changed meter, and hours counted with the key left on, move the count so that the engine goes on
 * from where it was.
 */
export function resolveReadings(readings: readonly Reading[]): Resolved[] {
  const stands: (Resolved & { readonly offsetH: number; readonly isFirstOfMeter: boolean })[] = [];
  for (const { date, hours, answer } of readings) {
    let isFirstOfMeter = answer === "meter-changed";
    if (answer === "typing-slip")
      while (!isFirstOfMeter && stands.length > 0 && stands.at(-1)!.meterH > hours)
        // The first reading of a new meter was the slip: this one is its first, and the old meter's stand.
        isFirstOfMeter = stands.pop()!.isFirstOfMeter;
    const before = stands.at(-1);
    const moves = isFirstOfMeter || answer === "key-left-on";
    const offsetH = moves ? (before?.engineH ?? hours) - hours : (before?.offsetH ?? 0);
    const engineH = Math.max(before?.engineH ?? 0, hours + offsetH);
    stands.push({ date, meterH: hours, engineH, offsetH, isFirstOfMeter });
  }
  return stands.map(({ date, meterH, engineH }) => ({ date, meterH, engineH }));
}

/** What a meter shows at the finest: hours that differ by less are the same, read off or reckoned from a run. */
const meterStepH = 0.1;
const falls = (hours: number, before: number) => hours + meterStepH <= before + 1e-9;

/** What has to be asked before a reading is kept; null when it follows from those before it. `readings` as entered so far. */
export function askReading(
  readings: readonly Reading[],
  next: Omit<Reading, "answer">,
  meter?: MeterKind,
): ReadingQuestion | null {
  const stands = resolveReadings(readings);
  const before = stands.findLast(({ date }) => date <= next.date);
  const after = stands.find(({ date }) => date > next.date);
  if (before !== undefined && falls(next.hours, before.meterH))
    return { code: "falls", beforeH: before.meterH, on: before.date };
  if (after !== undefined && falls(after.meterH, next.hours))
    return { code: "falls", beforeH: after.meterH, on: after.date };
  if (before === undefined) return null;
  const perDayH = (next.hours - before.meterH) / Math.max(1, differenceDays(next.date, before.date));
  return perDayH > mostPerDayH(meter) ? { code: "leaps", beforeH: before.meterH, on: before.date, perDayH } : null;
}

/** Hours that a boat may show when it is first handed over without anybody asking: new, and had by others. Our own choice. */
const mostAtHandoverH = { new: 20, used: 10_000 } as const;

/** `askReading` at a handover, where there may be nothing before: then hours that no such boat has are asked about. */
export function askHandoverHours(
  readings: readonly Reading[],
  next: Omit<Reading, "answer">,
  { meter, isUsed }: { readonly meter?: MeterKind | undefined; readonly isUsed: boolean },
): ReadingQuestion | null {
  const asked = askReading(readings, next, meter);
  if (asked !== null || readings.length > 0) return asked;
  const isOdd = next.hours > mostAtHandoverH[isUsed ? "used" : "new"];
  return isOdd ? { code: "leaps", beforeH: 0, on: next.date, perDayH: next.hours } : null;
}

/** By how many hours the engines of a pair have drifted apart, when it is more than a tenth and two hours; else null. */
export function findDrift(hours: readonly number[]): number | null {
  if (hours.length < 2) return null;
  const most = Math.max(...hours);
  const apart = most - Math.min(...hours);
  return apart > 2 && apart > most * 0.1 ? apart : null;
}
