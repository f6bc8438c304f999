import type { Query } from "../query.ts";

const statements = [
  // Fuel put into a boat, from which its burn is measured; isFull: 1 when the tanks were full then, else 0.
  "CREATE TABLE fills (id TEXT PRIMARY KEY, boatId TEXT NOT NULL, date TEXT NOT NULL, litres REAL NOT NULL, isFull INTEGER NOT NULL, by TEXT NOT NULL)",
  "CREATE INDEX fillsOfBoat ON fills (boatId, date)",
];

/** What a boat burns is measured from the fuel it takes. */
export async function up(sequelize: Query): Promise<void> {
  for (const statement of statements) await sequelize.query(statement);
}
