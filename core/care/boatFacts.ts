import type { CareFacts } from "../aftercare/index.ts";
import type { LocalDate } from "../dates/index.ts";
import { describeExpected } from "../hours/index.ts";
import { compareDue, listDue } from "../service/index.ts";
import { type ExpectedJob, expectJob, type WeekGrid } from "../workshop/index.ts";
import { breakInHoursOf, readEngineStatus } from "./engineStatus.ts";
import type { CareQuestion } from "./question.ts";
import { boatScope, listScopes } from "./scopes.ts";

/** What call list, workshop, boats list and calendar know of one boat that was handed over. */
export interface BoatFacts {
  readonly facts: Pick<CareFacts, "inService" | "engines" | "next">;
  readonly reportedH: number | null;
  readonly reportedOn: LocalDate | null;
  readonly likelyNowH: number | null;
  readonly breakInH: number | null;
  readonly jobs: readonly ExpectedJob[];
}

/** One boat's status: when its break-in ends, what falls due next, and which work to expect in which week. */
export function describeBoat(
  boat: string,
  question: CareQuestion & { inService: LocalDate },
  grid: WeekGrid,
): BoatFacts {
  const { today, rig, inService } = question;
  const statuses = rig.engines.map((engine) => readEngineStatus(question, engine));
  const scopes = listScopes(question, statuses);
  const all = scopes.flatMap((scope) => listDue(scope, today).map((due) => ({ scope, due })));
  const jobs = all.flatMap(({ scope, due }): ExpectedJob[] => {
    const job = expectJob(boat, scope.id, due, scope.forecast, grid);
    return job === null ? [] : [job];
  });
  // What hangs on a season is offered in it, and falls due only at its end.
  const timed = all.filter(({ scope, due }) => scope.id !== boatScope && due.by !== "season" && due.dueDate !== null);
  const first = timed.sort((a, b) => compareDue(a.due, b.due))[0];
  const engines = statuses.map((status) => {
    const { engine, forecast, likelyNowH } = status;
    const totalH = breakInHoursOf(question, status);
    const isDone = totalH === null || (forecast !== null && forecast.last.hours >= totalH);
    return {
      label: engine.label,
      reportedOn: forecast?.last.date ?? null,
      unseenH: forecast === null || likelyNowH === null ? 0 : likelyNowH - forecast.last.hours,
      breakInEnds:
        totalH === null || forecast === null || isDone ? null : describeExpected(forecast.datesOf(totalH), today),
      isBreakInDone: isDone,
      totalH,
    };
  });
  const [status] = statuses;
  return {
    facts: {
      inService,
      engines: engines.map(({ totalH: _, ...engine }) => engine),
      next: first === undefined ? null : nextOf(first, timed, today),
    },
    reportedH: status?.forecast?.last.hours ?? null,
    reportedOn: status?.forecast?.last.date ?? null,
    likelyNowH: status?.likelyNowH ?? null,
    breakInH: engines[0]?.totalH ?? null,
    jobs,
  };
}

type Timed = {
  readonly scope: ReturnType<typeof listScopes>[number];
  readonly due: ReturnType<typeof listDue>[number];
};

/** What is said of a boat's next service; of an item that is due on several engines, that it is. */
function nextOf({ scope, due: { item, ...due } }: Timed, all: readonly Timed[], today: LocalDate): CareFacts["next"] {
  const same = all.filter((each) => each.due.item.title === item.title);
  const engine = same.length === 1 ? scope.label : same.length === 2 ? "Both engines" : "All engines";
  const { last, likelyOn } = scope.forecast!;
  const hours = { reportedH: last.hours, reportedOn: last.date, likelyNowH: likelyOn(today) };
  return {
    scope: scope.id,
    engine,
    item: item.id,
    title: item.title,
    isFirst: item.id === "first-service",
    due,
    ...hours,
  };
}
