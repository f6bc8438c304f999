import { isDeepStrictEqual } from "node:util";
import { ulid } from "ulid";
import type { BodyOf, Delivery, endpoints, PlanComparison } from "../../api/index.ts";
import { arrivalChecks, makeReady, usuallyForgotten } from "../../content/index.ts";
import { listReadyChecks } from "../../core/ready/index.ts";
import {
  amendmentSchema,
  type Handover,
  handoverSchema,
  type PhotoFact,
  type WrittenAhead,
  writeCanonical,
  writeJson,
} from "../../core/record/index.ts";
import { createStyle, defaultPlanOptions, type PlanOptions, routeStyles } from "../../core/route/index.ts";
import {
  type Entry,
  foldWalk,
  isCovered,
  listObstacles,
  listOwed,
  mayFollowSeal,
  ownerId,
  scoreForgotten,
} from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import type { NewsService } from "../news.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import { type Chain, hashText } from "../repositories/chain.ts";
import type { Deliveries, DeliveryRecord, Summary } from "../repositories/deliveries.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { People, Person } from "../repositories/people.ts";
import type { Photos } from "../repositories/photos.ts";
import type { Settings } from "../repositories/settings.ts";
import type { Messages } from "../standins/messages.ts";
import { describeCare, findNextDue } from "./care.ts";
import type { CareReader } from "./careReader.ts";
import { checkEntry } from "./checkEntry.ts";
import type { LibraryService } from "./libraryService.ts";
import type { PackService } from "./packService.ts";
import type { Prepared, RigService } from "./rigService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly photos: Photos;
  readonly ownerLinks: OwnerLinks;
  readonly messages: Messages;
  readonly news: NewsService;
  readonly people: People;
  readonly settings: { read(): Promise<Settings> };
  readonly packService: PackService;
  readonly careReader: CareReader;
  readonly rigService: RigService;
  readonly libraryService: LibraryService;
  readonly clock: Clock;
}

/** What a walk is given: the boat, the topics and their order, what is checked before; sealed ones also their people. */
export interface WalkContext extends Prepared {
  readonly makeReady: Delivery["makeReady"];
  readonly sealed: Handover | null;
}

export interface HandoverContext {
  readonly delivery: DeliveryRecord;
  readonly boat: BoatRecord;
  readonly walk: WalkContext;
}

/** Who an entry of the owner page is from. */
export const ownerPerson = { id: ownerId, name: "Owner", role: "owner-page" } as const;
export type Author = Pick<Person, "id" | "name"> & { readonly role: Person["role"] | "owner-page" };

