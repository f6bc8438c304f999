import { rigTemplates } from "../content/index.ts";
import { addDays, addMonths, differenceDays, type LocalDate, writeDate } from "../core/dates/index.ts";
import { believeOwner, createSeason } from "../core/hours/index.ts";
import { createRandom } from "../core/random.ts";
import type { BoatRow, ReadingRow, ServiceRow } from "../server/database/models.ts";
import type { Database, Transaction } from "../server/database/open.ts";
import { createId } from "./walkEntries.ts";

const surnames = [
  "Aldersen",
  "Brandwyck",
  "Corrigwen",
  "Dunmarrow",
  "Eskelby",
  "Fennimoor",
  "Gallowby",
  "Hathersedge",
  "Inchmore",
  "Jorrick",
  "Kestrelby",
  "Lornewick",
  "Maddersen",
  "Netherquist",
  "Orrinshaw",
  "Pennowry",
  "Quarlow",
  "Ravenspur-Thistlewaite",
  "Stellwick",
  "Tarnaby",
];
const firstNames = [
  "Ada",
  "Bryn",
  "Cass",
  "Dorte",
  "Edda",
  "Finn",
  "Gwil",
  "Hanne",
  "Ivo",
  "Jory",
  "Kit",
  "Lise",
  "Milo",
  "Noor",
  "Orla",
];
export type SoldModel = keyof typeof rigTemplates;
const soldModels: readonly SoldModel[] = ["wending-23", "ferrin-20", "sedge-18", "pluma-22", "pipit-15", "millrace-24"];
/** When boats are handed over: most in spring, as the trade has it. January first. */
const salesByMonth = [1, 2, 7, 14, 16, 10, 6, 3, 2, 1, 1, 1];
const season = createSeason([0.005, 0.01, 0.03, 0.07, 0.13, 0.19, 0.22, 0.18, 0.1, 0.045, 0.015, 0.005]);
const firstNumber = 401;

/** Rows of so many boats are written at once: row by row it would take longer than all the rest of the start. */
export const boatsAtOnce = 250;

export interface SoldBoat {
  readonly boat: BoatRow;
  readonly readings: readonly ReadingRow[];
  readonly services: readonly ServiceRow[];
}

/**
 * Boats the yard sold in the three years before it kept records here: hours reported now and then, services done or not. They
 * give the forecast something to learn from and the workshop a spring to look forward to. Always the same for the same day.
 */
export async function makeFleet(database: Database, today: LocalDate, count = 120): Promise<void> {
  const sold = sellBoats(today, count);
  for (let from = 0; from < sold.length; from += boatsAtOnce)
    await database.inTransaction((transaction) =>
      writeBoats(database, sold.slice(from, from + boatsAtOnce), transaction),
    );
}

export async function writeBoats({ models }: Database, sold: readonly SoldBoat[], transaction: Transaction) {
  const of = <R>(rowsOf: (each: SoldBoat) => readonly R[]) => sold.flatMap(rowsOf);
  await models.boats.bulkCreate(
    sold.map(({ boat }) => boat),
    { transaction },
  );
  await models.readings.bulkCreate(
    of(({ readings }) => readings),
    { transaction },
  );
  await models.services.bulkCreate(
    of(({ services }) => services),
    { transaction },
  );
}

/** As rows; of `count` boats those left out that would have been handed over within the last days. */
export function sellBoats(today: LocalDate, count: number): SoldBoat[] {
  const random = createRandom(19);
  const rigTexts = Object.fromEntries(soldModels.map((model) => [model, JSON.stringify(rigTemplates[model])]));
  const { ratesH } = believeOwner({ mean: 52, cv: 0.55 }, [], 2.5);
  const sold: SoldBoat[] = [];
  for (let i = 0; i < count; i++) {
    const model = soldModels[i % soldModels.length]!;
    const inService = pickDay(today, random);
    if (differenceDays(today, inService) < 12) continue;
    const yearH = ratesH[10 + Math.floor(random() * 44)]!;
    const number = firstNumber + sold.length;
    const id = `f${number}`;
    const history = tellYears({ id, model, inService, today, yearH, random });
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
    const name = `${pick(firstNames)} ${pick(surnames)}`;
    const month = "ABCDEFGHJKL"[+inService.slice(5, 7) - 1] ?? "L";
    const hull = `SLW${String(20000 + number)}${month}${inService.slice(3, 4)}${inService.slice(2, 4)}`;
    const phone = random() < 0.9 ? `555 0${100 + i}` : "";
    const contact = JSON.stringify({ name, phone, optOut: random() < 0.06 });
    const rig = rigTexts[model]!;
    const named = { id, name: rigTemplates[model].model, hull, stock: "", color: "" };
    const boat = { ...named, rig, template: model, inService, version: 1, contact, callBack: "", gearDates: "{}" };
    sold.push({ boat, ...history });
  }
  return sold;
}

