import { createHash, randomBytes } from "node:crypto";
import { type CareTable, careTables } from "../../api/index.ts";
import { type GearDate, listScopes, readEngineStatus } from "../../core/care/index.ts";
import { fromClock, msAt } from "../../core/dates/index.ts";
import { createTell, findText, type PhraseBook, type Tell } from "../../core/language/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { type DueDay, listDue } from "../../core/service/index.ts";
import { formatBuyers } from "../../core/walk/index.ts";
import { type CalendarEvent, writeCalendar } from "../calendar.ts";
import type { Clock } from "../clock.ts";
import { writeCsv } from "../csv.ts";
import { createDays, type Days } from "../days.ts";
import { Failure } from "../failure.ts";
import type { Messages } from "../messages.ts";
import type { Versions } from "../readModel.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Runs } from "../repositories/runs.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { CareReader } from "./careReader.ts";
import { readTable } from "./careTables.ts";
import type { FleetCare } from "./fleetCare.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly runs: Runs;
  readonly messages: Messages;
  readonly careReader: CareReader;
  readonly versions: Versions;
  readonly fleetCare: FleetCare;
  readonly settings: ReturnType<typeof createSettings>;
  readonly clock: Clock;
}

const hashToken = (token: string) => createHash("sha256").update(token).digest("hex");
const tokenBytes = 16;
const handoverMin = 120;
/** Whose calendar it is: what they read, and how days are written there. */
interface CalendarReader extends Days {
  readonly tell: Tell;
  /** A text of the store's own, such as a pack's, in their language where it has one. */
  readonly say: (text: string) => string;
}

/** How a day in a calendar is to be taken: until when it may be, and by what. */
const explainDue = ({ targetH, calendarDate, range, state }: DueDay, { tell, printDay }: CalendarReader): string => {
  const day = calendarDate === null ? "" : printDay(calendarDate);
  const both = tell("at {0} h or by {1}, whichever comes first", targetH ?? "", day);
  const one = targetH === null ? tell("by {0}", day) : tell("at {0} h", targetH);
  const by = targetH !== null && calendarDate !== null ? both : one;
  const due = state === "overdue" ? tell("Overdue: due {0}.", by) : tell("Due {0}.", by);
  if (range === null) return due;
  const from = printDay(range.from);
  const likely =
    range.to === null ? tell("Likely after {0}.", from) : tell("Likely between {0} and {1}.", from, printDay(range.to));
  return `${due} ${likely}`;
};

/** Calendars and tables of the months after, on their way out. */
export function createCalendarService(parts: Parts) {
  const { settings, clock } = parts;
  return {
    /** What falls due on a boat and what is booked for it; for its owner in their language, and with what runs out aboard. */
    async writeBoat(id: string, owner: BoatOwner = { book: null, gear: [] }): Promise<string> {
      const boat = await get(parts, id);
      const reader = await readerOf(parts, owner.book);
      const events = [
        ...(await milestones(parts, boat, reader)),
        ...(await gearEvents(parts, boat, owner.gear, reader)),
        ...(await bookingEvents(parts, [id], reader)),
      ];
      return writeCalendar(reader.tell("{0}, service", boat.name), events, clock.nowMs());
    },

    async makeFeed(): Promise<string> {
      const token = randomBytes(tokenBytes).toString("base64url");
      await settings.change({ feedHash: hashToken(token) });
      return token;
    },

    writeFeed: (token: string) => writeFeed(parts, token),

    async writeCsv(what: CareTable): Promise<string> {
      const { rows, columns } = await readTable(parts, what);
      return writeCsv(rows, columns);
    },
    async writeJson(): Promise<object> {
      return Object.fromEntries(
        await Promise.all(careTables.map(async (what) => [what, (await readTable(parts, what)).rows] as const)),
      );
    },
  };
}

/** For whom a boat's calendar is written: the words of their language, null for the store's own, and what runs out aboard. */
export interface BoatOwner {
  readonly book: PhraseBook | null;
  readonly gear: readonly GearDate[];
}

export type CalendarService = ReturnType<typeof createCalendarService>;

/** A number that goes up whenever something of this kind is written; 0 of what was never written since they are counted. */
const sequenceOf = async ({ versions }: Parts, kind: "boat" | "bookings" | "deliveries") => {
  const numbers = (await versions.read()).get(kind);
  return (id: string) => numbers?.get(id) ?? 0;
};