/** A handover from plan to seal and after: what a walk is given, what it may add, and when it is sealed. */
export function createHandoverService(parts: Parts) {
  const { database, boats, deliveries, chain, photos, ownerLinks, messages, news, people } = parts;
  const { settings, packService, careReader, rigService, libraryService, clock } = parts;

  /** What the walk is given; of a sealed handover what was sealed, however library and rig have changed since. */
  const prepare = async (
    delivery: DeliveryRecord,
    boat: BoatRecord,
    transaction?: Transaction,
  ): Promise<WalkContext> => {
    if (delivery.summary.state === "signed") {
      const seal = await chain.findSeal(delivery.id, transaction);
      if (seal !== null) {
        const sealed = handoverSchema.parse(JSON.parse(seal.canonical));
        return { ...sealed, makeReady: sealed.makeReady ?? [], sealed };
      }
    }
    const prepared = rigService.prepare(boat.rigText, await libraryService.read(), delivery.planOptions);
    return { ...prepared, makeReady: listReadyChecks(prepared.rig, makeReady), sealed: null };
  };
  const get = async (id: string, transaction?: Transaction): Promise<HandoverContext> => {
    const delivery = await deliveries.find(id, transaction);
    if (delivery === null) throw new Failure("not-found", { what: "delivery", id });
    const boat = (await boats.find(delivery.boatId, transaction))!;
    return { delivery, boat, walk: await prepare(delivery, boat, transaction) };
  };
  const staffOf = async (entries: readonly Entry[], sealed: Handover | null, also: readonly string[] = []) => {
    const ids = new Set([...entries.map((entry) => entry.by), ...also]);
    const ours = (await people.list()).filter(({ id }) => ids.has(id)).map(({ id, name }) => ({ id, name }));
    // Of a record that was taken in, the people are those of the store that sealed it.
    const theirs = (sealed?.staff ?? []).filter(({ id }) => !ours.some((person) => person.id === id));
    return [...ours, ...theirs];
  };

  /** The parts of a record that stand long before it is sealed, in writing: by far the most of it. */
  const written = new WeakMap<object, WrittenAhead>();
  const writeAhead = ({ rig, plan, topics }: WalkContext): WrittenAhead => {
    const known = written.get(topics);
    if (known !== undefined) return known;
    const fresh = { rig: writeJson(rig), plan: writeJson(plan), topics: writeJson(topics) };
    written.set(topics, fresh);
    return fresh;
  };

  /** Freezes the handover when its close was wished and nothing stands in the way any more. */
  const sealWhenReady = async (
    { delivery, boat, walk }: HandoverContext,
    entries: readonly Entry[],
    t: Transaction,
  ) => {
    const id = delivery.id;
    const state = foldWalk(entries);
    const close = state.counted.find(({ kind }) => kind === "close");
    if (close === undefined || listObstacles(walk.topics, walk.rig, state, walk.makeReady).length > 0) return null;
    const wanted = new Set(state.photos.map(({ photo }) => photo));
    const facts = await photos.listFacts([...wanted], t);
    if (facts.length < wanted.size) return null;
    const store = await settings.read();
    const sealedAt = new Date(clock.nowMs()).toISOString();
    const { rig, plan, topics } = walk;
    const known = await packService.read();
    const packsOf = <P extends { id: string }>(packs: readonly P[], used: readonly string[]) =>
      packs.filter((pack) => used.includes(pack.id));
    // All of it was parsed where it came in; what the store keeps is not parsed again while a transaction waits.
    const record: Handover = {
      format: "ravik.handover/1",
      delivery: id,
      store: store.store,
      date: delivery.date,
      hull: boat.hull,
      boatName: boat.name,
      rig,
      buyers: delivery.buyers,
      staff: await staffOf(entries, null),
      plan,
      topics: [...topics],
      makeReady: walk.makeReady,
      packs: {
        breakIn: packsOf(
          known.breakIn,
          rig.engines.map(({ breakInPack }) => breakInPack),
        ),
        service: packsOf(
          known.service,
          rig.engines.map(({ servicePack }) => servicePack),
        ),
      },
      photos: facts,
      entries: [...entries],
      digests: Object.fromEntries(entries.map((entry) => [entry.id, hashText(writeJson(entry))])),
      sealedBy: close.by,
      sealedAt,
    };
    await chain.add(
      { deliveryId: id, kind: "handover", canonical: writeCanonical(record, writeAhead(walk)), at: sealedAt },
      t,
    );
    await deliveries.setSummary(id, summarize(walk, entries, true), t);
    for (const entry of state.hours.values())
      await boats.addReading(
        {
          id: entry.id,
          boatId: boat.id,
          engine: entry.engine,
          date: delivery.date,
          hours: entry.hours,
          reason: null,
          by: entry.by,
          source: "walk",
          answer: null,
          photo: null,
        },
        t,
      );
    const care = describeCare(await careReader.ask({ ...boat, inService: delivery.date }, t), false);
    await boats.setCare(boat.id, { inService: delivery.date, dueDate: findNextDue(care) }, t);
    return sealedAt;
  };

  /** Chains what came after the seal, entries and photos that are here, to what stood before it. */
  const amend = async (
    id: string,
    entries: readonly Entry[],
    photoIds: readonly string[],
    transaction: Transaction,
  ) => {
    const seal = (await chain.findSeal(id, transaction))!;
    const earlier = await chain.listAmendments(id, transaction);
    const last = earlier.at(-1) ?? seal;
    const at = new Date(clock.nowMs()).toISOString();
    const held = new Set(
      [seal, ...earlier].flatMap(({ canonical }) =>
        ((JSON.parse(canonical) as { photos?: PhotoFact[] }).photos ?? []).map((photo) => photo.id),
      ),
    );
    const facts = await photos.listFacts(
      photoIds.filter((photo) => !held.has(photo)),
      transaction,
    );
    if (entries.length === 0 && facts.length === 0) return;
    const amendment = amendmentSchema.parse({
      format: "ravik.amendment/1",
      delivery: id,
      previous: last.sha256,
      at,
      entries,
      ...(facts.length === 0 ? {} : { photos: facts }),
    });
    await chain.add({ deliveryId: id, kind: "amendment", canonical: writeCanonical(amendment), at }, transaction);
  };

  return {
    get,

    async describe(id: string): Promise<Delivery> {
      const { delivery, boat, walk } = await get(id);
      const entries = await deliveries.listEntries(id);
      const seal = await chain.findSeal(id);
      const link = await ownerLinks.findOf(id);
      const forgotten = await libraryService.readForgotten();
      // Whoever opens a walk will close it: then it must not wait for what can be written now.
      if (walk.sealed === null) writeAhead(walk);
      return {
        id,
        boat: boat.id,
        boatName: walk.sealed?.boatName ?? boat.name,
        hull: walk.sealed?.hull ?? boat.hull,
        date: delivery.date,
        time: delivery.time,
        note: delivery.note,
        buyers: delivery.buyers,
        staff: await staffOf(entries, walk.sealed),
        planOptions: delivery.planOptions,
        rig: walk.rig,
        plan: walk.plan,
        topics: [...walk.topics],
        makeReady: walk.makeReady,
        arrival: arrivalChecks,
        forgotten: Object.fromEntries(
          walk.topics.flatMap((topic) => {
            const score = scoreForgotten(
              topic.id,
              usuallyForgotten,
              forgotten.byTopic.get(topic.id),
              forgotten.handovers,
            );
            return score > 0 ? [[topic.id, score]] : [];
          }),
        ),
        entries: [...entries],
        seal: seal === null ? null : { sha256: seal.sha256, sealedAt: seal.at, number: seal.number },
        added: listAdded(entries, walk.sealed),
        link: link === null ? null : { madeAt: link.madeAt, isRemote: link.isRemote === 1 },
      };
    },

    /** Plans a handover with the school "power first" and all the time there is; the plan screen makes it theirs. */
    async add({ boat: boatId, date, time, buyers, note }: BodyOf<typeof endpoints.addDelivery>): Promise<string> {
      const boat = await boats.find(boatId);
      if (boat === null) throw new Failure("not-found", { what: "boat", id: boatId });
      const planOptions: PlanOptions = { ...defaultPlanOptions, style: routeStyles[0]!.id, people: buyers.length };
      const id = ulid().toLowerCase();
      const walk = rigService.prepare(boat.rigText, await libraryService.read(), planOptions);
      await deliveries.add({
        id,
        boatId,
        date,
        time,
        note,
        buyers: buyers.map((name, i) => ({ id: `b${i + 1}`, name })),
        planOptions,
        summary: summarize(walk, [], false),
      });
      return id;
    },

    /**
     * Stores what is new, once; all or none. What was stored before and is the same is only acknowledged. A wish to close
     * seals the handover as soon as nothing is in the way; what comes after the seal is chained to it.
     */
    async addEntries(id: string, author: Author, sent: readonly Entry[]) {
      const library = await libraryService.read();
      const done = await database.inTransaction(async (transaction) => {
        const handover = await get(id, transaction);
        const earlier = await deliveries.listEntries(id, transaction);
        const stands = new Map(earlier.map((entry) => [entry.id, entry]));
        const known: string[] = [];
        const fresh = new Map<string, Entry>();
        for (const [i, entry] of sent.entries()) {
          const before = stands.get(entry.id) ?? fresh.get(entry.id);
          if (before === undefined) fresh.set(entry.id, entry);
          else if (!isDeepStrictEqual(before, entry))
            throw new Failure("entry-differs", { path: `entries[${i}]`, id: entry.id });
          else known.push(entry.id);
        }
        const stored = [...fresh.values()];
        const all = [...earlier, ...stored];
        const question = { handover, library, author, refs: new Set(all.map((entry) => entry.id)), all };
        sent.forEach((entry, i) => {
          if (fresh.has(entry.id)) checkEntry(entry, `entries[${i}]`, question);
        });
        const seal = await chain.findSeal(id, transaction);
        let isSealed = false;
        if (stored.length > 0) {
          if (seal !== null && stored.some((entry) => !mayFollowSeal(entry, seal.at)))
            throw new Failure("sealed", { delivery: id });
          await deliveries.addEntries(id, stored, transaction);
          for (const entry of stored)
            if (entry.kind === "tell")
              await messages.send(
                {
                  id: entry.id,
                  deliveryId: id,
                  boatId: handover.boat.id,
                  kind: "note",
                  recipient: handover.delivery.buyers.map(({ name }) => name).join(" and "),
                  text: entry.text,
                  at: entry.at,
                },
                transaction,
              );
          if (seal === null) isSealed = (await sealWhenReady(handover, all, transaction)) !== null;
          else await amend(id, stored, listPhotos(stored), transaction);
          if (!isSealed) await deliveries.setSummary(id, summarize(handover.walk, all, seal !== null), transaction);
        }
        return { stored, known, isSealed };
      });
      if (done.stored.length > 0) news.tell(id, { entries: done.stored, isSealed: done.isSealed });
      return { stored: done.stored.map((entry) => entry.id), known: done.known };
    },

    /** A photo has arrived: handovers whose close waited for it may be sealed now; to sealed ones it is added. */
    async noteArrived(photo: string) {
      for (const id of await deliveries.listOfPhoto(photo)) {
        const isSealed = await database.inTransaction(async (transaction) => {
          const handover = await get(id, transaction);
          if ((await chain.findSeal(id, transaction)) !== null) {
            await amend(id, [], [photo], transaction);
            return false;
          }
          return (await sealWhenReady(handover, await deliveries.listEntries(id, transaction), transaction)) !== null;
        });
        if (isSealed) news.tell(id, { entries: [], isSealed });
      }
    },

    /** Each style with the same people, place and minutes, for this boat. */
    async compareStyles(id: string): Promise<PlanComparison[]> {
      const { delivery, boat } = await get(id);
      const library = await libraryService.read();
      const styles = [...routeStyles, ...library.ownStyles.map(createStyle)];
      return styles.map(({ id: style, name, line }) => {
        const { plan, topics } = rigService.prepare(boat.rigText, library, {
          ...delivery.planOptions,
          style,
          manualOrder: null,
        });
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
      });
    },

    /** Plans the walk anew for these people, this place and this time. */
    async setPlan(id: string, planOptions: PlanOptions) {
      const library = await libraryService.read();
      await database.inTransaction(async (transaction) => {
        const { delivery, boat } = await get(id, transaction);
        if (delivery.summary.state === "signed") throw new Failure("sealed", { delivery: id });
        const walk = rigService.prepare(boat.rigText, library, planOptions);
        const entries = await deliveries.listEntries(id, transaction);
        await deliveries.setPlan(id, planOptions, summarize(walk, entries, false), transaction);
      });
    },

    /** Works out anew what Today reads of handovers that an older version of Ravik kept in another form. */
    async mendSummaries() {
      for (const { id } of await deliveries.listUnsummarized())
        await database.inTransaction(async (transaction) => {
          const isSigned = (await chain.findSeal(id, transaction)) !== null;
          const delivery = (await deliveries.find(id, transaction))!;
          const boat = (await boats.find(delivery.boatId, transaction))!;
          const summary: Summary = { ...delivery.summary, state: isSigned ? "signed" : "planned" };
          const walk = await prepare({ ...delivery, summary }, boat, transaction);
          const entries = await deliveries.listEntries(id, transaction);
          await deliveries.setSummary(id, summarize(walk, entries, isSigned), transaction);
        });
    },
  };
}

