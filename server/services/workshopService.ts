import type { Booking, WorkshopSheet } from "../../api/index.ts";
import { addDays, type LocalDate } from "../../core/dates/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { formatBuyers } from "../../core/walk/index.ts";
import {
  capacityOfDay,
  type ExpectedJob,
  flattenLoad,
  startOfWeek,
  sumLoad,
  type Workshop,
  weekOf,
} from "../../core/workshop/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { createSettings } from "../repositories/settings.ts";
import { contactOf } from "./contactOf.ts";
import type { FleetCare } from "./fleetCare.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly fleetCare: FleetCare;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

const pastDays = 14;

/** The workshop's year: what is expected, what is booked, and whom to offer an earlier slot. */
export function createWorkshopService({ database, boats, deliveries, bookings, fleetCare, settings, clock }: Parts) {
  return {
    async describe(): Promise<WorkshopSheet> {
      const today = clock.today();
      const [fleet, booked, { workshop, region }] = await Promise.all([
        fleetCare.read(),
        bookings.list(addDays(today, -pastDays)),
        settings.read(),
      ]);
      const firstDay = startOfWeek(today, region.weekStart);
      const coming = booked.filter(({ state, date }) => state === "booked" && date >= firstDay);
      const bookedBoats = new Set(coming.map(({ boat }) => boat));
      const isBooked = new Set(
        coming.flatMap(({ boat, items }) => items.map(({ scope, item }) => `${boat} ${scope} ${item}`)),
      );
      const jobs = coming.map((booking) => asJob(booking, firstDay));
      for (const { boat, jobs: expected } of fleet)
        for (const job of expected)
          if (!bookedBoats.has(boat.id) || !isBooked.has(`${job.boat} ${job.scope} ${job.item}`)) jobs.push(job);
      const weeks = sumLoad(jobs, today, workshop, region.weekStart);
      const boatOf = new Map(fleet.map(({ boat }) => [boat.id, boat]));
      const offers = flattenLoad(jobs, weeks);
      const sold = await deliveries.listOfBoats([...offers, ...booked].map(({ boat }) => boat));
      const buyersOf = new Map(sold.map(({ boatId, buyers }) => [boatId, formatBuyers(buyers)]));
      const name = <B extends { boat: string }>(each: B) => {
        const boat = boatOf.get(each.boat);
        const buyers = buyersOf.get(each.boat) ?? (boat === undefined ? "" : contactOf(boat).name);
        return { ...each, boatName: boat?.name ?? "", serial: serialOf(boat?.hull ?? ""), buyers };
      };
      return {
        date: today,
        engines: fleet.reduce((sum, { facts }) => sum + facts.engines.length, 0),
        workshop,
        weeks,
        offers: offers.map(name),
        bookings: booked.map(name),
      };
    },

    async setWorkshop(workshop: Workshop) {
      await settings.change({ workshop });
    },

    /** Books, moves, finishes or cancels. A slot on a day the workshop does not work is refused. */
    async set(booking: Omit<Booking, "by">, by: string) {
      const { workshop } = await settings.read();
      if (booking.state === "booked" && capacityOfDay(workshop, booking.date) === 0)
        throw new Failure("slot-closed", { path: "date", got: booking.date, why: closedWhy(workshop, booking.date) });
      await database.inTransaction(async (transaction) => {
        if ((await boats.find(booking.boat, transaction)) === null)
          throw new Failure("not-found", { what: "boat", id: booking.boat });
        const before = await bookings.find(booking.id, transaction);
        if (before !== null && before.boat !== booking.boat)
          throw new Failure("invalid-input", { issues: [{ path: "boat", message: "a slot stays with its boat" }] });
        await bookings.set({ ...booking, by }, clock.now(), transaction);
      });
    },
  };
}

export type WorkshopService = ReturnType<typeof createWorkshopService>;

const closedWhy = ({ closed }: Workshop, date: LocalDate) =>
  closed.find(({ from, to }) => from <= date && date <= to)?.why ?? "";

/** A slot as work that is sure to be there. */
function asJob({ boat, date, labourH, items }: Booking, firstDay: LocalDate): ExpectedJob {
  return {
    boat,
    scope: items[0]?.scope ?? "boat",
    item: items[0]?.item ?? "booked",
    title: items.map(({ title }) => title).join(", "),
    kind: "booked",
    labourH,
    dueDate: date,
    range: null,
    isAnyDay: false,
    earliest: date,
    firstWeek: weekOf(date, firstDay),
    chances: [1],
  };
}
