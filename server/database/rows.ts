import { type FindOptions, type Model, type ModelStatic, QueryTypes, type Transaction } from "sequelize";

type Table<R extends object> = ModelStatic<Model<R, R>>;

/** Rows as plain records, without Sequelize's objects around them: those are what a read spends its time on. */
export async function readAll<R extends object>(
  table: Table<R>,
  options: FindOptions<R>,
  transaction?: Transaction,
): Promise<R[]> {
  const rows = await table.findAll({ ...options, raw: true, ...(transaction === undefined ? {} : { transaction }) });
  return rows as unknown as R[];
}

/** The row of a primary key, or null. */
export async function readOne<R extends object>(
  table: Table<R>,
  key: string,
  transaction?: Transaction,
): Promise<R | null> {
  const row = await table.findByPk(key, { raw: true, ...(transaction === undefined ? {} : { transaction }) });
  return row as unknown as R | null;
}

/** The rows of a question in SQL, on the database of `table`, for what Sequelize cannot ask: JSON inside a column. */
export async function readQuery<R extends object>(
  table: ModelStatic<Model>,
  sql: string,
  replacements: unknown[] = [],
  transaction?: Transaction,
): Promise<R[]> {
  const inside = transaction === undefined ? {} : { transaction };
  return table.sequelize!.query<R>(sql, { type: QueryTypes.SELECT, replacements, ...inside });
}
