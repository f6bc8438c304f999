import type { Today, TowingSheet } from "../../api/index.ts";
import { towRules } from "../../content/index.ts";
import { addDays, type LocalDate } from "../../core/dates/index.ts";
import type { Launch, RampSheet } from "../../core/ramp/index.ts";
import { serialOf } from "../../core/rig/index.ts";
import { listMisfits, type TowRules, towWords, type Vehicle } from "../../core/tow/index.ts";
import { formatBuyers } from "../../core/walk/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { createBoats } from "../repositories/boats.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { TowingRows } from "../repositories/towing.ts";
import type { RigService } from "./rigService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: ReturnType<typeof createBoats>;
  readonly deliveries: Deliveries;
  readonly rigService: Pick<RigService, "read">;
  readonly settings: ReturnType<typeof createSettings>;
  readonly towing: TowingRows;
}

/** Older launches say nothing that the later ones do not. */
const mostLaunches = 60;
const mostRamps = 50;
const mostRules = 20;
/** A buyer still has time to buy the right ball. */
const soonDays = 7;

/** What a boat is towed and launched with: the buyer's car, the ramps people go to, and what was seen there. */
export function createTowingService(parts: Parts) {
  const { database, boats, deliveries, rigService, settings, towing } = parts;
  /** A boat's handovers, the last being theirs who have it now. Failure: `not-found`. */
  const listHandovers = async (boat: string, t?: Transaction): Promise<string[]> => {
    if ((await boats.find(boat, t)) === null) throw new Failure("not-found", { what: "boat", id: boat });
    return (await deliveries.listOfBoats([boat], t)).map(({ id }) => id);
  };
  return {
    async describe(boat: string): Promise<TowingSheet> {
      const handovers = await listHandovers(boat);
      const { vehicle, launches } = await towing.find(boat);
      // The car of those who had the boat before is not theirs; one that was read at the sale is the first buyer's.
      const isTheirs =
        vehicle !== null && (vehicle.delivery === null ? handovers.length <= 1 : vehicle.delivery === handovers.at(-1));
      const { ramps, towRules: own } = await settings.read();
      return {
        vehicle: isTheirs ? vehicle.vehicle : null,
        launches: [...launches],
        ramps: [...ramps],
        rules: listRules(own),
        ownRules: own.map(({ id }) => id),
      };
    },
    async setVehicle(boat: string, vehicle: Vehicle) {
      await database.inTransaction(async (t) => {
        const delivery = (await listHandovers(boat, t)).at(-1) ?? null;
        await towing.set(boat, { ...(await towing.find(boat, t)), vehicle: { delivery, vehicle } }, t);
      });
    },
    /** Once under its id, however often it is sent. */
    async addLaunch(boat: string, launch: Launch) {
      await database.inTransaction(async (t) => {
        await listHandovers(boat, t);
        const now = await towing.find(boat, t);
        const others = now.launches.filter(({ id }) => id !== launch.id);
        await towing.set(boat, { ...now, launches: [...others, launch].slice(-mostLaunches) }, t);
      });
    },
    async removeLaunch(boat: string, id: string) {
      await database.inTransaction(async (t) => {
        const now = await towing.find(boat, t);
        if (!now.launches.some((launch) => launch.id === id)) throw new Failure("not-found", { what: "launch", id });
        await towing.set(boat, { ...now, launches: now.launches.filter((launch) => launch.id !== id) }, t);
      });
    },
    async setRamp(ramp: RampSheet) {
      await settings.change(({ ramps }) => {
        const others = ramps.filter(({ id }) => id !== ramp.id);
        if (others.length >= mostRamps) throw new Failure("too-large", { limit: `${mostRamps} ramps` });
        return { ramps: [...others, ramp].sort((a, b) => (a.name < b.name ? -1 : 1)) };
      });
    },
    async setRules(rules: TowRules) {
      await settings.change((now) => {
        const others = now.towRules.filter(({ id }) => id !== rules.id);
        if (others.length >= mostRules) throw new Failure("too-large", { limit: `${mostRules} sets of rules` });
        return { towRules: [...others, rules] };
      });
    },
    async removeRules(id: string) {
      await settings.change((now) => {
        if (!now.towRules.some((rules) => rules.id === id)) throw new Failure("not-found", { what: "rules", id });
        return { towRules: now.towRules.filter((rules) => rules.id !== id) };
      });
    },
    /** Handovers of the coming days whose buyer's car is known not to fit, by the rules the store goes by; the soonest first. */
    async listMisfits(today: LocalDate): Promise<Today["misfits"]> {
      const cars = await towing.listCars();
      if (cars.length === 0) return [];
      const [sold, byId, { towRules: own }] = await Promise.all([
        deliveries.findMany(cars.flatMap(({ delivery }) => delivery ?? [])),
        boats.findMany(cars.map(({ boat }) => boat)),
        settings.read(),
      ]);
      const until = addDays(today, soonDays);
      return cars
        .flatMap(({ boat: boatId, delivery: id, vehicle }) => {
          const delivery = id === null ? undefined : sold.get(id);
          const boat = byId.get(boatId);
          if (delivery === undefined || boat === undefined || delivery.summary.state === "signed") return [];
          if (delivery.date < today || delivery.date > until) return [];
          const checks = listMisfits(rigService.read(boat.rigText), vehicle, listRules(own)[0]!);
          if (checks.length === 0) return [];
          const { name: boatName, hull } = boat;
          const { date, buyers } = delivery;
          return [
            {
              boat: boatId,
              boatName,
              serial: serialOf(hull),
              delivery: delivery.id,
              date,
              buyers: formatBuyers(buyers),
              car: vehicle.name,
              says: checks.map((check) => towWords[check][0]),
            },
          ];
        })
        .sort((a, b) => (a.date === b.date ? (a.delivery < b.delivery ? -1 : 1) : a.date < b.date ? -1 : 1));
    },
    async removeRamp(id: string) {
      await settings.change(({ ramps }) => {
        if (!ramps.some((ramp) => ramp.id === id)) throw new Failure("not-found", { what: "ramp", id });
        return { ramps: ramps.filter((ramp) => ramp.id !== id) };
      });
    },
  };
}
/** The store's own first, then what ships. */
function listRules(own: readonly TowRules[]): TowRules[] {
  const ids = new Set(own.map(({ id }) => id));
  return [...own, ...towRules.filter(({ id }) => !ids.has(id))];
}

export type TowingService = ReturnType<typeof createTowingService>;
