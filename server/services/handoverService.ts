import { isDeepStrictEqual } from "node:util";
import { ulid } from "ulid";
import type { Acknowledged, BodyOf, endpoints, PlanComparison } from "../../api/index.ts";
import type { Arrival, Receipt } from "../../core/record/index.ts";
import { createStyle, defaultPlanOptions, type PlanOptions, routeStyles } from "../../core/route/index.ts";
import type { Entry } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { HighWater } from "../keeping/highWater.ts";
import type { Messages } from "../messages.ts";
import type { NewsService } from "../news.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Imports } from "../repositories/imports.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { People } from "../repositories/people.ts";
import type { Settings } from "../repositories/settings.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { WalkLog } from "../repositories/walkLogs.ts";
import type { Author } from "./author.ts";
import { createEntryCheck } from "./checkEntry.ts";
import { createEntryStore, type EntryArrival, type EntryStore } from "./entryStore.ts";
import { createHandoverReader } from "./handoverReader.ts";
import type { LibraryService } from "./libraryService.ts";
import type { RigService } from "./rigService.ts";
import type { Sealing } from "./sealing.ts";
import { summarize } from "./summarize.ts";
import { summarizeContext } from "./summarizeContext.ts";
import { createUpkeep } from "./upkeep.ts";
import type { WalkReader } from "./walkReader.ts";
import type { WalksInHand } from "./walksInHand.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly snapshots: Snapshots;
  readonly ownerLinks: OwnerLinks;
  readonly messages: Messages;
  readonly news: NewsService;
  readonly people: People;
  readonly imports: Imports;
  readonly rigService: RigService;
  readonly libraryService: LibraryService;
  readonly walkReader: WalkReader;
  readonly walksInHand: WalksInHand;
  readonly sealing: Sealing;
  readonly settings: { read(): Promise<Settings> };
  readonly highWater: HighWater;
  readonly clock: Clock;
}

/** A handover from plan to seal and after: what a walk is given, what it may add, and when it is sealed. */
export function createHandoverService(parts: Parts) {
  const entryStore = createEntryStore(parts);
  const { describe } = createHandoverReader(parts);
  return {
    get: parts.walkReader.get,
    describe,
    ...createPlanning(parts),
    ...createPosting(parts, entryStore),
    ...createUpkeep(parts, entryStore),
  };
}

export type HandoverService = ReturnType<typeof createHandoverService>;

/** Plans of walks that have not begun. */
function createPlanning({ database, boats, deliveries, rigService, libraryService, walkReader, settings }: Parts) {
  const { get } = walkReader;
  return {
    /** Plans a handover in the style "power first" and with the time the store usually has; the plan screen makes it theirs. */
    async add(wish: BodyOf<typeof endpoints.addDelivery>): Promise<string> {
      const { boat: boatId, date, time, buyers, note, phone, email } = wish;
      const boat = await boats.find(boatId);
      if (boat === null) throw new Failure("not-found", { what: "boat", id: boatId });
      const { usualMin } = await settings.read();
      const planOptions: PlanOptions = {
        ...defaultPlanOptions,
        style: routeStyles[0]!.id,
        people: buyers.length,
        budgetMin: usualMin,
      };
      const id = ulid().toLowerCase();
      const topics = rigService.prepareTopics(boat.rigText, await libraryService.read(), planOptions);
      const delivery = {
        id,
        boatId,
        date,
        time,
        note,
        buyers: buyers.map((name, i) => ({ id: `b${i + 1}`, name })),
        planOptions,
        summary: summarize({ rig: rigService.read(boat.rigText), topics }, [], [], false),
      };
      await database.inTransaction(async (transaction) => {
        await deliveries.add(delivery, transaction);
        if (phone !== "" || email !== "")
          await boats.setContact(boatId, { name: buyers[0]!, phone, email, optOut: false }, transaction);
      });
      return id;
    },

    /** Each style with the same people, place and minutes, for this boat. */
    async compareStyles(id: string): Promise<PlanComparison[]> {
      const { delivery, boat } = await get(id);
      const library = await libraryService.read();
      const styles = [...routeStyles, ...library.ownStyles.map(createStyle)];
      return Promise.all(
        styles.map(async ({ id: style, name, line }) => {
          const options = { ...delivery.planOptions, style, manualOrder: null };
          const { plan, topics } = await rigService.prepare(boat.rigText, library, options);
          const { moves, moveMin, totalMin, deferred, firstMust } = plan;
          const title = topics.find((topic) => topic.id === firstMust?.topic)?.title;
          return {
            style,
            name,
            line,
            moves,
            moveMin,
            totalMin,
            deferred: deferred.length,
            firstMust: firstMust === null || title === undefined ? null : { title, atMin: firstMust.atMin },
          };
        }),
      );
    },

    /** Plans the walk anew for these people, this place and this time. A walk under way goes by what it began with. */
    async setPlan(id: string, options: PlanOptions) {
      // Searched before the transaction, so that a circle is refused and the answer is at hand.
      const { boat } = await get(id);
      await rigService.prepare(boat.rigText, await libraryService.read(), options);
      await database.inTransaction(async (t) => {
        const context = await get(id, t);
        if (context.walk.sealed !== null) throw new Failure("sealed", { delivery: id });
        const now = await walkReader.read({ ...context.delivery, planOptions: options }, context.boat, t);
        await deliveries.setPlan(id, options, summarizeContext(now), t);
      });
    },
  };
}

