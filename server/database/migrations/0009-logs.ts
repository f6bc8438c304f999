import type { Query } from "../query.ts";

/** What was struck from a delivery, by the number that says so; entries are read on from the last that is known. */
const raise = `INSERT INTO versions (kind, id, number)
    VALUES ('struck', NEW.deliveryId, (SELECT COALESCE(MAX(number), 0) + 1 FROM versions))
    ON CONFLICT (kind, id) DO UPDATE SET number = excluded.number;`;

/** Strikes raise a version; the entries of a delivery that came after one are found at once. */
export async function up(sequelize: Query): Promise<void> {
  for (const table of ["entries", "contents"])
    await sequelize.query(`CREATE TRIGGER ${table}_version_update AFTER UPDATE ON ${table} BEGIN ${raise} END`);
  await sequelize.query("CREATE INDEX entries_delivery_number ON entries(deliveryId, number)");
  await sequelize.query("DROP INDEX entries_delivery");
}
