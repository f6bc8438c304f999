import { addDays, type Instant, type LocalDate } from "../dates/index.ts";
import { type Estimate, estimateMedian, estimateRate, estimateShare } from "./interval.ts";
import { type Counted, reportShares, type ShareLine } from "./shares.ts";

/** An entry about something owed, or a call; what is not of its kind is null. */
export interface OwedEntry {
  readonly id: string;
  readonly delivery: string;
  readonly kind: "snag" | "promise" | "assign" | "settle" | "undo" | "call";
  readonly at: Instant;
  /** What it settles, assigns or takes back; of a snag the one it puts right. */
  readonly ref: string | null;
  readonly due: LocalDate | null;
  readonly topic: string | null;
  /** A snag that is no more than a note. */
  readonly isNote: boolean;
}

/** Something owed from first to last. */
export interface OwedTale {
  readonly id: string;
  readonly delivery: string;
  readonly kind: "snag" | "promise";
  readonly at: Instant;
  readonly due: LocalDate | null;
  readonly settledAt: Instant | null;
}

/** Each snag and promise with what became of it. Entries in the order in which they came; what was taken back is gone. */
export function tellOwed(entries: readonly OwedEntry[]): OwedTale[] {
  const undone = new Set(entries.flatMap(({ kind, ref }) => (kind === "undo" ? [ref] : [])));
  const tales = new Map<string, { -readonly [K in keyof OwedTale]: OwedTale[K] } & { isNote: boolean }>();
  for (const { id, delivery, kind, at, ref, due, isNote } of entries) {
    if (undone.has(id)) continue;
    const of = ref === null ? undefined : tales.get(ref);
    if (kind === "snag" && of !== undefined) Object.assign(of, { due, isNote });
    else if (kind === "snag" || kind === "promise")
      tales.set(id, { id, delivery, kind, at, due, settledAt: null, isNote });
    else if (kind === "assign" && of !== undefined) of.due = due;
    else if (kind === "settle" && of !== undefined) of.settledAt ??= at;
  }
  return [...tales.values()].filter(({ isNote }) => !isNote).map(({ isNote: _, ...tale }) => tale);
}

/** Calls that were not taken back. */
export function listCalls(entries: readonly OwedEntry[]): OwedEntry[] {
  const undone = new Set(entries.flatMap(({ kind, ref }) => (kind === "undo" ? [ref] : [])));
  return entries.filter(({ kind, id }) => kind === "call" && !undone.has(id));
}

export const promiseFates = ["kept", "late", "open"] as const;
export type PromiseFate = (typeof promiseFates)[number];

/** Kept: done by its day, or done where no day was named. Late: done after its day, or its day is past. Open: still to come. */
export function judgePromise(
  { due, settledOn }: { readonly due: LocalDate | null; readonly settledOn: LocalDate | null },
  today: LocalDate,
): PromiseFate {
  if (settledOn !== null) return due === null || settledOn <= due ? "kept" : "late";
  return due !== null && due < today ? "late" : "open";
}

/** A handover of these two years, for what is counted over handovers. */
export interface Counting {
  readonly delivery: string;
  /** What boats like it are called. */
  readonly boat: string;
  readonly date: LocalDate;
  readonly isLastYear: boolean;
}

export interface SnagLine extends ShareLine {
  /** Days from finding to mending, the middle one, of those mended. */
  readonly days: Estimate | null;
  readonly daysBefore: Estimate | null;
  /** Not mended yet, of this year's. */
  readonly open: number;
}
const dayMs = 86_400_000;

/** Handovers with a snag and days to mend, by what the boat is called: the surest large shares first. */
export function reportSnags(handovers: readonly Counting[], tales: readonly OwedTale[]): SnagLine[] {
  const byDelivery = new Map(handovers.map((each) => [each.delivery, each]));
  const lines = new Map<string, Counted>();
  const days = new Map<string, { now: number[]; before: number[]; open: number }>();
  const snags = tales.filter(({ kind, delivery }) => kind === "snag" && byDelivery.has(delivery));
  const withSnag = new Set(snags.map(({ delivery }) => delivery));
  for (const { delivery, boat, isLastYear } of handovers) {
    const line = lines.get(boat) ?? { id: boat, k: 0, n: 0, kBefore: 0, nBefore: 0 };
    const k = withSnag.has(delivery) ? 1 : 0;
    lines.set(
      boat,
      isLastYear
        ? { ...line, kBefore: line.kBefore + k, nBefore: line.nBefore + 1 }
        : { ...line, k: line.k + k, n: line.n + 1 },
    );
  }
  for (const { delivery, at, settledAt } of snags) {
    const { boat, isLastYear } = byDelivery.get(delivery)!;
    const list = days.get(boat) ?? { now: [], before: [], open: 0 };
    days.set(boat, list);
    if (settledAt !== null)
      list[isLastYear ? "before" : "now"].push(Math.max(0, (Date.parse(settledAt) - Date.parse(at)) / dayMs));
    else if (!isLastYear) list.open++;
  }
  return reportShares([...lines.values()]).map((line) => {
    const of = days.get(line.id);
    return {
      ...line,
      days: estimateMedian(of?.now ?? []),
      daysBefore: estimateMedian(of?.before ?? []),
      open: of?.open ?? 0,
    };
  });
}

