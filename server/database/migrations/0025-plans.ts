import type { Query } from "../query.ts";

/** What is asked often is found by an index: what is owed in the order of its handovers, and what grows by what it belongs to. */
export async function up(sequelize: Query): Promise<void> {
  await sequelize.query("DROP INDEX deliveries_waiting");
  for (const index of [
    // In the order they are listed in: by another order every handover would be looked through.
    "CREATE INDEX deliveries_waiting ON deliveries(date, time, id) WHERE json_extract(NULLIF(summary, ''), '$.waits') IS NOT NULL",
    "CREATE INDEX deliveries_owing ON deliveries(date, time, id) WHERE owed > 0",
    "CREATE INDEX outbox_state ON outbox(state)",
    "CREATE INDEX bookings_boat ON bookings(boatId)",
    "CREATE INDEX chain_sha ON chain(sha256)",
    "CREATE INDEX contents_delivery ON contents(deliveryId)",
  ])
    await sequelize.query(index);
}