async function readerOf({ settings }: Parts, book: PhraseBook | null): Promise<CalendarReader> {
  const { region } = await settings.read();
  return {
    tell: createTell(book),
    say: (text) => findText(book ?? undefined, text) ?? text,
    ...createDays(region, book?.language ?? "en"),
  };
}

/** Each thing aboard that runs out, on the last day it is good for. */
async function gearEvents(
  parts: Parts,
  boat: BoatRecord,
  gear: readonly GearDate[],
  { tell, printDay }: CalendarReader,
): Promise<CalendarEvent[]> {
  const sequence = (await sequenceOf(parts, "boat"))(boat.id);
  return gear.flatMap(({ id, label, until }): CalendarEvent[] =>
    until === null
      ? []
      : [
          {
            uid: `${boat.id}-gear-${id}@ravik`,
            sequence,
            title: tell("{0} runs out, {1}", tell.label(label), boat.name),
            says: tell("Good until {0}. Renew or replace it before the next trip.", printDay(until)),
            when: { day: until },
          },
        ],
  );
}

async function bookingEvents(
  parts: Parts,
  ids: readonly string[] | null,
  { tell, say }: CalendarReader,
): Promise<CalendarEvent[]> {
  const { boats, bookings, clock } = parts;
  const sequence = await sequenceOf(parts, "bookings");
  const all = ids === null ? await bookings.list(clock.today()) : await bookings.listOf(ids);
  const names = new Map((await boats.findMany(all.map(({ boat }) => boat))).entries());
  return all
    .filter(({ state }) => state === "booked")
    .map(({ id, boat, date, startMin, labourH, items, note }) => ({
      uid: `booking-${id}@ravik`,
      sequence: sequence(id),
      title: `${names.get(boat)?.name ?? tell("Boat")}: ${items.map(({ title }) => say(title)).join(", ") || tell("workshop")}`,
      says: note,
      when: { fromMs: msAt(date, startMin, clock.timeZone), minutes: Math.max(15, Math.round(labourH * 60)) },
    }));
}

/** The next of each thing that falls due on a boat, as days. */
async function milestones(parts: Parts, boat: BoatRecord, reader: CalendarReader): Promise<CalendarEvent[]> {
  const { tell, say } = reader;
  const { careReader, settings } = parts;
  if (boat.inService === null) return [];
  const question = await careReader.ask(boat);
  const { store, phone } = await settings.read();
  const scopes = listScopes(
    question,
    question.rig.engines.map((engine) => readEngineStatus(question, engine)),
  );
  const sequence = (await sequenceOf(parts, "boat"))(boat.id);
  const several = scopes.length > 2;
  return scopes.flatMap((scope) =>
    listDue(scope, question.today).flatMap(({ item, ...due }): CalendarEvent[] => {
      if (due.dueDate === null) return [];
      const times = scope.done.filter((done) => done.item === item.id).length;
      return [
        {
          uid: `${boat.id}-${scope.id}-${item.id}-${times + 1}@ravik`,
          sequence,
          title: `${say(item.title)}, ${boat.name}${several && scope.id !== "boat" ? `, ${tell.label(scope.label)}` : ""}`,
          says: `${item.work.map(say).join("; ")}. ${explainDue(due, reader)} ${store} ${phone}. ${tell("The maker's manual comes first.")}`,
          when: { day: due.dueDate },
        },
      ];
    }),
  );
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
  const reader = await readerOf(parts, null);
  const fleet = await fleetCare.read();
  const coming = await deliveries.listFrom(today);
  const heads = await boats.listHeads(coming.map(({ boatId }) => boatId));
  const names = new Map(heads.map((boat) => [boat.id, boat.name]));
  const sequence = await sequenceOf(parts, "deliveries");
  const handovers = coming.map(
    ({ id, boatId, date, time, buyers }): CalendarEvent => ({
      uid: `handover-${id}@ravik`,
      sequence: sequence(id),
      title: `Handover, ${names.get(boatId)}`,
      says: formatBuyers(buyers),
      when: { fromMs: msAt(date, fromClock(time), clock.timeZone), minutes: handoverMin },
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
            says: explainDue(next.due, reader),
            when: { day: next.due.dueDate },
          },
        ],
  );
  return writeCalendar(store, [...handovers, ...(await bookingEvents(parts, null, reader)), ...due], clock.nowMs());
}
