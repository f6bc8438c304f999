import type { Query } from "../query.ts";

/** Closed handovers that wait for somebody, found among all handovers without reading the others. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query(
    "CREATE INDEX deliveries_waiting ON deliveries(id) WHERE json_extract(NULLIF(summary, ''), '$.waits') IS NOT NULL",
  );
}
