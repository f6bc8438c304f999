import { randomBytes } from "node:crypto";
import type { Instant } from "../../core/dates/index.ts";
import { writeJson } from "../../core/hash/index.ts";
import {
  type Amendment,
  type SealedAmendment,
  type SealedHandover,
  type SealedPhoto,
  saltParts,
  writeCanonical,
} from "../../core/record/index.ts";
import { type Entry, type EntryOf, type WalkState, weighCloses } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Transaction } from "../database/open.ts";
import type { Boats } from "../repositories/boats.ts";
import { type Chain, hashText } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { OwnerLinks } from "../repositories/ownerLinks.ts";
import type { People } from "../repositories/people.ts";
import type { Photos } from "../repositories/photos.ts";
import type { Settings } from "../repositories/settings.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { WalkLog } from "../repositories/walkLogs.ts";
import type { StoreKey } from "../storeKey.ts";
import { listFormer } from "./formerOwners.ts";
import { summarize } from "./summarize.ts";
import type { HandoverContext } from "./walkReader.ts";

interface Parts {
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly chain: Chain;
  readonly photos: Photos;
  readonly snapshots: Snapshots;
  readonly people: People;
  readonly settings: { read(): Promise<Settings> };
  readonly ownerLinks: OwnerLinks;
  readonly storeKey: StoreKey;
  readonly clock: Clock;
}

/** The photos these entries name. */
export const listPhotos = (entries: readonly Entry[]) =>
  entries.flatMap((entry) => (entry.kind === "photo" ? [entry.photo] : []));

/** Whether a record is of the first format, which holds its entries themselves. */
export const isFirstFormat = (canonical: string) => JSON.parse(canonical).format === "ravik.handover/1";

const createSalt = () => randomBytes(16).toString("hex");

/** A close with all it lists, nothing in the way and every photo here. */
interface Sealable {
  readonly close: EntryOf<"close">;
  readonly covered: readonly Entry[];
  readonly state: WalkState;
  readonly photos: readonly SealedPhoto[];
  /** What the walk went by. */
  readonly snapshot: string;
}

/** Seals, and what is chained to them afterwards. */
export function createSealing(parts: Parts) {
  const { deliveries, chain, photos, ownerLinks, clock } = parts;
  const findNow = (t: Transaction) => chain.findNext(clock.now(), t);

  /** Chains entries and photos to what was sealed before them. Nothing is put there twice. */
  const amend = async (
    context: HandoverContext,
    entries: readonly Entry[],
    photoIds: readonly string[],
    why: SealedAmendment["why"],
    t: Transaction,
  ) => {
    if (entries.length === 0 && photoIds.length === 0) return;
    const { id } = context.delivery;
    const seal = (await chain.findSeal(id, t))!;
    const earlier = await chain.listAmendments(id, t);
    const held = new Set(
      [seal, ...earlier].flatMap(({ canonical }) =>
        ((JSON.parse(canonical) as { photos?: { id: string }[] }).photos ?? []).map((photo) => photo.id),
      ),
    );
    const facts = await photos.listFacts(
      photoIds.filter((photo) => !held.has(photo)),
      t,
    );
    if (entries.length === 0 && facts.length === 0) return;
    const basis = { id, previous: (earlier.at(-1) ?? seal).sha256, at: await findNow(t), entries, photos: facts };
    const written = isFirstFormat(seal.canonical)
      ? writeFirstAmendment(basis)
      : writeAmendment({ ...basis, log: context.log, why });
    await chain.add({ deliveryId: id, kind: "amendment", ...written, at: basis.at }, t);
  };

  return {
    amend,

    /**
     * Freezes a handover once a close has everything it lists and nothing stands in the way. It may be asked as often as one
     * likes: when an entry or a photo arrives, when one is sent again, at every start. What no signature was for is chained
     * to the seal at once. Answers when it was sealed, or null.
     */
    async sealIfReady(context: HandoverContext, t: Transaction): Promise<string | null> {
      const { delivery, walk, log } = context;
      const sealable = await findSealable(parts, context, t);
      if (sealable === null) return null;
      const { covered, state } = sealable;
      const sealedAt = await findNow(t);
      const { canonical, content } = await writeHandover(parts, context, sealable, sealedAt, t);
      await chain.add({ deliveryId: delivery.id, kind: "handover", canonical, content, at: sealedAt }, t);
      const inside = new Set(covered.map(({ id }) => id));
      const uncovered = log.entries.filter(({ id }) => !inside.has(id));
      await amend(context, uncovered, listPhotos(uncovered), "uncovered", t);
      await deliveries.setSummary(delivery.id, summarize(walk, covered, uncovered, true), t);
      await startCare(parts, context, state, t);
      // The boat is another's now: what opened it to whoever had it before ends.
      const former = listFormer(delivery, await deliveries.listOfBoats([delivery.boatId], t));
      await ownerLinks.endAllOf(
        former.map(({ id }) => id),
        sealedAt,
        t,
      );
      return sealedAt;
    },
  };
}

export type Sealing = ReturnType<typeof createSealing>;

/**
 * Photos that are here of those these entries name; null while one is missing, or is not the one its entry names. One that was
 * given up is not waited for.
 */
