import type { DockCall, DockCallSheet } from "../../api/index.ts";
import { faultContent } from "../../content/index.ts";
import { type ClosedCall, type LearnedPrior, learnPriors } from "../../core/faults/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { formatBuyers } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import { createReadModel, type Versions } from "../readModel.ts";
import type { createBoats } from "../repositories/boats.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { FaultCall } from "../repositories/entries.ts";
import type { People } from "../repositories/people.ts";
import type { createSettings } from "../repositories/settings.ts";
import { ownerPerson } from "./author.ts";

interface Parts {
  readonly deliveries: Deliveries;
  readonly boats: ReturnType<typeof createBoats>;
  readonly people: People;
  readonly settings: ReturnType<typeof createSettings>;
  readonly versions: Versions;
  readonly clock: Clock;
}

/** So many of the latest calls are looked at; so many closed ones are shown. */
const mostCalls = 2000;
const mostShown = 100;

/** Calls about what fails: which are open, what each came to, and what they teach about what to look at first. */
export function createDockCallService(parts: Parts) {
  const { deliveries, settings, clock } = parts;
  const model = createLearningModel(parts);
  return {
    async describe(): Promise<DockCallSheet> {
      const calls = await deliveries.listFaultCalls(null, mostCalls);
      // Only who takes calls closes one, and of the same handover: an owner's question closes nobody's.
      const goneOn = new Set(
        calls.filter(isTaken).map(({ deliveryId, entry }) => `${deliveryId} ${entry.fault.goesOn}`),
      );
      const isOpen = ({ deliveryId, entry }: FaultCall) =>
        entry.fault.cause === null && !goneOn.has(`${deliveryId} ${entry.id}`);
      const open = calls.filter(isOpen);
      const closed = calls.filter((call) => call.entry.fault.cause !== null).slice(0, mostShown);
      const describe = await prepareLines(parts, [...open, ...closed]);
      return {
        open: open.flatMap(describe),
        closed: closed.flatMap(describe),
        learned: [...(await model()).value],
        since: (await settings.read()).callsSince,
      };
    },
    /** What this store's calls say of the kinds on boats of one family. */
    async readLearned(family: Rig["family"]): Promise<LearnedPrior[]> {
      return (await model()).value.filter((each) => each.family === null || each.family === family);
    },
    /** From now on: calls before this count no more, for what fails nor for what is taught further. They stay where they are. */
    async forget() {
      await settings.change({ callsSince: clock.now() });
    },
  };
}
export type DockCallService = ReturnType<typeof createDockCallService>;

const isTaken = ({ entry }: FaultCall) => entry.kind === "call";

/** Learned from calls that somebody here took: what owners write on their pages moves no likelihood. */
function createLearningModel({ deliveries, boats, settings, versions }: Parts) {
  const since = async () => (await settings.read()).callsSince;
  return createReadModel(versions, {
    key: async () => `${await since()} ${await deliveries.findLastCall()}`,
    async make() {
      const calls = (await deliveries.listFaultCalls(await since(), mostCalls)).filter(isTaken);
      const sold = await deliveries.findMany(calls.map(({ deliveryId }) => deliveryId));
      const shapes = await boats.listShapes([...sold.values()].map(({ boatId }) => boatId));
      const closed = calls.flatMap(({ deliveryId, entry: { fault } }): ClosedCall[] => {
        const family = shapes.get(sold.get(deliveryId)?.boatId ?? "")?.family;
        if (fault.cause === null || family === undefined) return [];
        return [{ family, atStake: fault.atStake, cause: fault.cause.kind }];
      });
      return learnPriors(faultContent, closed);
    },
  });
}

/** Boats, buyers and names are looked up at once for all. */
async function prepareLines({ deliveries, boats, people }: Parts, calls: readonly FaultCall[]) {
  const sold = await deliveries.findMany(calls.map(({ deliveryId }) => deliveryId));
  const boatOf = await boats.findMany([...sold.values()].map(({ boatId }) => boatId));
  const nameOf = new Map((await people.list()).map(({ id, name }) => [id, name]));
  return ({ deliveryId, entry }: FaultCall): DockCall[] => {
    const delivery = sold.get(deliveryId);
    const boat = boatOf.get(delivery?.boatId ?? "");
    if (delivery === undefined || boat === undefined) return [];
    const { fails, cause, minutes } = entry.fault;
    const isOwner = entry.by === ownerPerson.id;
    return [
      {
        id: entry.id,
        delivery: delivery.id,
        boat: boat.id,
        boatName: boat.name,
        hull: boat.hull,
        buyers: formatBuyers(delivery.buyers),
        at: entry.at,
        by: isOwner ? null : (nameOf.get(entry.by) ?? entry.by),
        fails,
        cause: cause?.label ?? null,
        minutes,
        note: entry.note,
      },
    ];
  };
}
