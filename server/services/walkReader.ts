import { arrivalChecks, makeReady } from "../../content/index.ts";
import type { LocalDate } from "../../core/dates/index.ts";
import type { Reading, ReadingAnswer } from "../../core/hours/index.ts";
import { listReadyChecks } from "../../core/ready/index.ts";
import {
  type Handover,
  handoverSchema,
  openSealed,
  resolveTopics,
  type SealedHandover,
  type SealedPhoto,
  type Snapshot,
  sealedHandoverSchema,
  sealSnapshot,
  tellAsHeard,
} from "../../core/record/index.ts";
import { spellAll } from "../../core/region/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import type { Plan } from "../../core/route/index.ts";
import type { ToldIn, Topic } from "../../core/topic/index.ts";
import { type Entry, foldWalk, type WalkContent } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { ChainRow } from "../database/models.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure, passWhileStuck } from "../failure.ts";
import type { BoatRecord, Boats } from "../repositories/boats.ts";
import { type Chain, hashText } from "../repositories/chain.ts";
import type { Deliveries, DeliveryRecord } from "../repositories/deliveries.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { WalkLog } from "../repositories/walkLogs.ts";
import type { LanguageService } from "./languageService.ts";
import type { Library, LibraryService } from "./libraryService.ts";
import type { PackService } from "./packService.ts";
import type { Prepared, RigService } from "./rigService.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly snapshots: Snapshots;
  readonly packService: PackService;
  readonly rigService: RigService;
  readonly languageService: LanguageService;
  readonly libraryService: LibraryService;
  readonly clock: Clock;
}

/** A sealed handover as it was sealed, of whichever format. */
export interface SealedView {
  readonly row: ChainRow;
  readonly store: string;
  readonly entries: readonly Entry[];
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly photos: readonly SealedPhoto[];
}

/** What a walk is given: the boat, the topics and their order, what is checked before and after, who comes. */
export interface WalkView extends WalkContent {
  readonly boatName: string;
  readonly hull: string;
  /** Null where it was not planned yet: what is done in a transaction needs no order. */
  readonly plan: Plan | null;
  readonly arrival: Snapshot["arrival"];
  /** What it goes by once it has begun. */
  readonly snapshot: string | null;
  readonly packs: Snapshot["packs"] | null;
  /** The topics in other languages, as the snapshot it goes by has them. */
  readonly told: ToldIn;
  readonly sealed: SealedView | null;
}

/** A handover with all there is of it. */
export interface HandoverContext {
  readonly delivery: DeliveryRecord;
  readonly boat: BoatRecord;
  readonly log: WalkLog;
  readonly walk: WalkView;
}

/** Reads handovers: planned ones from library and boat, those under way from their snapshot, sealed ones from their seal. */
export function createWalkReader(parts: Parts) {
  const { boats, deliveries, chain, snapshots } = parts;

  const readSeal = createSealReader(parts);

  const read = async (delivery: DeliveryRecord, boat: BoatRecord, t?: Transaction): Promise<HandoverContext> => {
    const log = await deliveries.readLog(delivery.id, t);
    const rows = await boats.listReadings([boat.id], t);
    const common = { date: delivery.date as LocalDate, readings: groupReadings(rows) };
    // The seal is looked for where there may be one: nearly every question is about a walk under way.
    const seal = delivery.summary.state === "signed" ? await chain.findSeal(delivery.id, t) : null;
    if (seal !== null) {
      const opened = await readSeal(seal, log, t);
      return { delivery, boat, log, walk: { ...opened, ...common } };
    }
    const begun = delivery.snapshot === null ? null : await snapshots.find(delivery.snapshot, t);
    const head = { buyers: delivery.buyers, sealed: null, ...common };
    if (begun === null)
      return { delivery, boat, log, walk: { ...head, ...(await prepareView(parts, delivery, boat)) } };
    const { rig, plan, arrival, packs, boatName, hull, told = {}, eachDoes } = begun;
    const topics = await resolve(parts, begun.topics, delivery.snapshot!, log, t);
    const walk = { ...head, boatName, hull, rig, topics, told, plan, arrival, packs, eachDoes };
    return { delivery, boat, log, walk: { ...walk, makeReady: begun.makeReady, snapshot: delivery.snapshot } };
  };

  const get = async (id: string, t?: Transaction): Promise<HandoverContext> => {
    const delivery = await deliveries.find(id, t);
    if (delivery === null) throw new Failure("not-found", { what: "delivery", id });
    return read(delivery, (await boats.find(delivery.boatId, t))!, t);
  };

  const hashes = new WeakMap<Prepared, Map<string, string>>();

  return {
    get,
    read,
    makeFresh: (context: Pick<HandoverContext, "delivery" | "boat">) => makeFresh(parts, context),
    keep: (deliveryId: string, snapshot: Snapshot) => keep(parts, deliveryId, snapshot),
    /** The plan of a handover: of one that has begun as it began, else as it would be now. */
    async readPlan(context: HandoverContext): Promise<Plan> {
      return context.walk.plan ?? (await makeFresh(parts, context)).snapshot.plan;
    },
    /** What a handover that has not begun would begin with, kept under its name. */
    async freeze(context: Pick<HandoverContext, "delivery" | "boat">): Promise<{ sha256: string; snapshot: Snapshot }> {
      const { snapshot, prepared, key } = await makeFresh(parts, context);
      const known = hashes.get(prepared) ?? new Map<string, string>();
      hashes.set(prepared, known);
      const before = known.get(key);
      if (before !== undefined && (await snapshots.has(before))) {
        await handOut(parts, context.delivery.id, before);
        return { sha256: before, snapshot };
      }
      const sha256 = await keep(parts, context.delivery.id, snapshot);
      known.set(key, sha256);
      return { sha256, snapshot };
    },
  };
}