/** How entries come. */
interface Sending {
  readonly via?: Arrival;
  /** What the clock of their device said as it sent them. */
  readonly deviceMs?: number | undefined;
  /** In a demo: when each is said to have come. */
  readonly receivedAtOf?: EntryArrival["receivedAtOf"];
  /** What this store last acknowledged to it. */
  readonly acknowledged?: Acknowledged | undefined;
}

/** What is entered, from wherever it comes. */
function createPosting(parts: Parts, { store, carryOn }: EntryStore) {
  const { database, deliveries, snapshots, news, libraryService, walkReader, walksInHand } = parts;
  const { sealing, settings, highWater, clock } = parts;
  const { get } = walkReader;
  /** For a start or a close that names nothing (old tablets): what the walk goes by is made ready, before any transaction. */
  const prepareStart = async (id: string, sent: readonly Entry[]): Promise<string | null> => {
    const mayNeed = sent.some(({ kind }) => kind === "start" || kind === "close");
    if (!mayNeed || (await deliveries.find(id))?.snapshot != null) return null;
    const context = await get(id);
    if (context.walk.sealed !== null) return null;
    const named = await snapshots.findMany(
      sent.flatMap(({ kind, snapshot }) => (kind === "start" ? (snapshot ?? []) : [])),
    );
    return named.size > 0 ? null : (await walkReader.freeze(context)).sha256;
  };
  return {
    prepareStart,

    /**
     * Stores what is new, once; all or none. What was stored before and is the same is only acknowledged. A close seals the
     * handover as soon as all it lists is here and nothing is in the way; what comes after the seal is chained to it.
     * How they came stands beside them.
     */
    async addEntries(
      id: string,
      author: Author,
      sent: readonly Entry[],
      { via = "staff", deviceMs, acknowledged, receivedAtOf }: Sending = {},
    ) {
      if (acknowledged !== undefined) await highWater.check(acknowledged);
      const arrival = {
        via,
        receivedAtOf,
        ...(deviceMs === undefined ? {} : { offsetMs: Math.round(clock.nowMs() - deviceMs) }),
      };
      const library = await libraryService.read();
      const { allowers } = await settings.read();
      const ready = await prepareStart(id, sent);
      /** Looks at what was sent beside what is here, and writes nothing. */
      const look = async (t: Transaction) => {
        const taken = await walksInHand.take(
          id,
          sent.map((entry) => entry.id),
          t,
        );
        const { context } = taken;
        const { fresh, known } = splitKnown(context.log, sent);
        if (fresh.length === 0) return { taken, fresh, known };
        const named = await snapshots.findMany(
          fresh.flatMap((entry) => (entry.kind === "update" ? [entry.next] : [])),
          t,
        );
        const names = fresh.flatMap((entry) => [
          ...(entry.snapshot === undefined ? [] : [entry.snapshot]),
          ...(entry.kind === "update" ? [entry.next] : []),
        ]);
        const foreign = await snapshots.listForeign(names, { deliveryId: id, hull: context.boat.hull }, t);
        const all = [...context.log.entries, ...fresh];
        const check = createEntryCheck({ context, library, author, allowers, via, all, named, foreign });
        sent.forEach((entry, i) => {
          if (fresh.includes(entry)) check(entry, `entries[${i}]`);
        });
        return { taken, fresh, known };
      };
      const done = await database.inSharedTransaction(async (t) => {
        // A refusal is an answer: thrown here it would take along what others have in this transaction.
        const looked = await look(t).catch((error: unknown) => {
          if (error instanceof Failure) return error;
          throw error;
        });
        if (looked instanceof Failure) return looked;
        const { taken, fresh, known } = looked;
        if (fresh.length > 0) return { fresh, known, ...(await store(taken, arrival, fresh, ready, t)) };
        // Sent again: what was interrupted then is done now.
        const { context } = taken;
        const isSealed = context.walk.sealed === null && (await sealing.sealIfReady(context, t)) !== null;
        return { fresh, known, receipts: new Map<string, Receipt>(), isSealed };
      });
      if (done instanceof Failure) throw done;
      const { fresh, known, receipts, isSealed } = done;
      if (fresh.length > 0 || isSealed)
        news.tell(id, { entries: fresh, receipts: Object.fromEntries(receipts), isSealed });
      const last = [...receipts.values()].reduce((most, { number }) => Math.max(most, number), 0);
      return {
        stored: fresh.map((entry) => entry.id),
        known,
        acknowledged: last === 0 ? null : await highWater.prove(last),
      };
    },

    /** A photo has arrived, or was sent again: handovers that waited for it may be sealed now; to sealed ones it is added. */
    async noteArrived(photo: string) {
      for (const id of await deliveries.listOfPhoto(photo)) await carryOn(id, [photo]);
    },
  };
}

/** What is new of what was sent, each once, and the ids of what is here already and is the same. */
function splitKnown({ entries, receipts }: WalkLog, sent: readonly Entry[]): { fresh: Entry[]; known: string[] } {
  const findStored = (id: string) => (receipts.has(id) ? entries.find((entry) => entry.id === id) : undefined);
  const known: string[] = [];
  const fresh = new Map<string, Entry>();
  for (const [i, entry] of sent.entries()) {
    const before = findStored(entry.id) ?? fresh.get(entry.id);
    if (before === undefined) fresh.set(entry.id, entry);
    else if (!isDeepStrictEqual(before, entry))
      throw new Failure("entry-differs", { path: `entries[${i}]`, id: entry.id });
    else known.push(entry.id);
  }
  return { fresh: [...fresh.values()], known };
}
