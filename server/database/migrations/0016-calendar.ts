import type { Query } from "../query.ts";

/** Which columns, once changed, make another event in a calendar. */
const dated = {
  deliveries: "date, time, buyers, boatId",
  bookings: "date, startMin, labourH, items, note, state, boatId",
};

/** Handovers and slots have a number too that goes up when they are moved: calendars know by it which of two is newer. */
export async function up(sequelize: Query): Promise<void> {
  for (const [table, columns] of Object.entries(dated))
    for (const event of ["INSERT", `UPDATE OF ${columns}`])
      await sequelize.query(`CREATE TRIGGER ${table}_version_${event.split(" ")[0]!.toLowerCase()} AFTER ${event} ON ${table}
        BEGIN INSERT INTO versions (kind, id, number)
          VALUES ('${table}', NEW.id, (SELECT COALESCE(MAX(number), 0) + 1 FROM versions))
          ON CONFLICT (kind, id) DO UPDATE SET number = excluded.number; END`);
}
