import type { CareFacts } from "../../core/aftercare/index.ts";
import { addDays, type IsoDate, toDayNumber } from "../../core/dates/index.ts";
import { createSeasonLine, describeOwner, usualTripH } from "../../core/hours/index.ts";
import { createHoursLine, nextTargets } from "../../core/service/index.ts";
import { createWeekGrid, type ExpectedJob, expectJob, loadWeeks, type WeekGrid } from "../../core/workshop/index.ts";
import type { Clock } from "../clock.ts";
import type { BoatHead, Boats } from "../repositories/boats.ts";
import { boatScope, breakInHoursOf, type CareQuestion, listScopes, readEngineStatus } from "./care.ts";
import type { CareReader } from "./careReader.ts";
import type { PackService } from "./packService.ts";

/** What the call list and the workshop know of one boat, worked out once until something of it is written. */
export interface BoatFacts {
  readonly boat: BoatHead;
  readonly facts: Pick<CareFacts, "inService" | "engines" | "next">;
  readonly reportedH: number | null;
  readonly reportedOn: IsoDate | null;
  readonly likelyNowH: number | null;
  readonly breakInH: number | null;
  readonly jobs: readonly ExpectedJob[];
}

interface Parts {
  readonly boats: Boats;
  readonly careReader: CareReader;
  readonly packService: PackService;
  readonly clock: Clock;
}

const seasonYears = 12;
/** How far ahead the end of a break-in is looked for. */
const breakInDays = 365;
/** The boat itself runs no hours. */
const noMass: readonly number[] = new Array(loadWeeks).fill(0);

/** The care of all boats that were handed over. What is known of a boat stands until its hours or services change, or the day. */
export function createFleetCare({ boats, careReader, packService, clock }: Parts) {
  let day = "";
  let packs = 0;
  let seen: number | null = null;
  const heads = new Map<string, BoatHead>();
  const known = new Map<string, BoatFacts>();
  /** Reads anew what was written since; all of it the first time. */
  const catchUp = async () => {
    const { ids, count } = boats.changesSince(seen ?? 0);
    const changed = seen === null ? undefined : [...ids];
    seen = count;
    if (changed?.length === 0) return;
    for (const head of await boats.listHeads(changed)) {
      heads.set(head.id, head);
      known.delete(head.id);
    }
  };
  return {
    async read(): Promise<BoatFacts[]> {
      const today = clock.today();
      const { version } = await packService.read();
      if (day !== today || packs !== version) known.clear();
      [day, packs] = [today, version];
      await catchUp();
      const delivered = [...heads.values()].filter(({ inService }) => inService !== null);
      const stale = delivered.filter(({ id }) => !known.has(id));
      if (stale.length > 0) {
        const { seasonShare } = await careReader.readFleet();
        const season = createSeasonLine(addDays(today, -365 * seasonYears), 365 * (seasonYears + 2), seasonShare);
        const grid = createWeekGrid(today, loadWeeks);
        const withRigs = await boats.findMany(stale.map(({ id }) => id));
        const questions = await careReader.askMany(stale.map(({ id }) => withRigs.get(id)!));
        stale.forEach((boat, i) => {
          known.set(boat.id, describeFacts(boat, questions[i]!, season, grid));
        });
      }
      return delivered.flatMap(({ id }) => known.get(id) ?? []);
    },
  };
}

export type FleetCare = ReturnType<typeof createFleetCare>;

/** One boat's status: when its break-in ends, what falls due next, and which work to expect in which week. */
export function describeFacts(
  boat: BoatHead,
  question: CareQuestion,
  season: ReturnType<typeof createSeasonLine>,
  grid: WeekGrid,
): BoatFacts {
  const { today, rig } = question;
  const inService = boat.inService!;
  const statuses = rig.engines.map((engine) => readEngineStatus(question, engine));
  const scopes = listScopes(question, statuses);
  const jobs: ExpectedJob[] = [];
  let next: CareFacts["next"] = null;
  for (const scope of scopes) {
    const status = statuses.find(({ engine }) => engine.id === scope.id);
    const lastDay = status?.last == null ? null : toDayNumber(status.last.date);
    const massBy = lastDay === null ? noMass : grid.lastDays.map((end) => season(lastDay, end));
    const owner = status === undefined ? null : describeOwner(status.owner);
    const belief =
      status?.last == null || owner === null ? null : { lastH: status.last.hours, ...owner, tripMeanH: usualTripH };
    for (const target of nextTargets(inService, today, scope)) {
      const job = expectJob(boat.id, scope.id, target, belief, massBy, grid);
      if (job !== null) jobs.push(job);
      const isSooner = next === null || target.likelyDate < next.date;
      // What hangs on a season is offered in it, and falls due only at its end.
      if (isSooner && target.item.season === undefined && scope.id !== boatScope)
        next = {
          title: target.item.title,
          date: target.likelyDate,
          isOverdue: target.isOverdue,
          isFirst: target.item.id === "first-service",
        };
    }
  }
  const engines = statuses.map((status) => {
    const { engine, last, likelyNowH, monthlyHours } = status;
    const totalH = breakInHoursOf(question, status);
    const isDone = totalH === null || (last !== null && last.hours >= totalH);
    return {
      label: engine.label,
      reportedOn: last?.date ?? null,
      unseenH: last === null || likelyNowH === null ? 0 : likelyNowH - last.hours,
      breakInEnds:
        totalH === null || last === null || isDone
          ? null
          : createHoursLine(likelyNowH ?? 0, today, monthlyHours, breakInDays).dateOf(totalH),
      isBreakInDone: isDone,
      totalH,
    };
  });
  const first = statuses[0];
  return {
    boat,
    facts: { inService, engines: engines.map(({ totalH: _, ...engine }) => engine), next },
    reportedH: first?.last?.hours ?? null,
    reportedOn: first?.last?.date ?? null,
    likelyNowH: first?.likelyNowH ?? null,
    breakInH: engines[0]?.totalH ?? null,
    jobs,
  };
}
