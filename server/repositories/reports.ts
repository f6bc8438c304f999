import type { LocalDate } from "../../core/dates/index.ts";
import type { OwedEntry } from "../../core/reports/index.ts";
import type { PlanOptions } from "../../core/route/index.ts";
import type { Database } from "../database/open.ts";
import { readQuery } from "../database/rows.ts";

/** Two years up to a day, the second of which begins on `turn`. */
export interface Span {
  readonly from: LocalDate;
  readonly turn: LocalDate;
  readonly to: LocalDate;
}

export interface TaughtRow extends Pick<PlanOptions, "people" | "experience"> {
  readonly boat: string;
  readonly topic: string;
  readonly by: string;
  readonly isLastYear: number;
  readonly handovers: number;
  readonly later: number;
  /** Of how many the minutes are known, their sum and the sum of their squares. */
  readonly n: number;
  readonly sumMin: number;
  readonly sumOfSquares: number;
}

/** A tablet that lay open over lunch taught nobody for so long. Seconds. */
const mostSpentS = 1800;
/** Handovers of these two years, with which of them. */
const walked = `walked AS (
  SELECT id, boatId, date < ? AS isLastYear, json_extract(wishes, '$.people') AS people,
    json_extract(wishes, '$.experience') AS experience
  FROM deliveries WHERE date >= ? AND date <= ?)`;
const valuesOf = ({ from, turn, to }: Span) => [turn, from, to];

