import type { Booking, WorkshopSheet, WorkshopWeek } from "../../api/index.ts";
import { addDays, type LocalDate } from "../../core/dates/index.ts";
import {
  capacityOfDay,
  chanceIn,
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
import type { FleetCare } from "./fleetCare.ts";
import { nameBoats } from "./nameBoat.ts";

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
/** Boats listed of one week, and hours below which a boat makes none of it. */
const mostOfWeek = 40;
const leastH = 0.05;

/** The workshop's year: what is expected, what is booked, and whom to offer an earlier slot. */
export function createWorkshopService(parts: Parts) {
  const { database, boats, bookings, fleetCare, settings, clock } = parts;
  /** All work there is to come: what is booked, and what is expected and not booked yet. */
  const readJobs = async () => {
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
    return { today, fleet, booked, workshop, region, firstDay, jobs };
  };
  return {
    async describeWeek(begins: LocalDate): Promise<WorkshopWeek> {
      const { firstDay, jobs } = await readJobs();
      const week = weekOf(begins, firstDay);
      const made = new Map<string, { expectedH: number; titles: Set<string>; isBooked: boolean }>();
      for (const job of begins < firstDay ? [] : jobs) {
        const expectedH = chanceIn(job, week) * job.labourH;
        if (expectedH < leastH) continue;
        const before = made.get(job.boat) ?? { expectedH: 0, titles: new Set(), isBooked: false };
        before.titles.add(job.title);
        made.set(job.boat, {
          expectedH: before.expectedH + expectedH,
          titles: before.titles,
          isBooked: before.isBooked || job.kind === "booked",
        });
      }
      const sorted = [...made].sort(([a, one], [b, other]) => other.expectedH - one.expectedH || (a < b ? -1 : 1));
      const shown = sorted.slice(0, mostOfWeek);
      const name = await nameBoats(
        parts,
        shown.map(([boat]) => boat),
      );
      return {
        boats: shown.map(([boat, { titles, ...rest }]) => ({ boat, titles: [...titles], ...rest, ...name(boat) })),
        more: sorted.length - shown.length,
      };
    },

    async describe(): Promise<WorkshopSheet> {
      const { today, fleet, booked, workshop, region, jobs } = await readJobs();
      const weeks = sumLoad(jobs, today, workshop, region.weekStart);
      const offers = flattenLoad(jobs, weeks);
      const name = await nameBoats(
        parts,
        [...offers, ...booked].map(({ boat }) => boat),
      );
      const addNames = <B extends { boat: string }>(each: B) => ({ ...each, ...name(each.boat) });
      return {
        date: today,
        engines: fleet.reduce((sum, { facts }) => sum + facts.engines.length, 0),
        workshop,
        weeks,
        offers: offers.map(addNames),
        bookings: booked.map(addNames),
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
