import { isDeepStrictEqual } from "node:util";
import { ulid } from "ulid";
import type { BodyOf, Delivery, endpoints, PlanComparison } from "../../api/index.ts";
import { usuallyForgotten } from "../../content/index.ts";
import { toInstant } from "../../core/dates/index.ts";
import {
  type Amendment,
  type Arrival,
  compareSnapshots,
  mergeSnapshots,
  type Receipt,
  type SealedAmendment,
  type Snapshot,
  type Strike,
} from "../../core/record/index.ts";
import { createStyle, defaultPlanOptions, type PlanOptions, routeStyles } from "../../core/route/index.ts";
import { type Entry, foldWalk, formatBuyers, isExplaining, scoreForgotten } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { Messages } from "../messages.ts";
import type { NewsService } from "../news.ts";
import type { Boats } from "../repositories/boats.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { People } from "../repositories/people.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import { addToLog } from "../repositories/walkLogs.ts";
import type { Author } from "./author.ts";
import { createEntryCheck } from "./checkEntry.ts";
import type { LibraryService } from "./libraryService.ts";
import type { RigService } from "./rigService.ts";
import { listPhotos, type Sealing } from "./sealing.ts";
import { summarize } from "./summarize.ts";
import type { HandoverContext, WalkReader } from "./walkReader.ts";

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
  readonly rigService: RigService;
  readonly libraryService: LibraryService;
  readonly walkReader: WalkReader;
  readonly sealing: Sealing;
  readonly clock: Clock;
}

const dayMs = 86_400_000;
/** So long a snapshot that no entry names is kept: a tablet may have gone out with it. */
const keepSnapshotsMs = 45 * dayMs;

