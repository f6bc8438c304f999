import type { BoatCare, RunLine } from "../../api/index.ts";
import type { IsoDate } from "../../core/dates/index.ts";
import { type Fleet, learnFleet, resolveReadings } from "../../core/hours/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Dated } from "../../core/service/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { ReadingRow, ServiceRow } from "../database/models.ts";
import type { Transaction } from "../database/open.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import type { Bookings } from "../repositories/bookings.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Runs } from "../repositories/runs.ts";
import type { Settings } from "../repositories/settings.ts";
import { type CareQuestion, describeCare, describePlan, readingsOf } from "./care.ts";
import type { PackService } from "./packService.ts";
import type { RigService } from "./rigService.ts";

interface Parts {
  readonly boats: Boats;
  readonly runs: Runs;
  readonly deliveries: Deliveries;
  readonly bookings: Bookings;
  readonly packService: PackService;
  readonly rigService: RigService;
  readonly settings: { read(): Promise<Settings> };
  readonly clock: Clock;
}

type Boat = Pick<BoatRecord, "id" | "rigText" | "inService">;

/** Reads what the care of a boat is worked out from; the fleet is learned once a day from the store's own boats. */
export function createCareReader({
  boats,
  runs,
  deliveries,
  bookings,
  packService,
  rigService,
  settings,
  clock,
}: Parts) {
  let learned: { day: IsoDate; expects: string; fleet: Fleet } | null = null;
  const readFleet = async (): Promise<Fleet> => {
    const day = clock.today();
    const { monthlyHours } = await settings.read();
    const expects = monthlyHours.join(" ");
    if (learned?.day === day && learned.expects === expects) return learned.fleet;
    const byEngine = new Map<string, ReadingRow[]>();
    for (const row of await boats.listAllReadings()) {
      const key = `${row.boatId} ${row.engine}`;
      const rows = byEngine.get(key);
      if (rows === undefined) byEngine.set(key, [row]);
      else rows.push(row);
    }
    const engines = [...byEngine.values()].map((rows) => resolveReadings(readingsOf(rows, rows[0]!.engine)));
    learned = { day, expects, fleet: learnFleet(engines, monthlyHours) };
    return learned.fleet;
  };
  const groupBy = <R extends { boatId: string }>(rows: readonly R[]) => {
    const groups = new Map<string, R[]>();
    for (const row of rows) {
      const group = groups.get(row.boatId);
      if (group === undefined) groups.set(row.boatId, [row]);
      else group.push(row);
    }
    return groups;
  };
  /** What is asked of each boat, in one reading of each table. */
  const askMany = async (many: readonly Boat[], transaction?: Transaction): Promise<CareQuestion[]> => {
    const ids = many.map(({ id }) => id);
    const [packs, fleet, readings, fills, services, ran] = await Promise.all([
      packService.read(),
      readFleet(),
      boats.listReadings(ids, transaction),
      boats.listFills(ids, transaction),
      boats.listServices(ids, transaction),
      runs.listOf(ids, transaction),
    ]);
    const [readingsBy, fillsBy] = [groupBy(readings), groupBy(fills)];
    const [servicesBy, runsBy] = [groupBy(services), groupBy(ran)];
    const today = clock.today();
    return many.map(({ id, rigText, inService }) => ({
      rig: rigService.read(rigText),
      inService,
      today,
      packs,
      fleet,
      readings: readingsBy.get(id) ?? [],
      fills: fillsBy.get(id) ?? [],
      services: servicesBy.get(id) ?? [],
      runs: (runsBy.get(id) ?? []).map(({ boatId: _, ...run }): RunLine => run),
    }));
  };
  const ask = async (boat: Boat, transaction?: Transaction) => (await askMany([boat], transaction))[0]!;
  /** Gear that was counted with a date when the boat was handed over last. */
  const datedGear = async (boatId: string, rig: Rig): Promise<Dated[]> => {
    const last = (await deliveries.listOfBoats([boatId])).at(-1);
    if (last === undefined) return [];
    const { gear } = foldWalk(await deliveries.listEntries(last.id));
    return rig.gear.flatMap(({ id, label }) => {
      const date = gear.get(id)?.dated;
      return date === undefined ? [] : [{ id, title: `${label} out of date`, date }];
    });
  };
  return {
    readFleet,
    ask,
    askMany,
    /** All of a boat's care as a page shows it. */
    async describe(boat: Boat): Promise<BoatCare> {
      const question = await ask(boat);
      return {
        care: describeCare(question),
        ...describePlan(question, await datedGear(boat.id, question.rig)),
        fills: question.fills.map(({ boatId: _, isFull, ...fill }) => ({
          ...fill,
          isFull: isFull === 1,
          hasHours: question.readings.some(({ date }) => date === fill.date),
        })),
        runs: [...question.runs],
        services: question.services.map(
          ({ boatId: _, ...service }: ServiceRow) => service as BoatCare["services"][number],
        ),
        bookings: await bookings.listOf([boat.id]),
      };
    },
  };
}

export type CareReader = ReturnType<typeof createCareReader>;
