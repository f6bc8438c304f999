import { createHash } from "node:crypto";
import Papa from "papaparse";
import { ulid } from "ulid";
import type { BundlePreview, VerifiedSheet } from "../../api/index.ts";
import { type Instant, type LocalDate, minutesOfDay } from "../../core/dates/index.ts";
import { writeJson } from "../../core/hash/index.ts";
import {
  type Bundle,
  bundleFile,
  bundleSchema,
  findPhotoId,
  formatDifference,
  type Handover,
  handoverSchema,
  hashSigned,
  openSealed,
  photoFile,
  type SealedAmendment,
  type SealedBundle,
  type SealedHandover,
  sealedBundleSchema,
  type Verified,
  verifyBundle,
  writeCanonical,
} from "../../core/record/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { defaultPlanOptions } from "../../core/route/index.ts";
import { cutText, findUnfit } from "../../core/text/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import { type Entry, foldWalk } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import type { Database, Transaction } from "../database/open.ts";
import { Failure } from "../failure.ts";
import { readPhoto } from "../photos.ts";
import type { Boats } from "../repositories/boats.ts";
import { type Chain, hashText } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Photos } from "../repositories/photos.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { StoreKey } from "../storeKey.ts";
import { readZip, writeZip } from "../zip.ts";
import type { HandoverService } from "./handoverService.ts";
import { listPhotos } from "./sealing.ts";
import { summarize } from "./summarize.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly photos: Photos;
  readonly chain: Chain;
  readonly snapshots: Snapshots;
  readonly settings: ReturnType<typeof createSettings>;
  readonly storeKey: StoreKey;
  readonly clock: Clock;
  readonly handoverService: HandoverService;
}

const hashBytes = (bytes: Buffer) => createHash("sha256").update(bytes).digest("hex");

/** A bundle of either format, with what it holds at hand. */
interface OpenBundle {
  readonly value: Bundle | SealedBundle;
  readonly head: BundleHead;
  readonly entries: readonly Entry[];
  readonly later: readonly Entry[];
  readonly pictures: ReadonlyMap<string, Buffer>;
  readonly verified: VerifiedSheet;
}
interface BundleHead {
  readonly store: string;
  readonly delivery: string;
  readonly date: LocalDate;
  readonly hull: string;
  readonly boatName: string;
  readonly rig: Rig;
  readonly topics: readonly Topic[];
  readonly style: string;
  readonly buyers: readonly { readonly id: string; readonly name: string }[];
  readonly sealedAt: Instant;
  readonly sealedBy: string;
}

