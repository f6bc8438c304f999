import type { Query } from "../query.ts";

/** By how much the clock of the device that sent an entry was behind the server's then; null where it did not say. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query("ALTER TABLE entries ADD COLUMN offsetMs INTEGER");
}
