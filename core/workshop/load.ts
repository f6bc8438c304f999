import { z } from "zod";
import { type LocalDate, localDateSchema } from "../dates/index.ts";
import type { DayRange } from "../hours/index.ts";
import { capacityOfWeek, listWeeks, type Workshop } from "./weeks.ts";

export const jobKinds = ["first-service", "yearly", "season", "booked", "other"] as const;
export type JobKind = (typeof jobKinds)[number];

/** Work that is expected, with how likely it falls in each week. */
export interface ExpectedJob {
  readonly boat: string;
  readonly scope: string;
  readonly item: string;
  readonly title: string;
  readonly kind: JobKind;
  readonly labourH: number;
  /** The day as `ServiceDue` has it, and the first on which it may be done. */
  readonly dueDate: LocalDate;
  readonly range: DayRange | null;
  readonly isAnyDay: boolean;
  readonly earliest: LocalDate;
  /** The first week it may fall in, 0 for the current one, and the chance of each from there; their sum is at most 1. */
  readonly firstWeek: number;
  readonly chances: readonly number[];
}

/** The chance that a job falls in a week; 0 outside those it has. */
export const chanceIn = ({ firstWeek, chances }: ExpectedJob, week: number): number => chances[week - firstWeek] ?? 0;

export const loadWeekSchema = z.strictObject({
  begins: localDateSchema,
  capacityH: z.number(),
  /** Expected hours, and what they stay under with a chance of one and nine tenths. */
  expectedH: z.number(),
  p10H: z.number(),
  p90H: z.number(),
  jobs: z.number(),
  byKind: z.strictObject({
    "first-service": z.number(),
    yearly: z.number(),
    season: z.number(),
    booked: z.number(),
    other: z.number(),
  }),
});
export type LoadWeek = z.infer<typeof loadWeekSchema>;

export const loadWeeks = 52;
/** Standard normal deviate of 0.9. */
const deviate90 = 1.2816;

/**
 * Expected work of each week: the sum of the chances times the labour. Jobs fall independently, so that variances add;
 * the band takes the sum as normal, which some dozen jobs make it, and never below what is booked.
 */
export function sumLoad(
  jobs: readonly ExpectedJob[],
  today: LocalDate,
  workshop: Workshop,
  weekStart: number,
  count = loadWeeks,
): LoadWeek[] {
  const mean = new Float64Array(count);
  const variance = new Float64Array(count);
  const number = new Float64Array(count);
  const byKind = Object.fromEntries(jobKinds.map((kind) => [kind, new Float64Array(count)])) as Record<
    JobKind,
    Float64Array
  >;
  for (const { firstWeek, chances, labourH, kind } of jobs) {
    const kindH = byKind[kind];
    const end = Math.min(count, firstWeek + chances.length);
    for (let week = firstWeek; week < end; week++) {
      const chance = chances[week - firstWeek]!;
      mean[week]! += chance * labourH;
      variance[week]! += chance * (1 - chance) * labourH ** 2;
      number[week]! += chance;
      kindH[week]! += chance * labourH;
    }
  }
  return listWeeks(today, count, weekStart).map((begins, week) => {
    const spreadH = deviate90 * Math.sqrt(Math.max(0, variance[week]!));
    return {
      begins,
      capacityH: capacityOfWeek(workshop, begins),
      expectedH: mean[week]!,
      p10H: Math.max(byKind.booked[week]!, mean[week]! - spreadH),
      p90H: mean[week]! + spreadH,
      jobs: number[week]!,
      byKind: Object.fromEntries(jobKinds.map((kind) => [kind, byKind[kind][week]!])) as LoadWeek["byKind"],
    };
  });
}
