import type { Query } from "../query.ts";

/** What a yard calls a boat (stock number, color), and when its people asked to be called back. */
export async function up(sequelize: Query): Promise<void> {
  for (const column of ["stock", "color", "callBack"])
    await sequelize.query(`ALTER TABLE boats ADD COLUMN ${column} TEXT NOT NULL DEFAULT ''`);
}