/** Sealed handovers on their way out of the store and into it, and the question whether one is still what was sealed. */
export function createBundleService(parts: Parts) {
  const { database, boats, deliveries, photos, chain, snapshots, settings, storeKey, clock, handoverService } = parts;

  const writeBundle = async (id: string): Promise<Bundle | SealedBundle> => {
    const { log } = await handoverService.get(id);
    const seal = await chain.findSeal(id);
    if (seal === null) throw new Failure("not-sealed", { delivery: id });
    const amendments = await chain.listAmendments(id);
    const place = { number: seal.number, previous: seal.previous, link: seal.link };
    const handover = JSON.parse(seal.canonical) as Handover | SealedHandover;
    if (handover.format === "ravik.handover/1")
      return {
        format: "ravik.bundle/1",
        sha256: seal.sha256,
        handover,
        amendments: amendments.map(({ sha256, canonical }) => ({ sha256, amendment: JSON.parse(canonical) })),
        chain: place,
      };
    const named = await snapshots.findMany([handover.snapshot, ...handover.snapshots]);
    const bundle: SealedBundle = {
      format: "ravik.bundle/2",
      sha256: seal.sha256,
      handover,
      content: await chain.findContent(seal.number, log.entries),
      snapshots: Object.fromEntries(named),
      amendments: await Promise.all(
        amendments.map(async ({ sha256, canonical, number }) => ({
          sha256,
          amendment: JSON.parse(canonical) as SealedAmendment,
          content: await chain.findContent(number, log.entries),
        })),
      ),
      chain: place,
    };
    // Signed when it goes out: what is signed is what it holds now.
    const signs = hashSigned(bundle, hashText);
    return { ...bundle, signature: { key: storeKey.publicKey, signs, signature: storeKey.sign(signs) } };
  };

  const verify = async (value: unknown, photoHashes?: ReadonlyMap<string, string>): Promise<VerifiedSheet> => {
    const said = value as { sha256?: unknown; handover?: { delivery?: unknown } } | null;
    // By its seal; a file whose seal was changed with it still names its delivery.
    const bySha = typeof said?.sha256 === "string" ? await chain.findBySha(said.sha256) : null;
    const delivery = said?.handover?.delivery;
    const row = bySha ?? (typeof delivery === "string" ? await chain.findSeal(delivery) : null);
    const verified = verifyBundle(value, hashText, {
      ...(row === null ? {} : { original: JSON.parse(row.canonical) as Handover | SealedHandover }),
      ...(photoHashes === undefined ? {} : { photos: photoHashes }),
    });
    return {
      ...verified,
      differences: verified.differences.map((each) => ({ ...each, says: formatDifference(each) })),
      known: row === null ? null : { number: row.number, delivery: row.deliveryId, sealedAt: row.at },
      origin: await findOrigin(verified.signedBy ?? null),
    };
  };

  /** Whether the store that signed is this one, one whose bundles were taken in before, or one that nobody here knows. */
  const findOrigin = async (signedBy: Verified["signedBy"]): Promise<VerifiedSheet["origin"]> => {
    if (signedBy == null) return null;
    const { knownStores } = await settings.read();
    const isOurs = signedBy.key === storeKey.publicKey;
    const isKnown = knownStores.some(({ key }) => key === signedBy.key);
    return { ...signedBy, is: isOurs ? "this-store" : isKnown ? "known" : "unknown" };
  };

  const open = async (bytes: Buffer): Promise<OpenBundle> => {
    const files = await readZip(bytes, (name) => name === bundleFile || findPhotoId(name) !== null);
    const text = files.get(bundleFile);
    if (text === undefined) throw new Failure("not-a-bundle", { reason: `there is no ${bundleFile} in it` });
    const value = readBundle(text);
    const pictures = new Map(
      [...files].flatMap(([name, content]) => {
        const id = findPhotoId(name);
        return id === null ? [] : [[id, content] as const];
      }),
    );
    const hashes = new Map([...pictures].map(([id, content]) => [id, hashBytes(content)]));
    return { value, ...readHead(value), pictures, verified: await verify(value, hashes) };
  };

  /** Seal and additions into this store's chain, as they came. */
  const chainImport = async ({ value, head }: OpenBundle, t: Transaction) => {
    const link = { deliveryId: head.delivery, at: head.sealedAt, sha256: value.sha256 };
    if (value.format === "ravik.bundle/1") {
      await chain.add({ ...link, kind: "import", canonical: writeCanonical(value.handover) }, t);
      for (const { amendment, sha256 } of value.amendments) {
        const canonical = writeCanonical(amendment);
        await chain.add({ ...link, kind: "amendment", canonical, sha256, at: amendment.at }, t);
      }
      return;
    }
    for (const [sha256, snapshot] of Object.entries(value.snapshots)) {
      await snapshots.add(sha256, head.delivery, writeJson(snapshot), head.sealedAt, t);
      await snapshots.markUsed([sha256], t);
    }
    await deliveries.setSnapshot(head.delivery, value.handover.snapshot, t);
    await chain.add({ ...link, kind: "import", canonical: writeJson(value.handover), content: value.content }, t);
    for (const { amendment, sha256, content } of value.amendments)
      await chain.add(
        { ...link, kind: "amendment", canonical: writeJson(amendment), sha256, content, at: amendment.at },
        t,
      );
  };

  return {
    writeBundle,
    verify,

    /** The bundle and its photos as a zip. The same handover gives the same bytes. */
    async writeBundleZip(id: string): Promise<Buffer> {
      const bundle = await writeBundle(id);
      const { entries, later, head } = readHead(bundle);
      const files = new Map<string, Buffer>([[bundleFile, Buffer.from(JSON.stringify(bundle))]]);
      for (const photo of new Set(listPhotos([...entries, ...later]))) {
        const bytes = await photos.findSealed(photo);
        if (bytes !== null) files.set(photoFile(photo), bytes);
      }
      return writeZip(files, new Date(head.sealedAt));
    },

    /** Every mark of a handover as a row, the first first; RFC 4180 with a head. */
    async writeMarksCsv(id: string): Promise<string> {
      const { topics, entries, buyers, staff, added } = await handoverService.describe(id);
      const titleOf = new Map(topics.map((topic) => [topic.id, topic]));
      const nameOf = new Map([...buyers, ...staff].map(({ id: person, name }) => [person, name]));
      const later = new Set(added);
      // What came after the seal changes nothing of what was sealed: it follows as what was added.
      const sealed = foldWalk(entries.filter((entry) => !later.has(entry.id))).counted;
      const rows = [...sealed, ...entries.filter((entry) => later.has(entry.id))]
        .filter((entry) => entry.kind === "mark")
        .map((mark) => ({
          at: mark.at,
          topic: mark.topic,
          title: titleOf.get(mark.topic)?.title ?? "",
          system: titleOf.get(mark.topic)?.system ?? "",
          must: titleOf.get(mark.topic)?.must === true ? "yes" : "no",
          mark: mark.mark,
          for: mark.person === null ? "all present" : (nameOf.get(mark.person) ?? mark.person),
          by: nameOf.get(mark.by) ?? mark.by,
          seconds: mark.spentS,
          note: mark.note ?? "",
          part: later.has(mark.id) ? "added later" : "handover",
        }));
      const columns = ["at", "topic", "title", "system", "must", "mark", "for", "by", "seconds", "note", "part"];
      // A cell that begins like a formula is not run by the program that opens it.
      return Papa.unparse(rows, { columns, escapeFormulae: true, newline: "\r\n" });
    },

    async preview(bytes: Buffer): Promise<BundlePreview> {
      const { value, head, entries, pictures, verified } = await open(bytes);
      return {
        store: head.store,
        boatName: head.boatName,
        hull: head.hull,
        date: head.date,
        buyers: head.buyers.map(({ name }) => name),
        topics: head.topics.length,
        entries: entries.length,
        photos: pictures.size,
        amendments: value.amendments.length,
        verified,
        isBoatKnown: (await boats.findByHull(head.hull)) !== null,
        isKnown: (await chain.findBySha(value.sha256)) !== null,
      };
    },

    /**
     * Takes in a handover another store sealed: its boat unless it is here already, its entries, photos and seal. A boat of
     * ours stays as it is. `trusts`: the key of a store not known here, which somebody has looked at. Failures:
     * `not-a-bundle` (altered), `unknown-store`, `already-here`.
     */
    async importBundle(bytes: Buffer, trusts: string | null): Promise<{ delivery: string; boat: string }> {
      const opened = await open(bytes);
      const { value, head, entries, later, pictures, verified } = opened;
      if (!verified.isIntact)
        throw new Failure("not-a-bundle", { reason: verified.differences.map(({ says }) => says).join("; ") });
      if ((await chain.findBySha(value.sha256)) !== null) throw new Failure("already-here", { sha256: value.sha256 });
      const { origin } = verified;
      if (origin?.is === "unknown" && origin.key !== trusts)
        throw new Failure("unknown-store", { store: origin.store, key: origin.key });
      const readied = await Promise.all(
        [...pictures].map(async ([id, content]) => ({ id, ...(await readPhoto(content)) })),
      );
      const imported = await database.inTransaction(async (t) => {
        const known = await boats.findByHull(head.hull, t);
        const boat = known?.id ?? ulid().toLowerCase();
        if (known === null) await boats.add({ id: boat, name: head.boatName, hull: head.hull, rig: head.rig }, t);
        // Entries are known by ids that no two stores share; their delivery may be called what another here is called.
        if ((await deliveries.find(head.delivery, t)) !== null)
          throw new Failure("already-here", { delivery: head.delivery });
        const firstAt = foldWalk(entries).startedAt ?? head.sealedAt;
        await deliveries.add(
          {
            id: head.delivery,
            boatId: boat,
            date: head.date,
            time: clockAt(firstAt, clock.timeZone),
            note: cutText(`Imported from ${head.store}`, 400),
            buyers: [...head.buyers],
            planOptions: { ...defaultPlanOptions, style: head.style },
            summary: summarize(head, entries, later, true),
          },
          t,
        );
        const receivedAt = clock.now();
        await deliveries.addEntries(head.delivery, [...entries, ...later], { receivedAt, via: "import" }, t);
        for (const photo of readied) {
          if ((await photos.listFacts([photo.id], t)).length > 0) continue;
          // Kept as it came, so that its hash stays the sealed one; screens are given the one made anew.
          const original = pictures.get(photo.id)!;
          const kept = { original, sha256: hashBytes(original), sent: sentOf(value, photo.id) };
          await photos.add({ ...photo, ...kept, at: head.sealedAt, by: head.sealedBy }, t);
        }
        await chainImport(opened, t);
        if (known === null) {
          for (const entry of foldWalk(entries).hours.values()) {
            const reading = { engine: entry.engine, hours: entry.hours, by: entry.by, date: head.date, source: "walk" };
            await boats.addReading(
              { ...reading, id: entry.id, boatId: boat, reason: null, answer: entry.answer ?? null, photo: null },
              t,
            );
          }
          await boats.setInService(boat, head.date, t);
        }
        return { delivery: head.delivery, boat };
      });
      if (origin?.is === "unknown") {
        const { knownStores } = await settings.read();
        await settings.change({ knownStores: [...knownStores, { key: origin.key, name: origin.store }] });
      }
      return imported;
    },
  };
}

