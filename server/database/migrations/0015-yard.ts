import type { Query } from "../query.ts";

/** What a yard calls a boat (stock number, color), when its people asked to be called back, until when
 * its gear is good, and what went into a service. */
export async function up(sequelize: Query): Promise<void> {
  for (const column of ["stock", "color", "callBack"])
    await sequelize.query(`ALTER TABLE boats ADD COLUMN ${column} TEXT NOT NULL DEFAULT ''`);
  await sequelize.query("ALTER TABLE boats ADD COLUMN gearDates TEXT NOT NULL DEFAULT '{}'");
  for (const column of ["parts", "mechanic"])
    await sequelize.query(`ALTER TABLE services ADD COLUMN ${column} TEXT NOT NULL DEFAULT ''`);
  await sequelize.query("ALTER TABLE services ADD COLUMN labourH REAL");
}
