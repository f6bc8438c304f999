import type { Query } from "../query.ts";

/**
 * What proves a PIN: the public half of the key it unlocks on its tablet. Who is on a shared tablet signs in once more, for the server knows
 * nothing yet of the PIN they have there.
 */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query("ALTER TABLE sessions ADD COLUMN pinKey TEXT");
  await sequelize.query("DELETE FROM sessions WHERE deviceId IS NOT NULL");
}