export type HandoverService = ReturnType<typeof createHandoverService>;

/** The entries that are not in the sealed record. */
function listAdded(entries: readonly Entry[], sealed: Handover | null): string[] {
  if (sealed === null) return [];
  const inside = new Set(sealed.entries.map(({ id }) => id));
  return entries.filter(({ id }) => !inside.has(id)).map(({ id }) => id);
}

/** The photos these entries name. */
export const listPhotos = (entries: readonly Entry[]) =>
  entries.flatMap((entry) => (entry.kind === "photo" ? [entry.photo] : []));

/** What Today shows of a handover. */
export function summarize(
  walk: Pick<Prepared, "rig" | "topics">,
  entries: readonly Entry[],
  isSigned: boolean,
): Summary {
  const state = foldWalk(entries);
  const musts = walk.topics.filter((topic) => topic.must);
  const owed = listOwed(walk.topics, walk.rig.gear, state);
  return {
    state: isSigned ? "signed" : state.startedAt === null ? "planned" : "walking",
    ready: [...state.ready.values()].filter(({ ok }) => ok).map(({ check }) => check),
    mustsOpen: musts.filter((topic) => !isCovered(topic, state)).length,
    mustsOf: musts.length,
    stopping: owed.filter(({ stops }) => stops).map(({ text }) => text),
    owed,
  };
}