/** What reports are counted from, already added up by the database: of a hundred thousand marks a few hundred rows come out. */
export function createReportTables({ models }: Database) {
  const read = <R extends object>(sql: string, values: readonly unknown[]) =>
    readQuery<R>(models.entries, sql, [...values]);
  return {
    /**
     * Topics as handovers went through them, alike ones added up: by what the boat is called, by whom, with how many of what
     * experience. Of each group how many handovers, how many of them left the topic put off, and the minutes of the others.
     */
    listTaught(span: Span): Promise<TaughtRow[]> {
      return read<TaughtRow>(
        `WITH ${walked}, taught AS (
           SELECT deliveryId, topic, mark, by, MAX(number),
             MIN(SUM(CASE WHEN mark IN ('told', 'shown', 'did') THEN spentS END), ${mostSpentS}) / 60.0 AS min
           FROM (SELECT deliveryId, number, body ->> '$.topic' AS topic, body ->> '$.mark' AS mark, body ->> '$.by' AS by,
               body ->> '$.spentS' AS spentS
             FROM entries JOIN walked ON walked.id = deliveryId WHERE body ->> '$.kind' = 'mark')
           GROUP BY deliveryId, topic)
         SELECT boats.name AS boat, topic, by, people, experience, isLastYear, COUNT(*) AS handovers,
           SUM(mark = 'later') AS later, SUM(min > 0) AS n, COALESCE(SUM(min), 0) AS sumMin,
           COALESCE(SUM(min * min), 0) AS sumOfSquares
         FROM taught JOIN walked ON walked.id = deliveryId JOIN boats ON boats.id = walked.boatId
         GROUP BY boat, topic, by, people, experience, isLastYear`,
        valuesOf(span),
      );
    },
    /** Musts that were left undone at a closing that was sealed here, and what was said of it. A later reason stands for an earlier one. */
    listReasons(span: Span): Promise<{ topic: string; reason: string; isLastYear: number; k: number }[]> {
      return read(
        `WITH ${walked}, last AS (
           SELECT deliveryId, json_extract(body, '$.topic') AS topic, json_extract(body, '$.reason') AS reason, MAX(number)
           FROM entries JOIN walked ON walked.id = deliveryId
           WHERE json_extract(body, '$.kind') = 'reason'
             AND deliveryId IN (SELECT deliveryId FROM chain WHERE kind = 'handover') GROUP BY deliveryId, topic)
         SELECT topic, reason, isLastYear, COUNT(*) AS k FROM last JOIN walked ON walked.id = deliveryId
         GROUP BY topic, reason, isLastYear ORDER BY k DESC, reason`,
        valuesOf(span),
      );
    },
    /** Handovers of these years, with what their boat is called and, of signed ones, what was never reached. */
    async listHandovers(span: Span) {
      const rows = await read<{
        delivery: string;
        boat: string;
        date: LocalDate;
        isLastYear: number;
        isSigned: number;
        unreached: string | null;
      }>(
        `WITH ${walked}
         SELECT walked.id AS delivery, boats.name AS boat, date, isLastYear,
           summary ->> '$.state' = 'signed' AS isSigned, summary -> '$.unreached' AS unreached
         FROM walked JOIN deliveries ON deliveries.id = walked.id JOIN boats ON boats.id = walked.boatId`,
        valuesOf(span),
      );
      return rows.map(({ isLastYear, isSigned, unreached, ...row }) => ({
        ...row,
        isLastYear: isLastYear === 1,
        isSigned: isSigned === 1,
        unreached: unreached === null ? null : (JSON.parse(unreached) as string[]),
      }));
    },
    /** What is owed in handovers of these years, with all that ends it, and calls, in the order in which they came. */
    async listOwed(span: Span): Promise<OwedEntry[]> {
      const rows = await read<Omit<OwedEntry, "isNote"> & { isNote: number }>(
        `WITH ${walked}, owed AS MATERIALIZED (
           SELECT number, id, deliveryId, body FROM entries
           WHERE json_extract(body, '$.kind') IN ('assign', 'call', 'promise', 'settle', 'snag', 'undo'))
         SELECT owed.id AS id, deliveryId AS delivery, body ->> '$.kind' AS kind, body ->> '$.at' AS at,
           COALESCE(body ->> '$.corrects', body ->> '$.ref') AS ref, body ->> '$.due' AS due, body ->> '$.topic' AS topic,
           COALESCE(body ->> '$.how', '') = 'note' AND NOT COALESCE(body ->> '$.stops', 0) AS isNote
         FROM owed JOIN walked ON walked.id = deliveryId ORDER BY number`,
        valuesOf(span),
      );
      return rows.map((row) => ({ ...row, isNote: row.isNote === 1 }));
    },
    /** Hours that were booked in the workshop and not cancelled, by day. */
    listBooked({ from, to }: Span): Promise<{ date: LocalDate; hours: number }[]> {
      return read(
        `SELECT date, SUM(labourH) AS hours FROM bookings WHERE state <> 'cancelled' AND date >= ? AND date <= ?
         GROUP BY date ORDER BY date`,
        [from, to],
      );
    },
    /** How many handovers were closed in each of the years. */
    async countClosed(span: Span): Promise<{ now: number; before: number }> {
      const rows = await read<{ isLastYear: number; n: number }>(
        `WITH ${walked} SELECT isLastYear, COUNT(DISTINCT walked.id) AS n
         FROM walked JOIN chain ON chain.deliveryId = walked.id AND chain.kind = 'handover' GROUP BY isLastYear`,
        valuesOf(span),
      );
      const of = (year: number) => rows.find(({ isLastYear }) => isLastYear === year)?.n ?? 0;
      return { now: of(0), before: of(1) };
    },
    /** Runs that were logged, by the month the boat was handed over in, and how many of them kept to the break-in. */
    listRuns({ from, to }: Span): Promise<{ month: string; k: number; n: number; boats: number }[]> {
      return read(
        `SELECT substr(inService, 1, 7) AS month, SUM(json_array_length(verdict, '$.breaches') = 0) AS k, COUNT(*) AS n,
           COUNT(DISTINCT boatId) AS boats
         FROM runs JOIN boats ON boats.id = runs.boatId
         WHERE inService >= ? AND inService <= ? AND runs.id NOT IN (SELECT id FROM withdrawals WHERE kind = 'run')
         GROUP BY month ORDER BY month`,
        [from, to],
      );
    },
  };
}
export type ReportTables = ReturnType<typeof createReportTables>;
