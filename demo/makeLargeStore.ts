import type { Delivery } from "../api/index.ts";
import { addDays, type LocalDate } from "../core/dates/index.ts";
import { createRandom } from "../core/random.ts";
import type { Rig } from "../core/rig/index.ts";
import { defaultPlanOptions, styleIds } from "../core/route/index.ts";
import type { Entry } from "../core/walk/index.ts";
import { createClock } from "../server/clock.ts";
import { createServices, type Services } from "../server/createServices.ts";
import type { Database, Transaction } from "../server/database/open.ts";
import type { DeliveryRecord } from "../server/repositories/deliveries.ts";
import { summarize } from "../server/services/summarize.ts";
import { createStoreKey, type StoreKey } from "../server/storeKey.ts";
import { boatsAtOnce, type SoldBoat, sellBoats, writeBoats } from "./makeFleet.ts";
import { tellMakeReady, tellWalk, type WalkTale } from "./walkEntries.ts";

/** Of so many boats one is yet to be handed over. */
const plannedEvery = 500;
/** Minutes of a walk: they make some sixty-five entries. */
const budgetMin = 75;

const nessa = { id: "nessa", name: "Nessa Quill", role: "delivery" } as const;

interface Handover {
  readonly delivery: DeliveryRecord;
  readonly entries: readonly Entry[];
}

/**
 * Adds `count` boats to a demo store with years of hours and services, and the handover of each with all its entries: most
 * long past, some still to come, a few with something owed. For measuring: most is written straight into the tables, and only
 * the `sealed` latest are sealed: to seal all would take longer than all the rest. `tell`: how many there are by now.
 */
export async function makeLargeStore(
  database: Database,
  today: LocalDate,
  count: number,
  {
    storeKey = createStoreKey(),
    sealed = 100,
    tell = () => {},
  }: { readonly storeKey?: StoreKey; readonly sealed?: number; readonly tell?: (made: number) => void } = {},
): Promise<void> {
  const clock = { ...createClock("UTC"), timeZone: "UTC", today: () => today };
  const services = createServices(database, clock, null, { storeKey });
  const sold = sellBoats(today, count).map(weigh).map(leaveSome);
  const handed = sold.filter(({ boat }) => boat.inService !== null);
  const latest = new Set(
    handed
      .sort(byLatest)
      .slice(0, sealed)
      .map(({ boat }) => boat.id),
  );
  const tellHandover = createTeller(services, today);
  for (let from = 0; from < sold.length; from += boatsAtOnce) {
    const batch = sold.slice(from, from + boatsAtOnce);
    const handovers = await Promise.all(batch.map((each) => tellHandover(each, latest.has(each.boat.id))));
    await database.inTransaction(async (transaction) => {
      await writeBoats(database, batch, transaction);
      await writeHandovers(services, handovers, transaction);
    });
    tell(from + batch.length);
  }
  for (const id of latest) await sealOne(services, `d-${id}`);
}

const byLatest = (a: SoldBoat, b: SoldBoat) => (a.boat.inService! < b.boat.inService! ? 1 : -1);

/** No two boats weigh the same: a sheet that was filled in is like no other. */
function weigh({ boat, ...rest }: SoldBoat, i: number): SoldBoat {
  const rig = JSON.parse(boat.rig) as Rig;
  const weighed: Rig = { ...rig, weights: { ...rig.weights, dryKg: 900 + i / 10 } };
  return { ...rest, boat: { ...boat, rig: JSON.stringify(weighed) } };
}

/** Some are still at the yard. */
function leaveSome(each: SoldBoat, i: number): SoldBoat {
  return i % plannedEvery === 0 ? { boat: { ...each.boat, inService: null }, readings: [], services: [] } : each;
}

const taleOf = ({ rig }: Pick<Delivery, "rig">, seed: number, startMs: number): WalkTale => ({
  by: nessa.id,
  startMs,
  seed,
  // What `sellBoats` has read first: what was read later is never less.
  hours: Object.fromEntries(rig.engines.map(({ id }) => [id, 0.8])),
  marks: seed % 25 === 0 ? { plotter: { mark: "later", note: "by phone" } } : {},
  isSigned: true,
});

/** Tells the handover of a boat; what the walks of a model have in common is worked out once. */
function createTeller({ rigService, libraryService }: Services, today: LocalDate) {
  const random = createRandom(42);
  const texts = new Map<string, string>();
  return async ({ boat }: SoldBoat, isSealedLater: boolean): Promise<Handover> => {
    const rigText = texts.get(boat.name) ?? boat.rig;
    texts.set(boat.name, rigText);
    const people = 1 + Math.floor(random() * 2);
    const planOptions = { ...defaultPlanOptions, style: styleIds[0]!, people, budgetMin };
    const prepared = await rigService.prepare(rigText, await libraryService.read(), planOptions);
    const { name } = JSON.parse(boat.contact) as { name: string };
    const buyers = [name, `${name} the younger`].slice(0, people).map((each, i) => ({ id: `b${i + 1}`, name: each }));
    const date = boat.inService ?? addDays(today, Math.floor(random() * 20));
    const content = { ...prepared, makeReady: [], readings: {}, date, buyers, entries: [], snapshot: null };
    const id = `d-${boat.id}`;
    const seed = +boat.id.slice(1);
    const startMs = Date.parse(`${date}T10:00:00Z`) + (seed % 1000);
    // What is signed and never sealed here has no close: the server would seal it at its next start.
    const entries =
      boat.inService === null || isSealedLater
        ? []
        : tellWalk({ ...content, id }, taleOf(content, seed, startMs)).filter(({ kind }) => kind !== "close");
    const summary = summarize(prepared, entries, [], entries.length > 0);
    const delivery = {
      id,
      boatId: boat.id,
      date,
      time: "10:00",
      note: "",
      buyers,
      planOptions,
      summary,
      snapshot: null,
    };
    return { delivery, entries };
  };
}

async function writeHandovers({ deliveries }: Services, handovers: readonly Handover[], transaction: Transaction) {
  for (const { delivery, entries } of handovers) {
    const { snapshot: _, ...rest } = delivery;
    await deliveries.add(rest, transaction);
    if (entries.length > 0)
      await deliveries.addEntries(delivery.id, entries, { receivedAt: null, via: "staff" }, transaction);
  }
}

/** Makes the boat ready, walks and closes, through the services. */
async function sealOne({ handoverService }: Services, id: string): Promise<void> {
  const planned = await handoverService.describe(id);
  const startMs = Date.parse(`${planned.date}T10:00:00Z`);
  const ready = tellMakeReady(planned, nessa.id, startMs - 86_400_000, planned.makeReady);
  await handoverService.addEntries(id, nessa, ready);
  const delivery = await handoverService.describe(id);
  await handoverService.addEntries(id, nessa, tellWalk(delivery, taleOf(delivery, 1, startMs)));
}
