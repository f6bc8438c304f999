import type { Query } from "../query.ts";

const raise = (id: string) => `INSERT INTO versions (kind, id, number)
    VALUES ('handover', ${id}, (SELECT COALESCE(MAX(number), 0) + 1 FROM versions))
    ON CONFLICT (kind, id) DO UPDATE SET number = excluded.number;`;

/** Any change of a handover's own row (calendars know only what moves it) raises a version: what is known of a walk holds until one of them goes up. */
export async function up(sequelize: Query): Promise<void> {
  for (const event of ["INSERT", "UPDATE", "DELETE"] as const)
    await sequelize.query(
      `CREATE TRIGGER deliveries_handover_${event.toLowerCase()} AFTER ${event} ON deliveries
        BEGIN ${raise(event === "DELETE" ? "OLD.id" : "NEW.id")} END`,
    );
  await sequelize.query(
    `INSERT INTO versions (kind, id, number)
      SELECT 'handover', id, (SELECT COALESCE(MAX(number), 0) FROM versions) + ROW_NUMBER() OVER (ORDER BY id) FROM deliveries`,
  );
}
