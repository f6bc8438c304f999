import { type BoatFacts, describeBoat, seasonOf } from "../../core/care/index.ts";
import { createWeekGrid, loadWeeks } from "../../core/workshop/index.ts";
import type { Clock } from "../clock.ts";
import { createReadModels, type Versions } from "../readModel.ts";
import type { BoatHead, Boats } from "../repositories/boats.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { CareReader } from "./careReader.ts";
import type { PackService } from "./packService.ts";

/** A boat that was handed over, with its care as known today. */
export interface FleetBoat extends BoatFacts {
  readonly boat: BoatHead;
  /** Goes up with every write of the boat. */
  readonly version: number;
  /** One of its engines is in its first hours. */
  readonly isBreakInOpen: boolean;
}

interface Parts {
  readonly boats: Boats;
  readonly careReader: CareReader;
  readonly packService: PackService;
  readonly settings: ReturnType<typeof createSettings>;
  readonly versions: Versions;
  readonly clock: Clock;
}

/** The care of all boats that were handed over: what call list, workshop, Today, boats list and calendar are made from. */
export function createFleetCare({ boats, careReader, packService, settings, versions, clock }: Parts) {
  const stamp = async () =>
    `${clock.today()} ${await packService.stamp()} ${await careReader.fleetStamp()} ${(await settings.read()).region.weekStart}`;
  const model = createReadModels<FleetBoat>(versions, {
    kind: "boat",
    key: stamp,
    async make(ids) {
      const found = await boats.listCared(ids);
      const questions = await careReader.askMany(found);
      const { weekStart } = (await settings.read()).region;
      const grid = createWeekGrid(clock.today(), loadWeeks, seasonOf(await careReader.readFleet()), weekStart);
      const numbers = (await versions.read()).get("boat");
      return new Map(
        found.map(({ rig: _, ...boat }, i) => {
          const question = { ...questions[i]!, inService: boat.inService };
          const cared = describeBoat(boat.id, question, grid);
          const isBreakInOpen = cared.facts.engines.some(({ isBreakInDone }) => !isBreakInDone);
          return [boat.id, { boat, version: numbers?.get(boat.id) ?? 0, isBreakInOpen, ...cared }];
        }),
      );
    },
  });
  return {
    /** What all of it depends on besides the boats: when it changes, all is worked out anew. */
    stamp,
    /** By boat. */
    readAll: model,
    read: async (): Promise<FleetBoat[]> => [...(await model()).values()],
    find: async (boat: string): Promise<FleetBoat | null> => (await model()).get(boat) ?? null,
  };
}

export type FleetCare = ReturnType<typeof createFleetCare>;
