import type { Query } from "../query.ts";

/** What is owed says which message was written of it last, not only when: the rows of those that had one are summed up anew. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query(`UPDATE deliveries SET summary = '' WHERE summary LIKE '%"toldAt":"%'`);
  await sequelize.query(
    `UPDATE deliveries SET summary = replace(summary, '"toldAt":null', '"message":null') WHERE owed > 0`,
  );
}
