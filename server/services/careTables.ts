import type { Booking, CareTable, RunLine } from "../../api/index.ts";
import { toClock } from "../../core/dates/index.ts";
import { createTell, sayTold } from "../../core/language/index.ts";
import type { Region } from "../../core/region/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { headOf, sayNumber, sayTyped } from "../../core/units/index.ts";
import type { MessageRow, ReadingRow, ServiceRow } from "../database/models.ts";
import type { Messages } from "../messages.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Runs } from "../repositories/runs.ts";
import type { createSettings } from "../repositories/settings.ts";
import { toFill } from "./careReader.ts";

export interface TableParts {
  readonly boats: Boats;
  readonly bookings: Bookings;
  readonly runs: Runs;
  readonly messages: Messages;
  readonly settings: ReturnType<typeof createSettings>;
}

/** A column: its head, with the unit of what stands below it, and what a row has there. */
type Columns<R> = readonly (readonly [head: string, of: (row: R) => string | number | null])[];

interface Named {
  readonly boatId: string;
}

const round = (value: number, places: number) => Number(value.toFixed(places));
const hours = (value: number | null) => (value === null ? "" : round(value, 1));

const readings: Columns<ReadingRow> = [
  ["date", ({ date }) => date],
  ["engine", ({ engine }) => engine],
  ["engine hours, h", (row) => hours(row.hours)],
  ["as", ({ answer }) => answer],
  ["why it fell", ({ reason }) => reason],
  ["from", ({ source }) => source],
  ["by", ({ by }) => by],
];

/** Fuel in litres, and beside it as the store counts it and as it was typed. */
type Fill = ReturnType<typeof toFill>;
const listFuelColumns = ({ units }: Region): Columns<Fill> => [
  ["date", ({ date }) => date],
  ["fuel, L", ({ litres }) => round(litres, 1)],
  ...(units === "metric"
    ? []
    : ([[headOf("fuel", "volume", units), ({ litres }: Fill) => sayNumber(litres, "volume", units)]] as const)),
  ["as typed", ({ typed }) => (typed === undefined ? "" : sayTyped(typed, "volume"))],
  ["tanks full", ({ isFull }) => (isFull ? "yes" : "no")],
  ["by", ({ by }) => by],
];

const listServiceColumns = ({ currency }: Region): Columns<ServiceRow> => [
  ["date", ({ date }) => date],
  ["engine", ({ engine }) => engine],
  ["item", ({ item }) => item],
  ["engine hours, h", (row) => (row.engine === "boat" ? "" : hours(row.hours))],
  ["what came of it", ({ outcome }) => outcome],
  ["parts", ({ parts }) => parts],
  ["work, h", ({ labourH }) => hours(labourH)],
  ["done by", ({ mechanic }) => mechanic],
  ["note", ({ note }) => note],
  [`price, ${currency}`, ({ priceCents }) => (priceCents === null ? "" : (priceCents / 100).toFixed(2))],
  ["file", ({ fileName }) => fileName],
  ["entered by", ({ by }) => by],
];

const runs: Columns<RunLine> = [
  ["date", ({ date }) => date],
  ["from", ({ startMin }) => toClock(startMin)],
  ["engine", ({ engine }) => engine],
  ["ran, min", ({ verdict }) => round(verdict.runS / 60, 0)],
  ["engine hours before, h", ({ hoursBefore }) => hours(hoursBefore)],
  ["engine hours after, h", ({ verdict }) => hours(verdict.hoursAfter)],
  [
    "outside its limits",
    ({ verdict }) => verdict.breaches.map(({ says }) => sayTold(says, createTell(null))).join("; "),
  ],
  ["source", ({ source }) => source],
  ["file", ({ fileName }) => fileName],
];

const bookings: Columns<Booking> = [
  ["date", ({ date }) => date],
  ["from", ({ startMin }) => toClock(startMin)],
  ["work, h", ({ labourH }) => hours(labourH)],
  ["for", ({ items }) => items.map(({ title }) => title).join("; ")],
  ["stands", ({ state }) => state],
  ["note", ({ note }) => note],
  ["by", ({ by }) => by],
];

const messages: Columns<MessageRow> = [
  ["at", ({ at }) => at],
  ["kind", ({ kind }) => kind],
  ["to", ({ recipient }) => recipient],
  ["stands", ({ state }) => state],
  ["words", ({ text }) => text],
  ["answer", ({ answer }) => answer],
];

/** A table of the months after: each row with the boat it is about, by name and hull number; heads also where there is no row. */
export async function readTable(parts: TableParts, what: CareTable) {
  const { region } = await parts.settings.read();
  const heads = new Map((await parts.boats.listHeads()).map((boat) => [boat.id, boat]));
  const lay = <R>(rows: readonly R[], columns: Columns<R>, boatOf: (row: R) => string) => ({
    columns: ["boat", "hull number", "serial", "stock number", ...columns.map(([head]) => head)],
    rows: rows.map((row) => {
      const boat = heads.get(boatOf(row));
      return {
        boat: boat?.name ?? "",
        "hull number": boat?.hull ?? "",
        serial: boat === undefined ? "" : serialOf(boat.hull),
        "stock number": boat?.stock ?? "",
        ...Object.fromEntries(columns.map(([head, of]) => [head, of(row) ?? ""])),
      };
    }),
  });
  const ofBoat = ({ boatId }: Named) => boatId;
  switch (what) {
    case "readings":
      return lay(await parts.boats.listAllReadings(), readings, ofBoat);
    case "fills":
      return lay((await parts.boats.listAllFills()).map(toFill), listFuelColumns(region), ofBoat);
    case "services":
      return lay(await parts.boats.listAllServices(), listServiceColumns(region), ofBoat);
    case "runs":
      return lay(await parts.runs.listAll(), runs, ofBoat);
    case "bookings":
      return lay(await parts.bookings.list(), bookings, ({ boat }) => boat);
    case "messages":
      return lay(await parts.messages.listAll(), messages, ofBoat);
    default:
      throw new Error(`readTable: expected a known table, got ${JSON.stringify(what satisfies never)}`);
  }
}
