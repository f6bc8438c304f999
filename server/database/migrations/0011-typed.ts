import type { Query } from "../query.ts";

/** Fuel as it was typed, in a unit of the store's, beside its litres. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query("ALTER TABLE fills ADD COLUMN typed TEXT");
}
