import type { BoatCare, RunLine } from "../../api/index.ts";
import { type CareQuestion, type CareRig, describeCare, describePlan } from "../../core/care/index.ts";
import { type Fleet, learnFleet, type ReadingAnswer, resolveReadings } from "../../core/hours/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Dated } from "../../core/service/index.ts";
import { typedSchema } from "../../core/units/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { FillRow, ReadingRow, ServiceRow } from "../database/models.ts";
import type { Transaction } from "../database/open.ts";
import { createReadModel, type Versions } from "../readModel.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Runs } from "../repositories/runs.ts";
import type { Settings } from "../repositories/settings.ts";
import type { Withdrawals } from "../repositories/withdrawals.ts";
import { groupByBoat } from "./groupByBoat.ts";
import type { PackService } from "./packService.ts";
import type { RigService } from "./rigService.ts";

interface Parts {
  readonly boats: Boats;
  readonly runs: Runs;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly withdrawals: Withdrawals;
  readonly packService: PackService;
  readonly rigService: RigService;
  readonly settings: { read(): Promise<Settings> };
  readonly versions: Versions;
  readonly clock: Clock;
}

type Boat = Pick<BoatRecord, "id" | "inService"> & { readonly rig: CareRig };
/** With all that a boat's page shows of it. */
type BoatQuestion = Omit<CareQuestion, "fills" | "services" | "runs"> & {
  readonly fills: readonly ReturnType<typeof toFill>[];
  readonly services: readonly ServiceRow[];
  readonly runs: readonly RunLine[];
};
/** Rows as core takes them. */
export const toFill = ({ isFull, typed, ...fill }: FillRow) => ({
  ...fill,
  isFull: isFull === 1,
  ...(typed === null ? {} : { typed: typedSchema.parse(JSON.parse(typed)) }),
});
export const toReading = ({ answer, ...row }: ReadingRow) => ({ ...row, answer: answer as ReadingAnswer | null });

/** So many boats the fleet's habits are learned from. */
const mostLearnedFrom = 2000;

/** Reads what the care of a boat is worked out from; the fleet is learned once a day from the store's own boats. */
export function createCareReader(parts: Parts) {
  const { boats, runs, packService, rigService, settings, versions, clock } = parts;
  const fleet = createReadModel(versions, {
    key: async () => [clock.today(), ...(await settings.read()).monthlyHours].join(" "),
    async make(): Promise<Fleet> {
      const { monthlyHours } = await settings.read();
      const byEngine = new Map<string, CareQuestion["readings"][number][]>();
      for (const row of await boats.listReadingsToLearn(mostLearnedFrom)) {
        const key = `${row.boatId} ${row.engine}`;
        const rows = byEngine.get(key);
        if (rows === undefined) byEngine.set(key, [toReading(row)]);
        else rows.push(toReading(row));
      }
      return learnFleet([...byEngine.values()].map(resolveReadings), monthlyHours);
    },
  });
  const readFleet = async () => (await fleet()).value;
  /** What is asked of each boat, in one reading of each table. */
  const askMany = async (many: readonly Boat[], transaction?: Transaction): Promise<BoatQuestion[]> => {
    const ids = many.map(({ id }) => id);
    const [packs, learned, readings, fills, services, ran] = await Promise.all([
      packService.read(),
      readFleet(),
      boats.listReadings(ids, transaction),
      boats.listFills(ids, transaction),
      boats.listServices(ids, transaction),
      runs.listOf(ids, transaction),
    ]);
    const [readingsBy, fillsBy] = [groupByBoat(readings), groupByBoat(fills)];
    const [servicesBy, runsBy] = [groupByBoat(services), groupByBoat(ran)];
    const today = clock.today();
    return many.map(({ id, rig, inService }) => ({
      rig,
      inService,
      today,
      packs,
      fleet: learned,
      readings: (readingsBy.get(id) ?? []).map(toReading),
      fills: (fillsBy.get(id) ?? []).map(toFill),
      services: servicesBy.get(id) ?? [],
      runs: (runsBy.get(id) ?? []).map(({ boatId: _, ...run }): RunLine => run),
    }));
  };
  const ask = async ({ id, inService, rigText }: Pick<BoatRecord, "id" | "inService" | "rigText">, t?: Transaction) =>
    (await askMany([{ id, inService, rig: rigService.read(rigText) }], t))[0]!;
  return {
    readFleet,
    /** New when the fleet was learned anew. */
    fleetStamp: async () => (await fleet()).stamp,
    ask,
    askMany,
    /** All of a boat's care as a page shows it. */
    describe: async (boat: BoatRecord) => describeBoatCare(parts, boat, await ask(boat)),
  };
}

export type CareReader = ReturnType<typeof createCareReader>;

/** Gear that was counted with a date when the boat was handed over last. */
async function datedGear({ deliveries }: Parts, boatId: string, rig: Pick<Rig, "gear">): Promise<Dated[]> {
  const last = (await deliveries.listOfBoats([boatId])).at(-1);
  if (last === undefined) return [];
  const { gear } = foldWalk(await deliveries.listEntries(last.id));
  return rig.gear.flatMap(({ id, label }) => {
    const date = gear.get(id)?.dated;
    return date === undefined ? [] : [{ id, title: `${label} out of date`, date }];
  });
}

async function describeBoatCare(parts: Parts, boat: BoatRecord, question: BoatQuestion): Promise<BoatCare> {
  const { withdrawals, bookings, rigService } = parts;
  return {
    care: describeCare(question),
    ...describePlan(question, await datedGear(parts, boat.id, rigService.read(boat.rigText))),
    fills: question.fills.map(({ boatId: _, ...fill }) => ({
      ...fill,
      hasHours: question.readings.some(({ date }) => date === fill.date),
    })),
    runs: [...question.runs],
    services: question.services.map(({ boatId: _, ...service }) => service as BoatCare["services"][number]),
    withdrawn: (await withdrawals.listOf(boat.id)).map(({ boatId: _, instead, entered, ...rest }) => {
      const { engine, date, amount, what } = entered;
      return { ...rest, isCorrected: instead !== null, engine, date, amount, what };
    }),
    bookings: await bookings.listOf([boat.id]),
  };
}