/** So long after a handover a call counts as about it. Days. */
export const callDays = 90;

export interface Call {
  readonly delivery: string;
  readonly topic: string | null;
  readonly on: LocalDate;
}
export interface CallReport {
  /** By month of the handover; `isOver`: all of that month's handovers have had their 90 days. */
  readonly months: readonly {
    readonly month: string;
    readonly calls: number;
    readonly handovers: number;
    readonly isOver: boolean;
  }[];
  /** Calls a handover, of those that have had their 90 days. */
  readonly now: Estimate | null;
  readonly before: Estimate | null;
  readonly topics: readonly (Counted & { readonly now: Estimate | null; readonly before: Estimate | null })[];
}

/** Calls in the first 90 days after a handover, by the month of the handover and by what they were about. */
export function reportCalls(
  handovers: readonly Counting[],
  calls: readonly Call[],
  months: readonly string[],
  today: LocalDate,
): CallReport {
  const byDelivery = new Map(handovers.map((each) => [each.delivery, each]));
  const isOver = (date: LocalDate) => addDays(date, callDays) < today;
  const counted = calls.flatMap((call) => {
    const handover = byDelivery.get(call.delivery);
    return handover === undefined || call.on > addDays(handover.date, callDays) ? [] : [{ ...call, handover }];
  });
  const over = handovers.filter(({ date }) => isOver(date));
  const ofYear = (isLastYear: boolean) => over.filter((each) => each.isLastYear === isLastYear).length;
  const [n, nBefore] = [ofYear(false), ofYear(true)];
  const settled = counted.filter(({ handover }) => isOver(handover.date));
  const tally = (list: typeof settled, isLastYear: boolean) =>
    list.filter(({ handover }) => handover.isLastYear === isLastYear).length;
  const topics = [...new Set(settled.flatMap(({ topic }) => topic ?? []))].map((id) => {
    const about = settled.filter(({ topic }) => topic === id);
    const [k, kBefore] = [tally(about, false), tally(about, true)];
    return { id, k, n, kBefore, nBefore, now: estimateRate(k, n), before: estimateRate(kBefore, nBefore) };
  });
  return {
    months: months.map((month) => {
      const sold = handovers.filter(({ date }) => date.startsWith(month));
      return {
        month,
        calls: counted.filter(({ handover }) => handover.date.startsWith(month)).length,
        handovers: sold.length,
        isOver: sold.every(({ date }) => isOver(date)),
      };
    }),
    now: estimateRate(tally(settled, false), n),
    before: estimateRate(tally(settled, true), nBefore),
    topics: topics.sort((a, b) => b.k - a.k || (a.id < b.id ? -1 : 1)),
  };
}

/** Promises by the month they were made in, and the share kept of those no longer open. */
export function reportPromises(
  promises: readonly { readonly madeOn: LocalDate; readonly isLastYear: boolean; readonly fate: PromiseFate }[],
  months: readonly string[],
) {
  const shareOf = (isLastYear: boolean) => {
    const over = promises.filter((each) => each.isLastYear === isLastYear && each.fate !== "open");
    return estimateShare(over.filter(({ fate }) => fate === "kept").length, over.length);
  };
  const countOf = (month: string, fate: PromiseFate) =>
    promises.filter((each) => each.fate === fate && each.madeOn.startsWith(month)).length;
  return {
    months: months.map((month) => ({
      month,
      kept: countOf(month, "kept"),
      late: countOf(month, "late"),
      open: countOf(month, "open"),
    })),
    now: shareOf(false),
    before: shareOf(true),
  };
}
