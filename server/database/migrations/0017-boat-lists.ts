import type { Query } from "../query.ts";

const raise = (row: string) => `INSERT INTO versions (kind, id, number)
  VALUES ('boat', ${row}.boatId, (SELECT COALESCE(MAX(number), 0) + 1 FROM versions))
  ON CONFLICT (kind, id) DO UPDATE SET number = excluded.number;`;
const isOther = ["boatId", "date", "time", "buyers", "owed"].map((column) => `OLD.${column} IS NOT NEW.${column}`);

/** A boat's version goes up too with whom it is handed to, when, and how much is owed: the list of boats is made from that. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query(`CREATE TRIGGER deliveries_boat_insert AFTER INSERT ON deliveries BEGIN ${raise("NEW")} END`);
  await sequelize.query(`CREATE TRIGGER deliveries_boat_delete AFTER DELETE ON deliveries BEGIN ${raise("OLD")} END`);
  // Most writes of a handover are marks, and change none of it.
  await sequelize.query(`CREATE TRIGGER deliveries_boat_update AFTER UPDATE ON deliveries
    WHEN ${isOther.join(" OR ")} BEGIN ${raise("OLD")} ${raise("NEW")} END`);
}
