import { createHash, randomBytes } from "node:crypto";
import { listScopes, readEngineStatus } from "../../core/care/index.ts";
import { msAt } from "../../core/dates/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { type DueDay, listDue } from "../../core/service/index.ts";
import { headOf, sayNumber, sayTyped } from "../../core/units/index.ts";
import { formatBuyers } from "../../core/walk/index.ts";
import { type CalendarEvent, writeCalendar } from "../calendar.ts";
import type { Clock } from "../clock.ts";
import { writeCsv } from "../csv.ts";
import { Failure } from "../failure.ts";
import type { Messages } from "../messages.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Runs } from "../repositories/runs.ts";
import type { createSettings } from "../repositories/settings.ts";
import { type CareReader, toFill } from "./careReader.ts";
import type { FleetCare } from "./fleetCare.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly runs: Runs;
  readonly messages: Messages;
  readonly careReader: CareReader;
  readonly fleetCare: FleetCare;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

export type CareTable = "readings" | "fills" | "services" | "runs" | "bookings" | "messages";
const hashToken = (token: string) => createHash("sha256").update(token).digest("hex");
const tokenBytes = 16;
const handoverMin = 120;
/** How a day in a calendar is to be taken: until when it may be, and by what. */
const explainDue = ({ targetH, calendarDate, range, state }: DueDay): string => {
  const by = [
    ...(targetH === null ? [] : [`at ${targetH} h`]),
    ...(calendarDate === null ? [] : [`by ${calendarDate}`]),
  ].join(" or ");
  const likely = range === null ? "" : ` Likely between ${range.from} and ${range.to ?? "later"}.`;
  return `${state === "overdue" ? "Overdue: due" : "Due"} ${by}${by.includes(" or ") ? ", whichever comes first" : ""}.${likely}`;
};
const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));

/** Calendars and tables of the months after, on their way out. */
export function createCalendarService(parts: Parts) {
  const { settings, clock } = parts;
  return {
    async writeBoat(id: string): Promise<string> {
      const boat = await get(parts, id);
      const events = [...(await milestones(parts, boat)), ...(await bookingEvents(parts, [id]))];
      return writeCalendar(`${boat.name}, service`, events, clock.nowMs());
    },

    async makeFeed(): Promise<string> {
      const token = randomBytes(tokenBytes).toString("base64url");
      await settings.change({ feedHash: hashToken(token) });
      return token;
    },

    writeFeed: (token: string) => writeFeed(parts, token),

    async writeCsv(what: CareTable): Promise<string> {
      return writeCsv(await readTable(parts, what));
    },
    async writeJson(): Promise<object> {
      const tables: CareTable[] = ["readings", "fills", "services", "runs", "bookings", "messages"];
      return Object.fromEntries(
        await Promise.all(tables.map(async (what) => [what, await readTable(parts, what)] as const)),
      );
    },
  };
}

export type CalendarService = ReturnType<typeof createCalendarService>;

async function bookingEvents(parts: Parts, ids: readonly string[] | null): Promise<CalendarEvent[]> {
  const { boats, bookings, clock } = parts;
  const all = ids === null ? await bookings.list(clock.today()) : await bookings.listOf(ids);
  const names = new Map((await boats.findMany(all.map(({ boat }) => boat))).entries());
  return all
    .filter(({ state }) => state === "booked")
    .map(({ id, boat, date, startMin, labourH, items, note }) => ({
      uid: `booking-${id}@ravik`,
      sequence: 0,
      title: `${names.get(boat)?.name ?? "Boat"}: ${items.map(({ title }) => title).join(", ") || "workshop"}`,
      says: note,
      when: { fromMs: msAt(date, startMin, clock.timeZone), minutes: Math.max(15, Math.round(labourH * 60)) },
    }));
}

