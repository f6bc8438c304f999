import { z } from "zod";
import { isoDateSchema } from "../dates/index.ts";
import type { ExpectedJob, LoadWeek } from "./load.ts";
import { weekOf } from "./weeks.ts";

export const offerSchema = z.strictObject({
  boat: z.string(),
  scope: z.string(),
  item: z.string(),
  title: z.string(),
  labourH: z.number(),
  dueDate: isoDateSchema,
  fromMonday: isoDateSchema,
  toMonday: isoDateSchema,
});
export type Offer = z.infer<typeof offerSchema>;

const leastChance = 0.15;

/**
 * Which boats to offer an earlier slot so that no week has more than it can do. From each week that has too much, the
 * likeliest jobs go to the latest earlier week, within the time in which their item may be done, that has room for all
 * of them; until the week fits or nobody is left. What is booked stays.
 *
 * @returns offers in order of the week they come from; each boat's item at most once.
 */
export function flattenLoad(jobs: readonly ExpectedJob[], weeks: readonly LoadWeek[]): Offer[] {
  const loadH = weeks.map(({ expectedH }) => expectedH);
  const movable = jobs.filter(({ kind }) => kind !== "booked");
  const moved = new Set<ExpectedJob>();
  const offers: Offer[] = [];
  const first = weeks[0]?.monday;
  if (first === undefined) return [];
  for (let week = 1; week < weeks.length; week++) {
    if (loadH[week]! <= weeks[week]!.capacityH) continue;
    const candidates = movable
      .filter((job) => !moved.has(job) && job.chances[week]! >= leastChance && job.labourH > 0)
      .sort((a, b) => b.chances[week]! - a.chances[week]! || (a.dueDate < b.dueDate ? -1 : 1));
    for (const job of candidates) {
      if (loadH[week]! <= weeks[week]!.capacityH) break;
      const to = findRoom(job, week, weeks, loadH, weekOf(job.earliest, first));
      if (to === null) continue;
      moved.add(job);
      // Moved, it is sure to be there, and no more chance of any other week.
      job.chances.forEach((chance, i) => {
        if (i < loadH.length) loadH[i]! -= chance * job.labourH;
      });
      loadH[to]! += job.labourH;
      const { boat, scope, item, title, labourH, dueDate } = job;
      offers.push({
        boat,
        scope,
        item,
        title,
        labourH,
        dueDate,
        fromMonday: weeks[week]!.monday,
        toMonday: weeks[to]!.monday,
      });
    }
  }
  return offers;
}

function findRoom(
  job: ExpectedJob,
  week: number,
  weeks: readonly LoadWeek[],
  loadH: readonly number[],
  earliest: number,
) {
  for (let to = week - 1; to >= Math.max(0, earliest); to--)
    if (loadH[to]! - job.chances[to]! * job.labourH + job.labourH <= weeks[to]!.capacityH) return to;
  return null;
}
