import type { Instant } from "../../core/dates/index.ts";
import { writeJson } from "../../core/hash/index.ts";
import type { SealedAmendment, Strike } from "../../core/record/index.ts";
import { type Entry, struckName } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Photos } from "../repositories/photos.ts";
import { isFirstFormat } from "./sealing.ts";
import type { WalkReader } from "./walkReader.ts";

interface Parts {
  readonly database: Database;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly photos: Photos;
  readonly walkReader: WalkReader;
  readonly clock: Clock;
}

/** A person's data taken out of a sealed handover: what it was is gone, its hashes stay, and the rest still verifies. */
export function createStrikeService({ database, deliveries, chain, photos, walkReader, clock }: Parts) {
  /** What is struck with a person: the name, and what was signed or refused under it. */
  const listOfPerson = (entries: readonly Entry[], person: string, name: string): Strike[] => [
    { part: "person", id: person },
    ...entries.flatMap((entry): Strike[] => {
      const isSigned = entry.kind === "sign" || entry.kind === "refuse" || entry.kind === "present";
      const isTheirs = isSigned && (entry.person === person || entry.name === name);
      // A day out names its guests and who waits ashore: it goes with whoever planned it.
      return isTheirs || entry.kind === "trip" ? [{ part: "entry", id: entry.id }] : [];
    }),
  ];
  const permit = async (delivery: string, parts: readonly Strike[], at: Instant, transaction: Transaction) => {
    for (const { part, id } of parts)
      await database.models.strikes.upsert({ part, id, deliveryId: delivery, at }, { transaction });
  };
  return {
    /**
     * Strikes a buyer's name and signatures, and these photos, from a sealed handover, for a reason that stays. Failures:
     * `not-sealed`, `first-format` (its seal is over the names themselves), `not-found`.
     */
    async strike(
      delivery: string,
      by: string,
      { person, photos: photoIds, reason }: { person: string; photos: readonly string[]; reason: string },
    ): Promise<void> {
      const at = clock.now();
      await database.inTransaction(async (t) => {
        const { walk, log } = await walkReader.get(delivery, t);
        if (walk.sealed === null) throw new Failure("not-sealed", { delivery });
        if (isFirstFormat(walk.sealed.row.canonical)) throw new Failure("first-format", { delivery });
        const buyer = walk.buyers.find(({ id }) => id === person);
        if (buyer === undefined) throw new Failure("not-found", { what: "buyer", id: person });
        const held = new Set(log.entries.flatMap((entry) => (entry.kind === "photo" ? [entry.photo] : [])));
        const unknown = photoIds.find((id) => !held.has(id));
        if (unknown !== undefined) throw new Failure("not-found", { what: "photo", id: unknown });
        const parts: Strike[] = [
          ...listOfPerson(log.entries, person, buyer.name),
          ...photoIds.map((id): Strike => ({ part: "photo", id })),
        ];
        await permit(delivery, parts, at, t);
        await chain.strike(delivery, parts, t);
        await deliveries.strike(delivery, parts, person, struckName, t);
        for (const id of photoIds) await photos.strike(id, t);
        const earlier = await chain.listAmendments(delivery, t);
        const amendment: SealedAmendment = {
          format: "ravik.amendment/2",
          delivery,
          previous: (earlier.at(-1) ?? walk.sealed.row).sha256,
          at,
          why: "struck",
          entries: [],
          photos: [],
          struck: { parts, by, reason },
        };
        const content = { people: {}, entries: {}, photos: {} };
        await chain.add({ deliveryId: delivery, kind: "amendment", canonical: writeJson(amendment), content, at }, t);
      });
    },
  };
}

export type StrikeService = ReturnType<typeof createStrikeService>;