export type WalkReader = ReturnType<typeof createWalkReader>;

/** What is checked on this boat before its walk, in the store's words. */
function listChecks(rig: Rig, { idiom: { spelling } }: Library) {
  return {
    makeReady: spellAll(listReadyChecks(rig, makeReady), spelling),
    arrival: spellAll(arrivalChecks, spelling),
  };
}

/** A walk that has not begun, as it would be now. */
async function prepareView({ rigService, libraryService }: Parts, { planOptions }: DeliveryRecord, boat: BoatRecord) {
  const rig = rigService.read(boat.rigText);
  const library = await libraryService.read();
  return {
    boatName: boat.name,
    hull: boat.hull,
    rig,
    topics: rigService.prepareTopics(boat.rigText, library, planOptions),
    ...listChecks(rig, library),
    eachDoes: true,
    told: {},
    plan: null,
    snapshot: null,
    packs: null,
  };
}

/** Opens seals of both formats; what was opened is remembered with the log it was opened with, for a seal does not change. */
function createSealReader(parts: Pick<Parts, "chain" | "snapshots">) {
  const remembered = new WeakMap<WalkLog, { sha256: string; opened: Omit<WalkView, "date" | "readings"> }>();
  const readSeal = async (
    row: ChainRow,
    log: WalkLog,
    t?: Transaction,
  ): Promise<Omit<WalkView, "date" | "readings">> => {
    const known = remembered.get(log);
    if (known?.sha256 === row.sha256) return known.opened;
    const value = JSON.parse(row.canonical) as Handover | SealedHandover;
    const opened =
      value.format === "ravik.handover/1"
        ? openFirst(row, handoverSchema.parse(value))
        : await openSecond(parts, row, sealedHandoverSchema.parse(value), log, t);
    remembered.set(log, { sha256: row.sha256, opened });
    return opened;
  };
  return readSeal;
}

/** A seal of the first format holds everything itself. */
function openFirst(row: ChainRow, handover: Handover): Omit<WalkView, "date" | "readings"> {
  const { rig, topics, plan, makeReady: checks = [], packs = null, buyers, hull, store } = handover;
  return {
    boatName: handover.boatName ?? rig.model,
    hull,
    rig,
    topics,
    told: {},
    plan,
    makeReady: checks,
    arrival: arrivalChecks,
    packs,
    snapshot: null,
    buyers,
    sealed: {
      row,
      store,
      entries: handover.entries,
      people: handover.staff,
      photos: (handover.photos ?? []).map((photo) => ({ ...photo, sent: null })),
    },
  };
}

/** Readings before a handover, by engine, the first first. */
function groupReadings(
  rows: readonly { engine: string; date: LocalDate; hours: number; answer: string | null; source: string }[],
): Record<string, Reading[]> {
  const byEngine: Record<string, Reading[]> = {};
  for (const { engine, date, hours, answer, source } of rows) {
    // What the handover itself read is not before it.
    if (source === "walk") continue;
    byEngine[engine] = [...(byEngine[engine] ?? []), { date, hours, answer: answer as ReadingAnswer | null }];
  }
  return byEngine;
}

