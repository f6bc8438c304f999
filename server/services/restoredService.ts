import { ulid } from "ulid";
import type { RestoredSheet } from "../../api/index.ts";
import type { Clock } from "../clock.ts";
import type { Database } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Jobs } from "../jobs.ts";
import type { Epochs } from "../keeping/epoch.ts";
import type { Messages } from "../messages.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { People } from "../repositories/people.ts";
import type { Photos } from "../repositories/photos.ts";
import type { Author } from "./author.ts";
import type { HandoverService } from "./handoverService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Pick<Boats, "listHeads">;
  readonly deliveries: Pick<Deliveries, "find" | "listMissing" | "listMissingPhotos">;
  readonly photos: Pick<Photos, "giveUp">;
  readonly chain: Pick<Chain, "findSeal">;
  readonly handoverService: Pick<HandoverService, "noteArrived" | "addEntries">;
  readonly messages: Pick<Messages, "listPage">;
  readonly people: Pick<People, "list">;
  readonly jobs: Pick<Jobs, "listDue" | "leaveOut">;
  readonly epochs: Epochs;
  readonly clock: Clock;
}

/** More are counted among the rest: whoever has so many looks at the backup, not at a list. */
const mostListed = 200;

/** A store that was put back from a backup: what is missing in it, and what waits until its owner lets it go on. */
export function createRestoredService(parts: Parts) {
  const { database, deliveries, photos, chain, handoverService, jobs, epochs, clock } = parts;
  return {
    /** Null for a store that was never put back. */
    read: () => readSheet(parts),
    /** Jobs and messages go on; jobs that fell due by now are done or left out. Once let go on, it stays so. */
    async release(by: string, due: "do" | "leave-out"): Promise<RestoredSheet | null> {
      await database.inTransaction(async (t) => {
        if (!(await epochs.isHeld(t))) throw new Failure("not-found", { what: "restore" });
        if (due === "leave-out") await jobs.leaveOut("left out after the restore", t);
        await epochs.release(by, clock.now(), t);
      });
      return readSheet(parts);
    },
    /**
     * The photos that are missing come no more: what waits for them is sealed without, and its record says so. Those that have
     * come meanwhile stay.
     */
    async giveUpPhotos(owner: Author): Promise<RestoredSheet | null> {
      const epoch = await epochs.find();
      if (epoch === null) throw new Failure("not-found", { what: "restore" });
      const how =
        epoch.why === "behind"
          ? "when the store lost what it had taken last"
          : "when the store was put back from a backup";
      const missing = await deliveries.listMissingPhotos();
      await database.inTransaction(async (t) => {
        for (const { entry, deliveryId } of missing) await photos.giveUp(entry.photo, deliveryId, clock.now(), t);
      });
      for (const id of new Set(missing.map(({ deliveryId }) => deliveryId))) {
        const lost = missing.filter(({ deliveryId }) => deliveryId === id);
        await handoverService.noteArrived(lost[0]!.entry.photo);
        if ((await chain.findSeal(id)) === null) continue;
        const note = `${lost.length === 1 ? "One photo was" : `${lost.length} photos were`} lost ${how}.`;
        const base = { id: ulid(clock.nowMs()), delivery: id, at: clock.now(), by: owner.id, device: "server" };
        await handoverService.addEntries(id, owner, [{ ...base, kind: "amend", note }]);
      }
      return readSheet(parts);
    },
    /** Of the entries that a device holds those that are not here. */
    listMissing: deliveries.listMissing,
  };
}

async function readSheet({ boats, deliveries, messages, people, jobs, epochs }: Parts): Promise<RestoredSheet | null> {
  const epoch = await epochs.find();
  if (epoch === null) return null;
  const [due, { states }, photos, staff] = await Promise.all([
    epoch.released === null ? jobs.listDue() : [],
    messages.listPage({ find: "", state: null, from: 0, limit: 1 }),
    deliveries.listMissingPhotos(),
    people.list(),
  ]);
  const nameOf = (id: string) => staff.find((person) => person.id === id)?.name ?? id;
  const shown = await Promise.all(
    photos
      .slice(0, mostListed)
      .map(async (photo) => ({ ...photo, delivery: (await deliveries.find(photo.deliveryId))! })),
  );
  const heads = await boats.listHeads([
    ...new Set([...due.map(({ boatId }) => boatId), ...shown.map(({ delivery }) => delivery.boatId)]),
  ]);
  const boatName = (id: string) => heads.find((boat) => boat.id === id)?.name ?? id;
  return {
    why: epoch.why ?? "restored",
    at: epoch.at,
    of: epoch.of,
    released: epoch.released === null ? null : { ...epoch.released, by: nameOf(epoch.released.by) },
    jobs: due.map(({ id, kind, boatId, dueAtMs }) => ({ id, kind, boat: boatId, boatName: boatName(boatId), dueAtMs })),
    messages: { waiting: states.waiting ?? 0, ready: states.ready ?? 0 },
    missingPhotos: shown.map(({ entry, delivery }) => ({
      photo: entry.photo,
      delivery: delivery.id,
      boat: delivery.boatId,
      boatName: boatName(delivery.boatId),
      topic: entry.topic ?? null,
      at: entry.at,
      by: nameOf(entry.by),
    })),
  };
}
