import { ulid } from "ulid";
import { rigTemplates } from "../content/index.ts";
import { addDays, addMonths, differenceDays, type IsoDate } from "../core/dates/index.ts";
import { believeOwner } from "../core/hours/index.ts";
import { createRandom } from "../core/random.ts";
import type { BoatRow, ReadingRow, ServiceRow } from "../server/database/models.ts";
import type { Database } from "../server/database/open.ts";

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
const models: (keyof typeof rigTemplates)[] = [
  "wending-23",
  "ferrin-20",
  "sedge-18",
  "pluma-22",
  "pipit-15",
  "millrace-24",
];
/** When boats are handed over: most in spring, as the trade has it. January first. */
const salesByMonth = [1, 2, 7, 14, 16, 10, 6, 3, 2, 1, 1, 1];
const season = [0.005, 0.01, 0.03, 0.07, 0.13, 0.19, 0.22, 0.18, 0.1, 0.045, 0.015, 0.005];

/**
 * Boats the yard sold in the three years before it kept records here: hours reported now and then, services done or not. They
 * give the forecast something to learn from and the workshop a spring to look forward to. Always the same for the same day.
 */
export async function makeFleet(database: Database, today: IsoDate, count = 120): Promise<void> {
  const random = createRandom(19);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!;
  let serial = 400;
  const rigTexts = Object.fromEntries(models.map((model) => [model, JSON.stringify(rigTemplates[model])]));
  const [boatRows, readingRows, serviceRows]: [BoatRow[], ReadingRow[], ServiceRow[]] = [[], [], []];
  for (let i = 0; i < count; i++) {
    const model = models[i % models.length]!;
    const rig = rigTemplates[model];
    const inService = pickDay(today, random);
    const days = differenceDays(today, inService);
    if (days < 12) continue;
    const { ratesH } = believeOwner({ mean: 52, cv: 0.55 }, [], 2.5);
    const yearH = ratesH[10 + Math.floor(random() * 44)]!;
    const id = `f${String(++serial)}`;
    const readings: ReadingRow[] = [];
    const done: ServiceRow[] = [];
    const keeps = random() < 0.93;
    for (const engine of rig.engines) {
      const share = engine.kind === "kicker" ? 0.3 : 1;
      const hoursOn = (date: IsoDate) => 0.8 + yearH * share * sumSeason(inService, date);
      const read = (date: IsoDate, source: string) =>
        readings.push({
          id: ulid(),
          boatId: id,
          engine: engine.id,
          date,
          hours: Math.round(hoursOn(date) * 10) / 10,
          reason: null,
          by: source === "owner" ? "Owner" : "Ines Marr",
          source,
          answer: null,
          photo: null,
        });
      const serve = (item: string, date: IsoDate) =>
        done.push({
          id: ulid(),
          boatId: id,
          engine: engine.id,
          item,
          date,
          hours: Math.round(hoursOn(date) * 10) / 10,
          by: "Tobin Ashgrove",
          outcome: "done",
          note: "",
          photo: null,
          file: null,
          fileName: null,
          priceCents: null,
        });
      read(inService, "walk");
      for (
        let month = 2 + Math.floor(random() * 3);
        addMonths(inService, month) < today;
        month += 3 + Math.floor(random() * 4)
      )
        read(addMonths(inService, month), random() < 0.6 ? "owner" : "phone");
      if (keeps && days > 150) serve("first-service", addDays(inService, 120 + Math.floor(random() * 30)));
      for (let year = 1; addMonths(inService, year * 12 - 1) < today && keeps; year++)
        serve("annual", addMonths(inService, year * 12 - 1));
      const later =
        rig.engines[0]!.kind === "outboard" ? (["plugs", "pump"] as const) : (["impeller", "bellows"] as const);
      for (const [item, months] of [
        [later[0], 23],
        [later[1], 35],
      ] as const)
        if (keeps && addMonths(inService, months) < today) serve(item, addMonths(inService, months));
      for (const [item, month] of [
        ["lay-up", "10"],
        ["spring-check", "04"],
      ] as const)
        for (let year = +inService.slice(0, 4); year <= +today.slice(0, 4); year++) {
          const date = `${year}-${month}-${String(5 + Math.floor(random() * 20)).padStart(2, "0")}`;
          if (date > inService && date < today && random() < 0.7 && engine.kind !== "kicker") serve(item, date);
        }
    }
    const bySide = [...readings].sort((a, b) => (a.date < b.date ? -1 : 1));
    const name = `${pick(firstNames)} ${pick(surnames)}`;
    const hull = `SLW${String(20000 + serial)}${"ABCDEFGHJKL"[+inService.slice(5, 7) - 1] ?? "L"}${inService.slice(3, 4)}${inService.slice(2, 4)}`;
    const phone = random() < 0.9 ? `555 0${100 + i}` : "";
    const contact = JSON.stringify({ name, phone, optOut: random() < 0.06 });
    boatRows.push({
      id,
      name: rig.model,
      hull,
      rig: rigTexts[model]!,
      template: model,
      inService,
      version: 1,
      contact,
    });
    readingRows.push(...bySide);
    serviceRows.push(...done);
  }
  const { boats, readings, services: served } = database.models;
  // All at once: row by row it would take longer than all the rest of the start.
  await database.inTransaction(async (transaction) => {
    await boats.bulkCreate(boatRows, { transaction });
    await readings.bulkCreate(readingRows, { transaction });
    await served.bulkCreate(serviceRows, { transaction });
  });
}

function pickDay(today: IsoDate, random: () => number): IsoDate {
  const sum = salesByMonth.reduce((a, b) => a + b, 0);
  let left = random() * sum;
  let month = 0;
  while (left > salesByMonth[month]!) left -= salesByMonth[month++]!;
  const year = +today.slice(0, 4) - Math.floor(random() * 3);
  const date = `${year}-${String(month + 1).padStart(2, "0")}-${String(1 + Math.floor(random() * 28)).padStart(2, "0")}`;
  return date < today ? date : `${year - 1}${date.slice(4)}`;
}

/** Years of the season between two days, by month. */
function sumSeason(from: IsoDate, to: IsoDate): number {
  let sum = 0;
  for (let date = from; date < to; date = addDays(date, 1)) sum += season[+date.slice(5, 7) - 1]! / 30.4;
  return sum;
}
