import type { Query } from "../query.ts";

/** What a boat is towed with, and how its launches went: nothing that its care is worked out from. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query(
    "CREATE TABLE towing (boatId TEXT PRIMARY KEY REFERENCES boats(id), vehicle TEXT, launches TEXT NOT NULL)",
  );
}
