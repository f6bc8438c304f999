import { toInstant } from "../../core/dates/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { EntryStore } from "./entryStore.ts";
import { summarizeContext } from "./summarizeContext.ts";
import type { WalkReader } from "./walkReader.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly snapshots: Snapshots;
  readonly walkReader: WalkReader;
  readonly clock: Clock;
}

const dayMs = 86_400_000;
/** So long a snapshot that no entry names is kept: a tablet may have gone out with it. */
const keepSnapshotsMs = 45 * dayMs;

/** What is made good at a start and once a day: what an older version kept otherwise, what a kill interrupted, what is not needed. */
export function createUpkeep(parts: Parts, { carryOn }: Pick<EntryStore, "carryOn">) {
  const { database, boats, deliveries, chain, snapshots, walkReader, clock } = parts;
  return {
    /** Works out anew what Today reads of handovers that an older version of Ravik kept in another form. */
    async mendSummaries() {
      for (const { id } of await deliveries.listUnsummarized())
        await database.inTransaction(async (t) => {
          const isSigned = (await chain.findSeal(id, t)) !== null;
          const delivery = (await deliveries.find(id, t))!;
          const boat = (await boats.find(delivery.boatId, t))!;
          const state = isSigned ? "signed" : "planned";
          const context = await walkReader.read({ ...delivery, summary: { ...delivery.summary, state } }, boat, t);
          await deliveries.setSummary(id, summarizeContext(context), t);
        });
    },

    /** At every start: walks of an older version are given a snapshot, and closings that were interrupted are sealed. */
    async resume() {
      for (const { id } of await deliveries.listUnfrozen()) {
        const context = await walkReader.get(id);
        const { sha256 } = await walkReader.freeze(context);
        await database.inTransaction(async (t) => {
          await deliveries.setSnapshot(id, sha256, t);
          await snapshots.markUsed([sha256], t);
        });
      }
      for (const id of await deliveries.listClosing()) await carryOn(id, []);
    },

    /** Snapshots that no entry ever named go after 45 days; answers how many went. */
    removeOldSnapshots: () => snapshots.removeUnused(toInstant(clock.nowMs() - keepSnapshotsMs)),
  };
}