/** A handover from plan to seal and after: what a walk is given, what it may add, and when it is sealed. */
export function createHandoverService(parts: Parts) {
  const { database, boats, deliveries, chain, snapshots, ownerLinks, messages, news, people } = parts;
  const { rigService, libraryService, walkReader, sealing, clock } = parts;
  const { get } = walkReader;

  const listStaff = async ({ walk, log }: HandoverContext, strikes: Delivery["strikes"]) => {
    const ids = new Set([...log.entries, ...strikes].map(({ by }) => by));
    const theirs = walk.sealed?.people ?? [];
    const ours = (await people.list()).filter(({ id }) => ids.has(id) && !theirs.some((person) => person.id === id));
    return [...theirs, ...ours.map(({ id, name }) => ({ id, name }))];
  };

  /** What has changed in library or boat since a walk began, of what is still to come, and the snapshot with it; or null. */
  const findNext = async (context: HandoverContext, current: Snapshot): Promise<Delivery["next"]> => {
    const { delivery, boat, log } = context;
    const rig = rigService.read(boat.rigText);
    const topics = rigService.prepareTopics(boat.rigText, await libraryService.read(), delivery.planOptions);
    const explained = listExplained(log.entries);
    const fresh = { rig, topics: [...topics], makeReady: current.makeReady };
    const changes = compareSnapshots(current, fresh, explained);
    if (changes.topics.length === 0 && !changes.isBoatChanged) return null;
    const { snapshot } = await walkReader.makeFresh(context);
    const merged = mergeSnapshots(current, snapshot, explained);
    return {
      snapshot: await walkReader.keep(delivery.id, merged),
      topics: [...changes.topics],
      isBoatChanged: changes.isBoatChanged,
    };
  };

  /** What a walk goes by; of one that has not begun, what it would begin with, kept before it is handed out. */
  const readPlanned = async (context: HandoverContext) => {
    const { walk } = context;
    if (walk.plan !== null) {
      const current = walk.sealed === null && walk.snapshot !== null ? await snapshots.find(walk.snapshot) : null;
      const next = current === null ? null : await findNext(context, current);
      return { ...walk, plan: walk.plan, next };
    }
    const { sha256, snapshot } = await walkReader.freeze(context);
    return { ...walk, topics: snapshot.topics, plan: snapshot.plan, snapshot: sha256, next: null };
  };

  /** After entries were stored: what the walk goes by from now on. Old tablets name nothing: then what was made ready for it. */
  const settleSnapshot = async (context: HandoverContext, ready: string | null, t: Transaction) => {
    const { delivery, log } = context;
    const state = foldWalk(log.entries, (id) => log.receipts.get(id)?.number);
    const isBegun = state.startedAt !== null || state.closedAt !== null;
    if (!isBegun) return context;
    const named = state.snapshot === null ? null : await snapshots.find(state.snapshot, t);
    const sha256 = named === null ? (delivery.snapshot ?? ready) : state.snapshot;
    if (sha256 === null || sha256 === delivery.snapshot) return context;
    await deliveries.setSnapshot(delivery.id, sha256, t);
    await snapshots.markUsed([sha256], t);
    const begun = { ...delivery, snapshot: sha256 };
    const { walk } = await walkReader.read(begun, context.boat, t);
    return { ...context, delivery: begun, walk };
  };

  /** Messages to the buyer that stand among these entries. */
  const sendMessages = async ({ delivery, boat }: HandoverContext, stored: readonly Entry[], t: Transaction) => {
    const recipient = formatBuyers(delivery.buyers);
    for (const entry of stored)
      if (entry.kind === "tell") {
        const { id, text, at } = entry;
        await messages.send({ id, deliveryId: delivery.id, boatId: boat.id, kind: "note", recipient, text, at }, t);
      }
  };

  /** Within the transaction: stores what is new and does what follows from it. */
  const store = async (
    context: HandoverContext,
    via: Arrival,
    fresh: readonly Entry[],
    ready: string | null,
    t: Transaction,
  ) => {
    const { delivery, log, walk } = context;
    const receivedAt = clock.now();
    const receipts = await deliveries.addEntries(delivery.id, fresh, { receivedAt, via }, t);
    const all = addToLog(
      log,
      fresh.map((entry) => ({ entry, receipt: receipts.get(entry.id)! })),
    );
    await snapshots.markUsed(
      fresh.flatMap(({ snapshot }) => snapshot ?? []),
      t,
    );
    const now = await settleSnapshot({ ...context, log: all }, ready, t);
    await sendMessages(now, fresh, t);
    if (walk.sealed !== null) await sealing.amend(now, fresh, listPhotos(fresh), "added", t);
    const isSealed = walk.sealed === null && (await sealing.sealIfReady(now, t)) !== null;
    if (!isSealed) await deliveries.setSummary(delivery.id, summarizeContext(now), t);
    return { receipts, isSealed };
  };

  /** Asks once more whether a handover can be sealed; a sealed one is given the photo that has just arrived. */
  const carryOn = async (id: string, photoIds: readonly string[]) => {
    const isSealed = await database.inTransaction(async (t) => {
      const context = await get(id, t);
      if (context.walk.sealed === null) return (await sealing.sealIfReady(context, t)) !== null;
      await sealing.amend(context, [], photoIds, "added", t);
      return false;
    });
    if (isSealed) news.tell(id, { entries: [], receipts: {}, isSealed });
  };

  /** What was struck from a sealed handover, as the amendments that did it say. */
  const readStrikes = async (id: string): Promise<Delivery["strikes"]> =>
    (await chain.listAmendments(id)).flatMap(({ canonical }) => {
      const amendment = JSON.parse(canonical) as Amendment | SealedAmendment;
      if (!("struck" in amendment) || amendment.struck === undefined) return [];
      const { at, struck } = amendment;
      const of = (part: Strike["part"]) => struck.parts.filter((each) => each.part === part).map((each) => each.id);
      const counts = { people: of("person").length, photos: of("photo").length };
      return [{ at, by: struck.by, reason: struck.reason, entries: of("entry"), ...counts }];
    });

  return {
    get,

    async describe(id: string): Promise<Delivery> {
      const context = await get(id);
      const { delivery, log } = context;
      const walk = await readPlanned(context);
      const { sealed } = walk;
      const strikes = sealed === null ? [] : await readStrikes(id);
      const link = await ownerLinks.findOf(id);
      const forgotten = await libraryService.readForgotten();
      return {
        id,
        boat: context.boat.id,
        boatName: walk.boatName,
        hull: walk.hull,
        date: delivery.date,
        time: delivery.time,
        note: delivery.note,
        buyers: [...walk.buyers],
        staff: await listStaff(context, strikes),
        planOptions: delivery.planOptions,
        rig: walk.rig,
        plan: walk.plan,
        topics: [...walk.topics],
        makeReady: [...walk.makeReady],
        arrival: walk.arrival,
        readings: Object.fromEntries(Object.entries(walk.readings).map(([engine, list]) => [engine, [...list]])),
        snapshot: walk.snapshot,
        next: walk.next,
        forgotten: Object.fromEntries(
          walk.topics.flatMap((topic) => {
            const { byTopic, handovers } = forgotten;
            const score = scoreForgotten(topic.id, usuallyForgotten, byTopic.get(topic.id), handovers);
            return score > 0 ? [[topic.id, score]] : [];
          }),
        ),
        entries: [...log.entries],
        receipts: Object.fromEntries(log.receipts),
        seal:
          sealed === null
            ? null
            : { sha256: sealed.row.sha256, sealedAt: sealed.row.at, number: sealed.row.number, key: sealed.row.key },
        added: listLater(context).map((entry) => entry.id),
        strikes,
        link: link === null ? null : { madeAt: link.madeAt, isRemote: link.isRemote === 1 },
      };
    },

    /** Plans a handover in the style "power first" and with all the time there is; the plan screen makes it theirs. */
    async add({ boat: boatId, date, time, buyers, note }: BodyOf<typeof endpoints.addDelivery>): Promise<string> {
      const boat = await boats.find(boatId);
      if (boat === null) throw new Failure("not-found", { what: "boat", id: boatId });
      const planOptions: PlanOptions = { ...defaultPlanOptions, style: routeStyles[0]!.id, people: buyers.length };
      const id = ulid().toLowerCase();
      const topics = rigService.prepareTopics(boat.rigText, await libraryService.read(), planOptions);
      await deliveries.add({
        id,
        boatId,
        date,
        time,
        note,
        buyers: buyers.map((name, i) => ({ id: `b${i + 1}`, name })),
        planOptions,
        summary: summarize({ rig: rigService.read(boat.rigText), topics }, [], [], false),
      });
      return id;
    },

    /**
     * Stores what is new, once; all or none. What was stored before and is the same is only acknowledged. A close seals the
     * handover as soon as all it lists is here and nothing is in the way; what comes after the seal is chained to it.
     * `via`: how they came, which stands beside them.
     */
    async addEntries(id: string, author: Author, sent: readonly Entry[], via: Arrival = "staff") {
      const library = await libraryService.read();
      const ready = await this.prepareStart(id, sent);
      const done = await database.inTransaction(async (t) => {
        const context = await get(id, t);
        const { fresh, known } = splitKnown(context.log.entries, sent);
        if (fresh.length === 0) {
          // Sent again: what was interrupted then is done now.
          const isSealed = context.walk.sealed === null && (await sealing.sealIfReady(context, t)) !== null;
          return { fresh, known, receipts: new Map<string, Receipt>(), isSealed };
        }
        const all = [...context.log.entries, ...fresh];
        const named = await snapshots.findMany(
          fresh.flatMap((entry) => (entry.kind === "update" ? [entry.next] : [])),
          t,
        );
        const check = createEntryCheck({ context, library, author, via, all, named });
        sent.forEach((entry, i) => {
          if (fresh.includes(entry)) check(entry, `entries[${i}]`);
        });
        return { fresh, known, ...(await store(context, via, fresh, ready, t)) };
      });
      const { fresh, known, receipts, isSealed } = done;
      if (fresh.length > 0 || isSealed)
        news.tell(id, { entries: fresh, receipts: Object.fromEntries(receipts), isSealed });
      return { stored: fresh.map((entry) => entry.id), known };
    },

    /** For a start or a close that names nothing (old tablets): what the walk goes by is made ready, before any transaction. */
    async prepareStart(id: string, sent: readonly Entry[]): Promise<string | null> {
      const mayNeed = sent.some(({ kind }) => kind === "start" || kind === "close");
      if (!mayNeed || (await deliveries.find(id))?.snapshot != null) return null;
      const context = await get(id);
      if (context.walk.sealed !== null) return null;
      const named = await snapshots.findMany(
        sent.flatMap(({ kind, snapshot }) => (kind === "start" ? (snapshot ?? []) : [])),
      );
      return named.size > 0 ? null : (await walkReader.freeze(context)).sha256;
    },

    /** A photo has arrived, or was sent again: handovers that waited for it may be sealed now; to sealed ones it is added. */
    async noteArrived(photo: string) {
      for (const id of await deliveries.listOfPhoto(photo)) await carryOn(id, [photo]);
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
        const context = await get(id);
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

export type HandoverService = ReturnType<typeof createHandoverService>;

/** What is new of what was sent, each once, and the ids of what is here already and is the same. */
function splitKnown(stored: readonly Entry[], sent: readonly Entry[]): { fresh: Entry[]; known: string[] } {
  const byId = new Map(stored.map((entry) => [entry.id, entry]));
  const known: string[] = [];
  const fresh = new Map<string, Entry>();
  for (const [i, entry] of sent.entries()) {
    const before = byId.get(entry.id) ?? fresh.get(entry.id);
    if (before === undefined) fresh.set(entry.id, entry);
    else if (!isDeepStrictEqual(before, entry))
      throw new Failure("entry-differs", { path: `entries[${i}]`, id: entry.id });
    else known.push(entry.id);
  }
  return { fresh: [...fresh.values()], known };
}

/** The entries that are not in the sealed record; none of a handover that is not sealed. */
function listLater({ walk, log }: HandoverContext): readonly Entry[] {
  if (walk.sealed === null) return [];
  const inside = new Set(walk.sealed.entries.map(({ id }) => id));
  return log.entries.filter(({ id }) => !inside.has(id));
}

function summarizeContext(context: HandoverContext) {
  const { walk, log } = context;
  return summarize(walk, walk.sealed?.entries ?? log.entries, listLater(context), walk.sealed !== null);
}

/** The topics that were explained: whatever changes, they stay as they were said. */
function listExplained(entries: readonly Entry[]): ReadonlySet<string> {
  const { topics } = foldWalk(entries);
  return new Set([...topics].flatMap(([id, { marks }]) => (marks.some(({ mark }) => isExplaining(mark)) ? [id] : [])));
}
