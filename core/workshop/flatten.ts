import { z } from "zod";
import { type LocalDate, localDateSchema } from "../dates/index.ts";
import { dayRangeSchema } from "../hours/index.ts";
import { chanceIn, type ExpectedJob, type LoadWeek } from "./load.ts";
import { weekOf } from "./weeks.ts";

export const offerSchema = z.strictObject({
  boat: z.string(),
  items: z.array(z.strictObject({ scope: z.string(), item: z.string(), title: z.string() })),
  labourH: z.number(),
  dueDate: localDateSchema,
  range: dayRangeSchema.nullable(),
  isAnyDay: z.boolean(),
  fromWeek: localDateSchema,
  toWeek: localDateSchema,
});
export type Offer = z.infer<typeof offerSchema>;

/** A job less likely than this in a week is no reason to ring anybody about that week. */
const leastChance = 0.15;

/** What a boat is likely brought for in one week: its jobs move together. */
interface Bundle {
  readonly boat: string;
  readonly jobs: readonly ExpectedJob[];
  readonly labourH: number;
  readonly chance: number;
  /** The first week in which all of it may be done. */
  readonly earliestWeek: number;
  /** Of its jobs the one that falls due first. */
  readonly first: ExpectedJob;
}

/**
 * Which boats to offer an earlier slot so that no week has more than it can do. From each week that has too much, the
 * likeliest boats go to the latest earlier week, within the time in which all their work may be done, that has room for
 * it; until the week fits or nobody is left. What is booked stays.
 *
 * @returns offers in order of the week they come from; each job at most once.
 */
export function flattenLoad(jobs: readonly ExpectedJob[], weeks: readonly LoadWeek[]): Offer[] {
  const loadH = weeks.map(({ expectedH }) => expectedH);
  // Of a large fleet a long list: it is made once somebody is to be moved.
  let likely: ExpectedJob[][] | null = null;
  const moved = new Set<ExpectedJob>();
  const offers: Offer[] = [];
  for (let week = 1; week < weeks.length; week++) {
    if (loadH[week]! <= weeks[week]!.capacityH) continue;
    // Moving work to a week adds to it: one that is full already has room for nobody.
    if (!weeks.slice(0, week).some((earlier, i) => loadH[i]! <= earlier.capacityH)) continue;
    likely ??= listLikely(jobs, weeks.length);
    const here = likely[week]!.filter((job) => !moved.has(job));
    for (const bundle of bundleByBoat(here, week, weeks[0]!.begins)) {
      if (loadH[week]! <= weeks[week]!.capacityH) break;
      const to = findRoom(bundle, week, weeks, loadH);
      if (to === null) continue;
      for (const job of bundle.jobs) {
        moved.add(job);
        // Moved, it is sure to be there, and no more chance of any other week.
        for (let i = 0; i < loadH.length; i++) loadH[i]! -= chanceIn(job, i) * job.labourH;
        loadH[to]! += job.labourH;
      }
      offers.push({
        boat: bundle.boat,
        items: bundle.jobs.map(({ scope, item, title }) => ({ scope, item, title })),
        labourH: bundle.labourH,
        dueDate: bundle.first.dueDate,
        range: bundle.first.range,
        isAnyDay: bundle.first.isAnyDay,
        fromWeek: weeks[week]!.begins,
        toWeek: weeks[to]!.begins,
      });
    }
  }
  return offers;
}

/** The jobs of each week that are likely enough there to be moved. */
function listLikely(jobs: readonly ExpectedJob[], count: number): ExpectedJob[][] {
  const likely: ExpectedJob[][] = Array.from({ length: count }, () => []);
  for (const job of jobs)
    if (job.kind !== "booked" && job.labourH > 0)
      for (let i = 0; i < job.chances.length; i++) {
        const week = job.firstWeek + i;
        if (job.chances[i]! >= leastChance && week >= 1 && week < count) likely[week]!.push(job);
      }
  return likely;
}

function bundleByBoat(jobs: readonly ExpectedJob[], week: number, firstBegins: LocalDate): Bundle[] {
  const byBoat = new Map<string, ExpectedJob[]>();
  for (const job of jobs) {
    const mine = byBoat.get(job.boat);
    if (mine === undefined) byBoat.set(job.boat, [job]);
    else mine.push(job);
  }
  return [...byBoat]
    .map(([boat, mine]) => ({
      boat,
      jobs: mine,
      labourH: mine.reduce((sum, { labourH }) => sum + labourH, 0),
      chance: Math.max(...mine.map((job) => chanceIn(job, week))),
      earliestWeek: Math.max(...mine.map(({ earliest }) => weekOf(earliest, firstBegins))),
      first: mine.reduce((first, job) => (job.dueDate < first.dueDate ? job : first)),
    }))
    .sort((a, b) => b.chance - a.chance || b.labourH - a.labourH || (a.boat < b.boat ? -1 : 1));
}

function findRoom(bundle: Bundle, week: number, weeks: readonly LoadWeek[], loadH: readonly number[]): number | null {
  for (let to = week - 1; to >= Math.max(0, bundle.earliestWeek); to--) {
    if (loadH[to]! > weeks[to]!.capacityH) continue;
    const freedH = bundle.jobs.reduce((sum, job) => sum + chanceIn(job, to) * job.labourH, 0);
    if (loadH[to]! - freedH + bundle.labourH <= weeks[to]!.capacityH) return to;
  }
  return null;
}