/** 09:30 at this store, whatever zone the other one is in. */
function clockAt(at: Instant, timeZone: string): string {
  const minutes = minutesOfDay(at, timeZone);
  return [Math.floor(minutes / 60), minutes % 60].map((part) => String(part).padStart(2, "0")).join(":");
}

/** A bundle file read and held to its schema, with the reason in words where it is none. As it came: its seal is over that. */
function readBundle(text: Buffer): Bundle | SealedBundle {
  let value: unknown;
  try {
    value = JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(text));
  } catch {
    throw new Failure("not-a-bundle", { reason: `${bundleFile} is not JSON` });
  }
  const unfit = findUnfit(value);
  if (unfit !== null) throw new Failure("not-a-bundle", { reason: `${unfit.path} ${unfit.message}` });
  const isSecond = (value as { format?: unknown } | null)?.format === "ravik.bundle/2";
  const parsed = (isSecond ? sealedBundleSchema : bundleSchema).safeParse(value);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    throw new Failure("not-a-bundle", { reason: `${issue.path.join(".")}: ${issue.message}` });
  }
  return value as Bundle | SealedBundle;
}

/** What a bundle says of its handover, in one form, with its entries and those that were added. */
function readHead(bundle: Bundle | SealedBundle): Pick<OpenBundle, "head" | "entries" | "later"> {
  if (bundle.format === "ravik.bundle/1") {
    const handover = handoverSchema.parse(bundle.handover);
    const { store, delivery, date, hull, rig, topics, buyers, sealedAt, sealedBy, boatName = rig.model } = handover;
    return {
      head: {
        store,
        delivery,
        date,
        hull,
        boatName,
        rig,
        topics,
        style: handover.plan.style,
        buyers,
        sealedAt,
        sealedBy,
      },
      entries: handover.entries,
      later: bundle.amendments.flatMap(({ amendment }) => amendment.entries),
    };
  }
  const { handover, content } = bundle;
  const { store, delivery, date, hull, boatName, sealedAt, sealedBy } = handover;
  const snapshots = new Map(Object.entries(bundle.snapshots));
  const { snapshot, people, entries } = openSealed(handover, content, snapshots);
  const buyers = people.filter(({ role }) => role === "buyer").map(({ id, name }) => ({ id, name }));
  const { rig, topics, plan } = snapshot;
  return {
    head: { store, delivery, date, hull, boatName, rig, topics, style: plan.style, buyers, sealedAt, sealedBy },
    entries,
    later: bundle.amendments.flatMap((each) => [
      ...Object.values(each.content.entries).flatMap((part) => ("value" in part ? [part.value] : [])),
    ]),
  };
}

/** The hash of the bytes its device sent, as far as the bundle says it. */
function sentOf(bundle: Bundle | SealedBundle, photo: string): string | null {
  if (bundle.format === "ravik.bundle/1") return null;
  for (const { photos } of [bundle.content, ...bundle.amendments.map(({ content }) => content)]) {
    const part = photos[photo];
    if (part !== undefined && "value" in part) return part.value.sent;
  }
  return null;
}

export type BundleService = ReturnType<typeof createBundleService>;
