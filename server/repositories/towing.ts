import { Op } from "sequelize";
import type { Launch } from "../../core/ramp/index.ts";
import type { Vehicle } from "../../core/tow/index.ts";
import type { Database, Transaction } from "../database/open.ts";
import { readAll, readOne } from "../database/rows.ts";

/** A buyer's car: theirs, so that it goes with their handover and not with the boat. */
export interface KeptVehicle {
  /** Null where the boat had no handover yet. */
  readonly delivery: string | null;
  readonly vehicle: Vehicle;
}
export interface Towing {
  readonly vehicle: KeptVehicle | null;
  readonly launches: readonly Launch[];
}

/** What each boat is towed with, and its launches as they were seen. */
export function createTowing({ models }: Database) {
  return {
    async find(boatId: string, transaction?: Transaction): Promise<Towing> {
      const row = await readOne(models.towing, boatId, transaction);
      if (row === null) return { vehicle: null, launches: [] };
      return {
        vehicle: row.vehicle === null ? null : (JSON.parse(row.vehicle) as KeptVehicle),
        launches: JSON.parse(row.launches) as Launch[],
      };
    },
    /** Every car that was read and belongs to a handover. */
    async listCars(): Promise<{ boat: string; delivery: string | null; vehicle: Vehicle }[]> {
      const rows = await readAll(models.towing, { where: { vehicle: { [Op.not]: null } } });
      return rows.map(({ boatId, vehicle }) => ({ boat: boatId, ...(JSON.parse(vehicle!) as KeptVehicle) }));
    },
    async set(boatId: string, { vehicle, launches }: Towing, transaction: Transaction) {
      const row = {
        boatId,
        vehicle: vehicle === null ? null : JSON.stringify(vehicle),
        launches: JSON.stringify(launches),
      };
      await models.towing.upsert(row, { transaction });
    },
  };
}
export type TowingRows = ReturnType<typeof createTowing>;