/** The next of each thing that falls due on a boat, as days. */
async function milestones({ careReader, settings }: Parts, boat: BoatRecord): Promise<CalendarEvent[]> {
  if (boat.inService === null) return [];
  const question = await careReader.ask(boat);
  const { store, phone } = await settings.read();
  const scopes = listScopes(
    question,
    question.rig.engines.map((engine) => readEngineStatus(question, engine)),
  );
  const sequence = question.readings.length + question.services.length + question.runs.length;
  const several = scopes.length > 2;
  return scopes.flatMap((scope) =>
    listDue(scope, question.today).flatMap(({ item, ...due }): CalendarEvent[] => {
      if (due.dueDate === null) return [];
      const times = scope.done.filter((done) => done.item === item.id).length;
      return [
        {
          uid: `${boat.id}-${scope.id}-${item.id}-${times + 1}@ravik`,
          sequence,
          title: `${item.title}, ${boat.name}${several && scope.id !== "boat" ? `, ${scope.label}` : ""}`,
          says: `${item.work.join("; ")}. ${explainDue(due)} ${store} ${phone}. The maker's manual comes first.`,
          when: { day: due.dueDate },
        },
      ];
    }),
  );
}

async function readTable(parts: Parts, what: CareTable): Promise<object[]> {
  const { boats, bookings, messages, runs } = parts;
  if (what === "readings") return boats.listAllReadings();
  if (what === "fills") return listFuel(parts);
  if (what === "services") return boats.listAllServices();
  if (what === "bookings")
    return (await bookings.list()).map(({ items, ...rest }) => ({
      ...rest,
      items: items.map(({ title }) => title).join("; "),
    }));
  if (what === "messages") return messages.listAll();
  return (await runs.listAll()).map(({ verdict, ...run }) => ({
    ...run,
    runS: verdict.runS,
    hoursAfter: verdict.hoursAfter,
    breaches: verdict.breaches.map(({ says }) => says).join("; "),
  }));
}

/** Fuel in litres, and beside it as the store counts it and as it was typed. */
async function listFuel({ boats, settings }: Parts): Promise<object[]> {
  const { units } = (await settings.read()).region;
  return (await boats.listAllFills()).map(toFill).map(({ typed, ...fill }) => ({
    ...fill,
    [headOf("fuel", "volume", units)]: sayNumber(fill.litres, "volume", units),
    "as typed": typed === undefined ? "" : sayTyped(typed, "volume"),
  }));
}

async function get({ boats }: Parts, id: string) {
  const boat = await boats.find(id);
  if (boat === null) throw new Failure("not-found", { what: "boat", id });
  return boat;
}

/** The store's calendar: handovers, booked slots, and what falls due next on each boat. */
async function writeFeed(parts: Parts, token: string): Promise<string> {
  const { boats, deliveries, fleetCare, settings, clock } = parts;
  const { feedHash, store } = await settings.read();
  if (feedHash === null || feedHash !== hashToken(token)) throw new Failure("link-ended");
  const today = clock.today();
  const fleet = await fleetCare.read();
  const coming = await deliveries.listFrom(today);
  const heads = await boats.listHeads(coming.map(({ boatId }) => boatId));
  const names = new Map(heads.map((boat) => [boat.id, boat.name]));
  const handovers = coming.map(
    ({ id, boatId, date, time, buyers }): CalendarEvent => ({
      uid: `handover-${id}@ravik`,
      sequence: 0,
      title: `Handover, ${names.get(boatId)}`,
      says: formatBuyers(buyers),
      when: { fromMs: msAt(date, minutesOf(time), clock.timeZone), minutes: handoverMin },
    }),
  );
  const due = fleet.flatMap(({ boat, version, facts: { next } }): CalendarEvent[] =>
    next === null || next.due.dueDate === null
      ? []
      : [
          {
            uid: `due-${boat.id}@ravik`,
            sequence: version,
            title: `${next.title} due, ${boat.name} ${serialOf(boat.hull)}`,
            says: explainDue(next.due),
            when: { day: next.due.dueDate },
          },
        ],
  );
  return writeCalendar(store, [...handovers, ...(await bookingEvents(parts, null)), ...due], clock.nowMs());
}
