import type { Delivery } from "../../api/index.ts";
import { usuallyForgotten } from "../../content/index.ts";
import {
  type Amendment,
  compareSnapshots,
  mergeSnapshots,
  type SealedAmendment,
  type Snapshot,
  type Strike,
} from "../../core/record/index.ts";
import { type Entry, foldWalk, isExplaining, scoreForgotten } from "../../core/walk/index.ts";
import type { Chain } from "../repositories/chain.ts";
import type { Imports } from "../repositories/imports.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { People } from "../repositories/people.ts";
import type { Settings } from "../repositories/settings.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { LibraryService } from "./libraryService.ts";
import type { RigService } from "./rigService.ts";
import { listLater } from "./summarizeContext.ts";
import type { HandoverContext, SealedView, WalkReader } from "./walkReader.ts";

interface Parts {
  readonly chain: Chain;
  readonly snapshots: Snapshots;
  readonly ownerLinks: OwnerLinks;
  readonly people: People;
  readonly imports: Imports;
  readonly settings: { read(): Promise<Settings> };
  readonly rigService: RigService;
  readonly libraryService: LibraryService;
  readonly walkReader: WalkReader;
}

/** Handovers as their screens are given them. */
export function createHandoverReader(parts: Parts) {
  const { ownerLinks, walkReader } = parts;

  return {
    async describe(id: string): Promise<Delivery> {
      const context = await walkReader.get(id);
      const { delivery, log } = context;
      const walk = await readPlanned(parts, context);
      const { sealed } = walk;
      const strikes = sealed === null ? [] : await readStrikes(parts, id);
      const link = await ownerLinks.findOf(id);
      return {
        id,
        boat: context.boat.id,
        boatName: walk.boatName,
        hull: walk.hull,
        date: delivery.date,
        time: delivery.time,
        note: delivery.note,
        buyers: [...walk.buyers],
        staff: await listStaff(parts, context, strikes),
        colleagues: (await parts.people.list()).map(({ name }) => name),
        planOptions: delivery.planOptions,
        rig: walk.rig,
        plan: walk.plan,
        topics: [...walk.topics],
        told: walk.told,
        makeReady: [...walk.makeReady],
        eachDoes: walk.eachDoes,
        arrival: walk.arrival,
        readings: Object.fromEntries(Object.entries(walk.readings).map(([engine, list]) => [engine, [...list]])),
        snapshot: walk.snapshot,
        next: walk.next,
        forgotten: await readForgotten(parts, [...walk.topics]),
        entries: [...log.entries],
        receipts: Object.fromEntries(log.receipts),
        seal: sealed === null ? null : await describeSeal(parts, id, sealed),
        added: listLater(context).map((entry) => entry.id),
        uncovered: sealed === null ? [] : await listUncovered(parts, id),
        strikes,
        link: link === null ? null : { madeAt: link.madeAt, isRemote: link.isRemote === 1 },
      };
    },
  };
}

/** The topics that were explained: whatever changes, they stay as they were said. */
function listExplained(entries: readonly Entry[]): ReadonlySet<string> {
  const { topics } = foldWalk(entries);
  return new Set([...topics].flatMap(([id, { marks }]) => (marks.some(({ mark }) => isExplaining(mark)) ? [id] : [])));
}

async function listStaff({ people }: Parts, { walk, log }: HandoverContext, strikes: Delivery["strikes"]) {
  const ids = new Set([...log.entries, ...strikes].map(({ by }) => by));
  const theirs = walk.sealed?.people ?? [];
  const ours = (await people.list()).filter(({ id }) => ids.has(id) && !theirs.some((person) => person.id === id));
  return [...theirs, ...ours.map(({ id, name }) => ({ id, name }))];
}

/** What has changed in library or boat since a walk began, of what is still to come, and the snapshot with it; or null. */
async function findNext(parts: Parts, context: HandoverContext, current: Snapshot): Promise<Delivery["next"]> {
  const { rigService, libraryService, walkReader } = parts;
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
}

/** What a walk goes by; of one that has not begun, what it would begin with, kept before it is handed out. */
async function readPlanned(parts: Parts, context: HandoverContext) {
  const { snapshots, walkReader } = parts;
  const { walk } = context;
  if (walk.plan !== null) {
    const current = walk.sealed === null && walk.snapshot !== null ? await snapshots.find(walk.snapshot) : null;
    const next = current === null ? null : await findNext(parts, context, current);
    return { ...walk, plan: walk.plan, next };
  }
  const { sha256, snapshot } = await walkReader.freeze(context);
  const { topics, told = {} } = snapshot;
  return { ...walk, topics, told, plan: snapshot.plan, snapshot: sha256, next: null };
}

/** The seal; of one that another store sealed also whose it is, how it was checked, and by whom it was taken in. */
async function describeSeal(
  { imports, people, settings }: Parts,
  id: string,
  { row, store }: SealedView,
): Promise<NonNullable<Delivery["seal"]>> {
  const { sha256, number, at: sealedAt, key, kind } = row;
  const seal = { sha256, number, sealedAt };
  if (kind === "handover") return { ...seal, key, from: null };
  const taken = await imports.find(id);
  if (taken === null) return { ...seal, key: null, from: { store, taken: null } };
  const { knownStores } = await settings.read();
  const by = (await people.find(taken.by))?.name ?? taken.by;
  const knownSince = knownStores.find((known) => known.key === taken.key)?.since ?? null;
  return { ...seal, key: taken.key, from: { store, taken: { verdict: taken.verdict, knownSince, by, at: taken.at } } };
}

/** What was here at the seal and no signature was for, as the seal chain has it; the first format does not say. */
const listUncovered = async ({ chain }: Parts, id: string): Promise<string[]> =>
  (await chain.listAmendments(id)).flatMap(({ canonical }) => {
    const amendment = JSON.parse(canonical) as Amendment | SealedAmendment;
    return "why" in amendment && amendment.why === "uncovered" ? amendment.entries.map((entry) => entry.id) : [];
  });

/** What was struck from a sealed handover, as the amendments that did it say. */
const readStrikes = async ({ chain }: Parts, id: string): Promise<Delivery["strikes"]> =>
  (await chain.listAmendments(id)).flatMap(({ canonical }) => {
    const amendment = JSON.parse(canonical) as Amendment | SealedAmendment;
    if (!("struck" in amendment) || amendment.struck === undefined) return [];
    const { at, struck } = amendment;
    const of = (part: Strike["part"]) => struck.parts.filter((each) => each.part === part).map((each) => each.id);
    const counts = { people: of("person").length, photos: of("photo").length };
    return [{ at, by: struck.by, reason: struck.reason, entries: of("entry"), ...counts }];
  });

async function readForgotten({ libraryService }: Parts, topics: Delivery["topics"]): Promise<Delivery["forgotten"]> {
  const { byTopic, handovers } = await libraryService.readForgotten();
  return Object.fromEntries(
    topics.flatMap(({ id }) => {
      const score = scoreForgotten(id, usuallyForgotten, byTopic.get(id), handovers);
      return score > 0 ? [[id, score]] : [];
    }),
  );
}
