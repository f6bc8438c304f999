import { addDays, addMonths, type LocalDate, toInstant } from "../core/dates/index.ts";
import { capacityOfDay, type Workshop } from "../core/workshop/index.ts";
import type { ServiceRow } from "../server/database/models.ts";
import type { Database } from "../server/database/open.ts";
import { createId } from "./walkEntries.ts";

const slots = [
  { place: 3, startMin: 9 * 60, labourH: 2, item: "annual", title: "100 h or yearly", note: "" },
  { place: 8, startMin: 13 * 60 + 30, labourH: 3, item: "annual", title: "100 h or yearly", note: "Brings it afloat" },
  { place: 15, startMin: 10 * 60, labourH: 2, item: "first-service", title: "First service", note: "" },
] as const;

/** The demo's workshop has work: two slots on the next day it works, from today on, and one two days later. */
export async function bookSlots({ models }: Database, today: LocalDate, workshop: Workshop): Promise<void> {
  const nextOpen = (from: LocalDate): LocalDate =>
    capacityOfDay(workshop, from) >= 5 ? from : nextOpen(addDays(from, 1));
  const first = nextOpen(today);
  const boats = await models.boats.findAll({ where: { template: "sedge-18" }, order: ["id"], raw: true, limit: 20 });
  const rows = slots.flatMap(({ place, startMin, labourH, item, title, note }, i) => {
    const boat = boats[place % boats.length] as { id: string } | undefined;
    if (boat === undefined) return [];
    const date = i < 2 ? first : nextOpen(addDays(first, 2));
    return {
      ...{ id: createId(Date.parse(date)), boatId: boat.id, date, startMin, labourH, note, state: "booked" },
      ...{ items: JSON.stringify([{ scope: "main", item, title }]), by: "ines", at: toInstant(Date.parse(today)) },
    };
  });
  await models.bookings.bulkCreate([...rows, ...(await listPast({ models }, today))]);
}

const usualLabourH = 1.5;
const latestMin = 15 * 60;

/** Each service that was done here in two years had its slot. */
async function listPast({ models }: Pick<Database, "models">, today: LocalDate) {
  const done = (await models.services.findAll({ where: { outcome: "done" }, raw: true })) as unknown as ServiceRow[];
  return done
    .filter(({ date }) => date >= addMonths(today, -24) && date <= today)
    .map(({ boatId, engine, item, date, labourH }, i) => ({
      ...{ id: createId(Date.parse(date)), boatId, date, startMin: Math.min(latestMin, (8 + (i % 4) * 2) * 60) },
      ...{ labourH: labourH ?? usualLabourH, note: "", state: "done", by: "ines", at: toInstant(Date.parse(date)) },
      items: JSON.stringify([{ scope: engine, item, title: titles[item] ?? item }]),
    }));
}
const titles: Readonly<Record<string, string>> = { annual: "100 h or yearly", "first-service": "First service" };
