import { z } from "zod";
import { differenceDays, type LocalDate, localDateSchema } from "../dates/index.ts";
import { dayRangeSchema, type ExpectedDay } from "../hours/index.ts";
import type { DueDay } from "../service/index.ts";

export const careReasons = [
  "question",
  "call-back",
  "first-contact",
  "break-in-ends",
  "service",
  "promise-late",
  "no-hours",
] as const;
export const careReasonSchema = z.strictObject({
  reason: z.enum(careReasons),
  /** One sentence of what it is about. */
  says: z.string(),
  /** The day that matters for it. */
  date: localDateSchema,
  /** Where that day is a forecast. */
  range: dayRangeSchema.nullable(),
  isAnyDay: z.boolean(),
  isOverdue: z.boolean(),
});
export type CareReason = z.infer<typeof careReasonSchema>;

/** What is known of a boat that has been handed over. */
export interface CareFacts {
  readonly inService: LocalDate;
  /** When its people were last written to or spoken with; null for not since the handover. */
  readonly lastContact: LocalDate | null;
  readonly engines: readonly {
    readonly label: string;
    readonly reportedOn: LocalDate | null;
    /** Hours likely run since they were last reported. */
    readonly unseenH: number;
    readonly breakInEnds: ExpectedDay | null;
    readonly isBreakInDone: boolean;
  }[];
  /** The next thing that falls due on the engines, seasons aside. */
  readonly next: {
    readonly scope: string;
    /** The engine's label, or that it is several. */
    readonly engine: string;
    readonly item: string;
    readonly title: string;
    readonly isFirst: boolean;
    readonly due: DueDay;
    /** Of that engine: the hours read last, when, and those likely now. */
    readonly reportedH: number;
    readonly reportedOn: LocalDate;
    readonly likelyNowH: number;
  } | null;
  readonly isBooked: boolean;
  readonly latePromises: readonly { readonly text: string; readonly due: LocalDate }[];
  /** What they asked and nobody answered yet. */
  readonly questions: readonly { readonly text: string; readonly since: LocalDate }[];
  /** When they want to be called, as they said. */
  readonly callBack: { readonly on: LocalDate; readonly note: string } | null;
}

/** A question that waits longer is overdue. */
const answerDays = 2;
const contactFromDays = 2;
const contactUntilDays = 21;
const breakInSoonDays = 7;
const breakInLateDays = 30;
const serviceSoonDays = 30;
/** Hours nobody has reported, from which it is worth asking; fewer while the limits of a break-in change by the hour. */
const unseenH = 12;
const unseenInBreakInH = 3;
const silentDays = 14;

/**
 * Why somebody should turn to this boat's people this week, the weightiest first, and how much it matters in all; nothing
 * for a boat that can be left alone. Weights are ours: who asks and who was told a
 * day comes first, then a missed first service and a broken promise. Who asked to be called later is left alone until then.
 */
export function rankCare(facts: CareFacts, today: LocalDate): { weight: number; reasons: CareReason[] } {
  const found: { weight: number; reason: CareReason }[] = [];
  const note = (
    weight: number,
    reason: CareReason["reason"],
    date: LocalDate,
    says: string,
    { isOverdue = date < today, range = null, isAnyDay = false }: Partial<CareReason> = {},
  ) => found.push({ weight, reason: { reason, says, date, range, isAnyDay, isOverdue } });
  for (const { text, since } of facts.questions.slice(0, 3)) {
    const days = differenceDays(today, since);
    note(120 + Math.min(20, days), "question", since, `They ask: ${text}`, { isOverdue: days > answerDays });
  }
  const { callBack } = facts;
  if (callBack !== null) {
    const days = differenceDays(today, callBack.on);
    // Until the day they named they are left alone, whatever falls due; a question of theirs still wants its answer.
    if (days < 0) note(1, "call-back", callBack.on, `Call back: ${callBack.note}`);
    else note(100 + Math.min(20, days), "call-back", callBack.on, `Call back: ${callBack.note}`);
    if (days < 0) return addUp(found);
  }
  const since = differenceDays(today, facts.inService);
  if (facts.lastContact === null && since >= contactFromDays && since <= contactUntilDays)
    note(70 + since, "first-contact", facts.inService, `Handed over ${since} days ago, not asked yet how it goes`, {
      isOverdue: since > 4,
    });
  for (const { text, due } of facts.latePromises.slice(0, 3))
    note(80 + Math.min(20, differenceDays(today, due)), "promise-late", due, `Promise overdue: ${text}`);
  const { next } = facts;
  if (next !== null && next.due.dueDate !== null && !facts.isBooked) {
    const { dueDate, range, isAnyDay, state } = next.due;
    const days = differenceDays(dueDate, today);
    const isOverdue = state === "overdue";
    // Soon by its hours counts too: in winter the day is far, and the yard has time.
    if (isOverdue || state === "soon" || days <= serviceSoonDays)
      note(
        (isOverdue ? 75 + Math.min(20, -days / 7) : 60 - Math.min(days, serviceSoonDays)) + (next.isFirst ? 10 : 0),
        "service",
        dueDate,
        isOverdue ? `${next.title} is ${range === null ? "" : "likely "}past due` : `${next.title} falls due`,
        { isOverdue, range, isAnyDay },
      );
  }
  const ends = facts.engines
    .flatMap(({ breakInEnds, isBreakInDone }) => (breakInEnds?.date == null || isBreakInDone ? [] : [breakInEnds]))
    .sort((a, b) => (a.date! < b.date! ? -1 : 1))[0];
  if (ends !== undefined) {
    const days = differenceDays(ends.date!, today);
    if (days <= breakInSoonDays && days >= -breakInLateDays)
      note(
        50 - Math.abs(days),
        "break-in-ends",
        ends.date!,
        days >= 0 ? "Break-in likely ends" : "Break-in has likely ended",
        ends.isAnyDay ? { range: ends.range, isAnyDay: true } : { range: ends.range },
      );
  }
  const isBreakingIn = facts.engines.some(({ isBreakInDone }) => !isBreakInDone);
  const reportedOn =
    facts.engines.flatMap((engine) => (engine.reportedOn === null ? [] : [engine.reportedOn])).sort()[0] ??
    facts.inService;
  const silent = differenceDays(today, reportedOn);
  const unseen = Math.max(0, ...facts.engines.map((engine) => engine.unseenH));
  if (silent > silentDays && unseen > (isBreakingIn ? unseenInBreakInH : unseenH))
    note(
      30 + Math.min(25, unseen),
      "no-hours",
      reportedOn,
      `No hours reported for ${silent} days; about ${Math.round(unseen)} h run since`,
      { isOverdue: false },
    );
  return addUp(found);
}

function addUp(found: readonly { readonly weight: number; readonly reason: CareReason }[]) {
  const sorted = [...found].sort((a, b) => b.weight - a.weight);
  return {
    // What comes second adds a little: two reasons to ring are better than one.
    weight: sorted.reduce((sum, { weight }, i) => sum + weight / 4 ** i, 0),
    reasons: sorted.map(({ reason }) => reason),
  };
}