interface Years {
  readonly id: string;
  readonly model: SoldModel;
  readonly inService: LocalDate;
  readonly today: LocalDate;
  /** Hours its first engine runs a year. */
  readonly yearH: number;
  readonly random: () => number;
}

/** What was reported and done since a boat was handed over. */
function tellYears({ id, model, inService, today, yearH, random }: Years): Omit<SoldBoat, "boat"> {
  const readings: ReadingRow[] = [];
  const services: ServiceRow[] = [];
  const keeps = random() < 0.93;
  for (const { id: engine, kind } of rigTemplates[model].engines) {
    const share = kind === "kicker" ? 0.3 : 1;
    const isServed = (date: LocalDate) => keeps && date < today;
    const hoursOn = (date: LocalDate) => Math.round((0.8 + yearH * share * season.between(inService, date)) * 10) / 10;
    const base = (date: LocalDate) => ({
      id: createId(Date.parse(date)),
      boatId: id,
      engine,
      date,
      hours: hoursOn(date),
      photo: null,
    });
    const read = (date: LocalDate, source: string) => {
      const by = source === "owner" ? "Owner" : "Ines Marr";
      readings.push({ ...base(date), reason: null, by, source, answer: null });
    };
    const serve = (item: string, date: LocalDate) => {
      const nothing = {
        note: "",
        file: null,
        fileName: null,
        priceCents: null,
        parts: "",
        labourH: null,
        mechanic: "",
      };
      services.push({ ...base(date), ...nothing, item, by: "Tobin Ashgrove", outcome: "done" });
    };
    read(inService, "walk");
    let month = 2 + Math.floor(random() * 3);
    for (; addMonths(inService, month) < today; month += 3 + Math.floor(random() * 4))
      read(addMonths(inService, month), random() < 0.6 ? "owner" : "phone");
    if (keeps && differenceDays(today, inService) > 150)
      serve("first-service", addDays(inService, 120 + Math.floor(random() * 30)));
    for (let year = 1; isServed(addMonths(inService, year * 12 - 1)); year++)
      serve("annual", addMonths(inService, year * 12 - 1));
    const later = kind === "outboard" ? (["plugs", "pump"] as const) : (["impeller", "bellows"] as const);
    for (const [i, item] of later.entries()) {
      const date = addMonths(inService, 23 + 12 * i);
      if (isServed(date)) serve(item, date);
    }
    for (const [item, month] of [
      ["lay-up", 10],
      ["spring-check", 4],
    ] as const)
      for (let year = +inService.slice(0, 4); year <= +today.slice(0, 4); year++) {
        const date = writeDate(year, month, 5 + Math.floor(random() * 20));
        if (date > inService && date < today && random() < 0.7 && kind !== "kicker") serve(item, date);
      }
  }
  return { readings: readings.sort((a, b) => (a.date < b.date ? -1 : 1)), services };
}

function pickDay(today: LocalDate, random: () => number): LocalDate {
  const sum = salesByMonth.reduce((a, b) => a + b, 0);
  let left = random() * sum;
  let month = 0;
  while (left > salesByMonth[month]!) left -= salesByMonth[month++]!;
  const year = +today.slice(0, 4) - Math.floor(random() * 3);
  const date = writeDate(year, month + 1, 1 + Math.floor(random() * 28));
  return date < today ? date : addMonths(date, -12);
}
