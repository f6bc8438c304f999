import { writeJson } from "../../core/hash/index.ts";
import {
  type Amendment,
  type Handover,
  type SealedAmendment,
  type Strike,
  strikeFirst,
  writeCanonical,
} from "../../core/record/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Photos } from "../repositories/photos.ts";
import { isFirstFormat, listPhotos } from "./sealing.ts";
import { summarizeContext } from "./summarizeContext.ts";
import type { HandoverContext, WalkReader } from "./walkReader.ts";

interface Parts {
  readonly database: Database;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly photos: Photos;
  readonly walkReader: WalkReader;
  readonly clock: Clock;
}

const shortestName = 4;
/** What somebody wrote down in their own words, and what can be missing without the walk saying something else. */
const notes: ReadonlySet<Entry["kind"]> = new Set<Entry["kind"]>(["amend", "call", "ask", "tell", "reason"]);

/** Entries that are theirs (signed, refused, come along, a day out), and notes that name them. */
export function listTheirs(entries: readonly Entry[], { id, name }: { id: string; name: string }): Entry[] {
  return entries.filter((entry) => {
    if (entry.kind === "sign" || entry.kind === "refuse" || entry.kind === "present")
      return entry.person === id || entry.name === name;
    // A day out names its guests and who waits ashore: it goes with whoever planned it.
    return entry.kind === "trip" || (notes.has(entry.kind) && namesThem(entry, name));
  });
}

/** What somebody typed into an entry, in their own words. */
export const wordsOf = (entry: Entry): string =>
  ["note", "text", "reason"]
    .flatMap((field) => {
      const value = (entry as Readonly<Record<string, unknown>>)[field];
      return typeof value === "string" ? [value] : [];
    })
    .join(" ");

/** Whether their whole name, however it is written, or their last one stands in its words. */
export function namesThem(entry: Entry, name: string): boolean {
  const holds = (word: string, flags: string) => {
    const escaped = word.replace(/[\\^$.*+?()[\]{}|/]/g, "\\$&").replace(/\s+/g, "\\s+");
    return new RegExp(`(?<!\\p{L})${escaped}(?!\\p{L})`, flags).test(wordsOf(entry));
  };
  const last = name.trim().split(/\s+/).at(-1)!;
  // A short last name may be a word like any other.
  return holds(name.trim(), "iu") || (last.length >= shortestName && holds(last, "u"));
}

/** A person's data taken out of a handover: what it was is gone; of a sealed one hashes stay, and the rest still verifies. */
export function createStrikeService({ database, deliveries, chain, photos, walkReader, clock }: Parts) {
  const permit = async (delivery: string, parts: readonly { part: string; id: string }[], t: Transaction) => {
    for (const { part, id } of parts)
      await database.models.strikes.upsert({ part, id, deliveryId: delivery, at: clock.now() }, { transaction: t });
  };
  /** A record of the first format is rewritten, with all that was added to it: its seal was over the names themselves. */
  const rewriteFirst = async (delivery: string, parts: readonly Strike[], t: Transaction) => {
    const rows = [(await chain.findSeal(delivery, t))!, ...(await chain.listAmendments(delivery, t))];
    await permit(
      delivery,
      rows.map(({ number }) => ({ part: "record", id: String(number) })),
      t,
    );
    for (const { number, canonical } of rows)
      await chain.rewrite(number, writeCanonical(strikeFirst(JSON.parse(canonical) as Handover | Amendment, parts)), t);
  };
  const amend = async (
    { walk, delivery }: HandoverContext,
    struck: NonNullable<SealedAmendment["struck"]>,
    t: Transaction,
  ) => {
    const seal = walk.sealed!.row;
    const earlier = await chain.listAmendments(delivery.id, t);
    const at = await chain.findNext(clock.now(), t);
    const basis = { delivery: delivery.id, previous: (earlier.at(-1) ?? seal).sha256, at, entries: [], struck };
    const link = { deliveryId: delivery.id, kind: "amendment" as const, at };
    if (isFirstFormat(seal.canonical))
      return chain.add({ ...link, canonical: writeCanonical({ format: "ravik.amendment/1", ...basis }) }, t);
    const amendment: SealedAmendment = { format: "ravik.amendment/3", ...basis, why: "struck", photos: [] };
    const content = { people: {}, entries: {}, photos: {} };
    return chain.add({ ...link, canonical: writeJson(amendment), content }, t);
  };
  /** Of these photos those that only these handovers have. */
  const listAlone = async (ids: readonly string[], among: ReadonlySet<string>) => {
    const alone: string[] = [];
    for (const photo of new Set(ids))
      if ((await deliveries.listOfPhoto(photo)).every((id) => among.has(id))) alone.push(photo);
    return alone;
  };
  return {
    /**
     * Strikes a buyer's name, signatures and notes that name them from a handover, for a reason that stays in its chain where
     * it is sealed; and its photos that no handover but `photosOf` has. Failure: `not-found`.
     */
    async strike(
      id: string,
      by: string,
      { person, photosOf, reason }: { person: string; photosOf: readonly string[]; reason: string },
      t: Transaction,
    ): Promise<void> {
      const context = await walkReader.get(id, t);
      const { walk, log, delivery } = context;
      const buyer = walk.buyers.find((each) => each.id === person);
      if (buyer === undefined) throw new Failure("not-found", { what: "buyer", id: person });
      const taken = await listAlone(photosOf.length === 0 ? [] : listPhotos(log.entries), new Set(photosOf));
      const parts: Strike[] = [
        { part: "person", id: person },
        ...listTheirs(log.entries, buyer).map((entry): Strike => ({ part: "entry", id: entry.id })),
        ...taken.map((photo): Strike => ({ part: "photo", id: photo })),
      ];
      await permit(id, parts, t);
      if (walk.sealed !== null) {
        if (isFirstFormat(walk.sealed.row.canonical)) await rewriteFirst(id, parts, t);
        else await chain.strike(id, parts, t);
        await amend(context, { parts, by, reason }, t);
      }
      await deliveries.strike(delivery.id, parts, person, t);
      for (const photo of taken) await photos.strike(photo, t);
      await deliveries.setSummary(id, summarizeContext(await walkReader.get(id, t)), t);
    },
    permit,
  };
}

export type StrikeService = ReturnType<typeof createStrikeService>;