async function findPhotos({ photos }: Parts, entries: readonly Entry[], t: Transaction): Promise<SealedPhoto[] | null> {
  const wanted = new Map(
    entries.flatMap((entry) => (entry.kind === "photo" ? [[entry.photo, entry.sha256 ?? null] as const] : [])),
  );
  const facts = await photos.listFacts([...wanted.keys()], t);
  const fits = facts.filter(({ id, sent }) => wanted.get(id) === null || wanted.get(id) === sent);
  if (fits.length === wanted.size) return fits;
  const here = new Set(fits.map(({ id }) => id));
  const missing = [...wanted.keys()].filter((id) => !here.has(id));
  const gone = new Set(await photos.listGone(missing, t));
  return missing.every((id) => gone.has(id)) ? fits : null;
}

async function findSealable(parts: Parts, { log, walk }: HandoverContext, t: Transaction): Promise<Sealable | null> {
  const { snapshot } = walk;
  if (snapshot === null) return null;
  const sequenceOf = (id: string) => log.receipts.get(id)?.number;
  for (const { close, covered, state, obstacles, unseen } of weighCloses(walk, log.entries, sequenceOf)) {
    if (obstacles.length + unseen.length > 0) continue;
    const facts = await findPhotos(parts, state.counted, t);
    if (facts !== null) return { close, covered, state, photos: facts, snapshot };
  }
  return null;
}

async function listPeople({ people }: Parts, { walk }: HandoverContext, { close, covered, state }: Sealable) {
  const ids = new Set([...covered.map(({ by }) => by), close.by]);
  const staff = (await people.list()).filter(({ id }) => ids.has(id));
  const guests = [...state.present.values()].filter(({ person }) => !walk.buyers.some(({ id }) => id === person));
  return [
    ...walk.buyers.map(({ id, name }) => ({ id, name, role: "buyer" as const })),
    ...guests.map(({ person, name }) => ({ id: person, name, role: "guest" as const })),
    ...staff.map(({ id, name }) => ({ id, name, role: "staff" as const })),
  ].filter(({ id }, i, all) => all.findIndex((other) => other.id === id) === i);
}

const withReceipts = (entries: readonly Entry[], { receipts }: WalkLog) =>
  entries.map((entry) => ({ entry, receipt: receipts.get(entry.id)! }));

/** The hours read become readings of the boat, from which what falls due is known. */
async function startCare({ boats }: Parts, { delivery, boat }: HandoverContext, state: WalkState, t: Transaction) {
  for (const { id, engine, hours, by, answer = null } of state.hours.values()) {
    const reading = { engine, hours, by, answer, date: delivery.date, source: "walk" };
    await boats.addReading({ ...reading, id, boatId: boat.id, reason: null, photo: null }, t);
  }
  await boats.setInService(boat.id, delivery.date, t);
}

interface AmendmentBasis {
  readonly id: string;
  /** What it is chained to. */
  readonly previous: string;
  readonly at: Instant;
  readonly entries: readonly Entry[];
  readonly photos: readonly SealedPhoto[];
}

/** What was sealed in the first format goes on in it, so that the whole of it is one format. */
function writeFirstAmendment({ id, previous, at, entries, photos }: AmendmentBasis) {
  const amendment: Amendment = {
    format: "ravik.amendment/1",
    delivery: id,
    previous,
    at,
    entries: [...entries],
    ...(photos.length === 0 ? {} : { photos: photos.map(({ sent: _, ...fact }) => fact) }),
  };
  return { canonical: writeCanonical(amendment) };
}

function writeAmendment({
  id,
  previous,
  at,
  entries,
  photos,
  log,
  why,
}: AmendmentBasis & Pick<SealedAmendment, "why"> & { readonly log: WalkLog }) {
  const { content, ...salted } = saltParts(
    { people: [], entries: withReceipts(entries, log), photos },
    hashText,
    createSalt,
  );
  const amendment: SealedAmendment = {
    format: "ravik.amendment/3",
    delivery: id,
    previous,
    at,
    why,
    entries: salted.entries,
    photos: salted.photos,
  };
  return { canonical: writeJson(amendment), content };
}

async function writeHandover(
  parts: Parts,
  context: HandoverContext,
  sealable: Sealable,
  sealedAt: Instant,
  t: Transaction,
) {
  const { delivery, walk, log } = context;
  const { close, covered, photos, snapshot } = sealable;
  const named = covered.flatMap((entry) => entry.snapshot ?? []);
  const known = (await parts.snapshots.findMany([...named, snapshot], t)).keys();
  const people = await listPeople(parts, context, sealable);
  const { content, ...salted } = saltParts(
    { people, entries: withReceipts(covered, log), photos },
    hashText,
    createSalt,
  );
  const handover: SealedHandover = {
    format: "ravik.handover/3",
    delivery: delivery.id,
    store: (await parts.settings.read()).store,
    storeKey: parts.storeKey.publicKey,
    date: delivery.date,
    hull: walk.hull,
    boatName: walk.boatName,
    snapshot,
    snapshots: [...known].sort(),
    people: salted.people,
    entries: salted.entries,
    photos: salted.photos,
    sealedBy: close.by,
    sealedAt,
  };
  return { canonical: writeJson(handover), content };
}