/** What a walk would go by if it began now, made of library and boat as they are. Planning: never within a transaction. */
async function makeFresh(parts: Parts, { delivery, boat }: Pick<HandoverContext, "delivery" | "boat">) {
  const { languageService, libraryService, rigService, packService } = parts;
  const library = await libraryService.read();
  const prepared = await rigService.prepare(boat.rigText, library, delivery.planOptions);
  const packs = await packService.read();
  const { rig, plan } = prepared;
  const languages = await languageService.listNeeded(delivery.planOptions.language);
  const used = <P extends { id: string }>(list: readonly P[], ids: readonly string[]) =>
    list.filter(({ id }) => ids.includes(id));
  const snapshot: Snapshot = {
    format: "ravik.snapshot/1",
    boatName: boat.name,
    hull: boat.hull,
    language: "en",
    rig,
    topics: [...prepared.topics],
    ...(languages.length === 0 ? {} : { told: await languageService.tell(prepared.topics, rig, library, languages) }),
    methods: { ...library.schools },
    planOptions: delivery.planOptions,
    plan,
    ...listChecks(rig, library),
    eachDoes: true,
    packs: {
      breakIn: used(
        packs.breakIn,
        rig.engines.map((engine) => engine.breakInPack),
      ),
      service: used(
        packs.service,
        rig.engines.map((engine) => engine.servicePack),
      ),
    },
  };
  // Phrases are written now and then, and each writing changes what is frozen.
  const told = JSON.stringify(snapshot.told ?? null);
  return { snapshot, prepared, key: `${boat.name} ${boat.hull} ${await packService.stamp()} ${told}` };
}

/** With the words that were heard, where entries name other snapshots than the one the walk goes by. */
async function resolve(
  { snapshots }: Parts,
  topics: readonly Topic[],
  governing: string,
  log: WalkLog,
  t?: Transaction,
) {
  const named = new Set(log.entries.flatMap(({ snapshot }) => snapshot ?? []));
  named.delete(governing);
  if (named.size === 0) return topics;
  const others = await snapshots.findMany(named, t);
  return resolveTopics(
    topics,
    new Map([...others].map(([sha256, each]) => [sha256, each.topics])),
    foldWalk(log.entries),
  );
}

/** Keeps a snapshot before it is handed out, and answers its name. */
async function keep(parts: Parts, deliveryId: string, snapshot: Snapshot): Promise<string> {
  const { database, snapshots, clock } = parts;
  const { sha256, text } = sealSnapshot(snapshot, hashText);
  if (!(await snapshots.has(sha256))) {
    const at = clock.now();
    const add = async (t: Transaction) => {
      await snapshots.add(sha256, deliveryId, text, at, t);
      await snapshots.noteHandout(sha256, deliveryId, at, t);
    };
    await database.inTransaction(add).catch(passWhileStuck);
  } else await handOut(parts, deliveryId, sha256);
  return sha256;
}

/** Notes whose a snapshot is now too, before it is handed out: two handovers of one boat may go by the same. */
async function handOut({ database, snapshots, clock }: Parts, deliveryId: string, sha256: string): Promise<void> {
  if (await snapshots.isHandedOut(sha256, deliveryId)) return;
  await database.inTransaction((t) => snapshots.noteHandout(sha256, deliveryId, clock.now(), t)).catch(passWhileStuck);
}

async function openSecond(
  { chain, snapshots }: Pick<Parts, "chain" | "snapshots">,
  row: ChainRow,
  handover: SealedHandover,
  log: WalkLog,
  t?: Transaction,
) {
  const content = await chain.findContent(row.number, log.entries, t);
  const named = await snapshots.findMany([handover.snapshot, ...handover.snapshots], t);
  const { snapshot, people, entries, photos } = openSealed(handover, content, named);
  const others = new Map([...named].map(([sha256, each]) => [sha256, each.topics]));
  others.delete(handover.snapshot);
  const state = foldWalk(entries);
  const namesOf = (wanted: string) =>
    people.filter(({ role }) => role === wanted).map(({ id, name }) => ({ id, name }));
  return {
    boatName: handover.boatName,
    hull: handover.hull,
    rig: snapshot.rig,
    topics: tellAsHeard(resolveTopics(snapshot.topics, others, state), snapshot.told ?? {}, state),
    told: snapshot.told ?? {},
    plan: snapshot.plan,
    makeReady: snapshot.makeReady,
    arrival: snapshot.arrival,
    packs: snapshot.packs,
    snapshot: handover.snapshot,
    buyers: namesOf("buyer"),
    sealed: { row, store: handover.store, entries, photos, people: namesOf("staff") },
  };
}
