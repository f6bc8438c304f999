import type { LocalDate } from "../../core/dates/index.ts";
import type { WithdrawalRow, WithdrawnKind } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

/** A reading, fill, service or run as it was entered, withdrawn or not. */
export interface Entered {
  readonly boatId: string;
  readonly engine: string | null;
  readonly date: LocalDate;
  readonly by: string;
  /** Hours on the meter, litres, hours at the service; null of a run. */
  readonly amount: number | null;
  /** The item of a service; the file of a run. */
  readonly what: string | null;
}

/** What was entered wrong about the care of a boat: it stays, with why it no longer counts. */
export function createWithdrawals({ models }: Database) {
  const readers: Record<WithdrawnKind, (id: string, t?: Transaction) => Promise<Entered | null>> = {
    async reading(id, t) {
      const row = await readOne(models.readings, id, t);
      return row && { ...row, amount: row.hours, what: null };
    },
    async fill(id, t) {
      const row = await readOne(models.fills, id, t);
      return row && { ...row, engine: null, amount: row.litres, what: null };
    },
    async service(id, t) {
      const row = await readOne(models.services, id, t);
      return row && { ...row, amount: row.hours, what: row.item };
    },
    async run(id, t) {
      const row = await readOne(models.runs, id, t);
      return (
        row && { boatId: row.boatId, engine: row.engine, date: row.date, by: row.by, amount: null, what: row.fileName }
      );
    },
  };
  return {
    /** What was entered under an id, whether it counts or not; null for nothing. */
    find: (kind: WithdrawnKind, id: string, t?: Transaction) => readers[kind](id, t),
    async has(kind: WithdrawnKind, id: string, transaction: Transaction): Promise<boolean> {
      return (await models.withdrawals.count({ where: { kind, id }, transaction })) > 0;
    },
    async add(row: WithdrawalRow, transaction: Transaction) {
      await models.withdrawals.create(row, { transaction });
    },
    /** Of one boat, the last first, each with what it was. */
    async listOf(boatId: string): Promise<(WithdrawalRow & { readonly entered: Entered })[]> {
      const rows = await readAll(models.withdrawals, { where: { boatId }, order: [["at", "DESC"]] });
      return Promise.all(rows.map(async (row) => ({ ...row, entered: (await readers[row.kind](row.id))! })));
    },
  };
}

export type Withdrawals = ReturnType<typeof createWithdrawals>;
