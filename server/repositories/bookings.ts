import { Op } from "sequelize";
import type { Booking } from "../../api/index.ts";
import type { Instant } from "../../core/dates/index.ts";
import type { BookingRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

/** Slots in the workshop. */
export function createBookings({ models }: Database) {
  const toBooking = ({ boatId, items, at: _, ...row }: BookingRow): Booking =>
    ({ ...row, boat: boatId, items: JSON.parse(items) }) as Booking;
  return {
    async find(id: string, transaction?: Transaction): Promise<Booking | null> {
      const row = await readOne(models.bookings, id, transaction);
      return row === null ? null : toBooking(row);
    },
    async listOf(boatIds: readonly string[], transaction?: Transaction): Promise<Booking[]> {
      const where = { boatId: { [Op.in]: [...boatIds] } };
      return (await readAll(models.bookings, { where, order: ["date", "startMin"] }, transaction)).map(toBooking);
    },
    /** Slots from a day on that were not cancelled, the first first; all there ever were without a day. */
    async list(from?: string): Promise<Booking[]> {
      const where = from === undefined ? {} : { date: { [Op.gte]: from }, state: { [Op.ne]: "cancelled" } };
      return (await readAll(models.bookings, { where, order: ["date", "startMin"] })).map(toBooking);
    },
    async set({ boat, items, ...booking }: Booking, at: Instant, transaction: Transaction) {
      await models.bookings.upsert({ ...booking, boatId: boat, items: JSON.stringify(items), at }, { transaction });
    },
  };
}

export type Bookings = ReturnType<typeof createBookings>;
