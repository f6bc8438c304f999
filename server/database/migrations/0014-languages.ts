import type { Query } from "../query.ts";

/** What each of the staff reads: topics in their language, as far as somebody has translated them. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query("ALTER TABLE users ADD COLUMN language TEXT NOT NULL DEFAULT 'en'");
}
