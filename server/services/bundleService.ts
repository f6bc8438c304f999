import type { BundlePreview, VerifiedSheet } from "../../api/index.ts";
import {
  type Bundle,
  bundleFile,
  findPhotoId,
  formatDifference,
  type Handover,
  hashSigned,
  photoFile,
  type SealedAmendment,
  type SealedBundle,
  type SealedHandover,
  type SignedPlace,
  type Verified,
  verifyBundle,
} from "../../core/record/index.ts";
import { foldWalk } from "../../core/walk/index.ts";
import type { Clock } from "../clock.ts";
import { writeCsv } from "../csv.ts";
import type { ChainRow } from "../database/models.ts";
import type { Database } from "../database/open.ts";
import { Failure } from "../failure.ts";
import { readPhoto } from "../photos.ts";
import type { Boats } from "../repositories/boats.ts";
import { type Chain, hashText } from "../repositories/chain.ts";
import type { Deliveries } from "../repositories/deliveries.ts";
import type { Import, Imports } from "../repositories/imports.ts";
import type { Photos } from "../repositories/photos.ts";
import type { createSettings } from "../repositories/settings.ts";
import type { Snapshots } from "../repositories/snapshots.ts";
import type { StoreKey } from "../storeKey.ts";
import { readZip, writeZip } from "../zip.ts";
import { hashBytes, type OpenBundle, readBundle, readHead } from "./bundleFile.ts";
import { createIntake, type ReadiedPhoto } from "./bundleIntake.ts";
import type { HandoverService } from "./handoverService.ts";
import { listPhotos } from "./sealing.ts";

interface Parts {
  readonly database: Database;
  readonly boats: Boats;
  readonly deliveries: Deliveries;
  readonly photos: Photos;
  readonly chain: Chain;
  readonly imports: Imports;
  readonly snapshots: Snapshots;
  readonly settings: ReturnType<typeof createSettings>;
  readonly storeKey: StoreKey;
  readonly clock: Clock;
  readonly handoverService: HandoverService;
}

/** Handovers as files, out and in, and whether a file is what was sealed. */
export function createBundleService(parts: Parts) {
  const { writeBundle, ...writer } = createBundleWriter(parts);
  const verify = createVerifier(parts);
  return { writeBundle, verify, ...writer, ...createBundleReader(parts, verify) };
}

export type BundleService = ReturnType<typeof createBundleService>;

function createBundleWriter(parts: Parts) {
  const { photos, handoverService } = parts;

  return {
    writeBundle: (id: string) => writeBundle(parts, id),

    /** The bundle and its photos as a zip. The same handover gives the same bytes. */
    async writeBundleZip(id: string): Promise<Buffer> {
      const bundle = await writeBundle(parts, id);
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
      return writeCsv(rows, columns);
    },
  };
}

/** Says whether a bundle is what was sealed, and whose it is. */
function createVerifier({ chain, settings, storeKey }: Parts) {
  const verify = async (value: unknown, photoHashes?: ReadonlyMap<string, string>): Promise<VerifiedSheet> => {
    const said = value as { sha256?: unknown; handover?: { delivery?: unknown; storeKey?: unknown } } | null;
    // By its seal; a file whose seal was changed with it still names its delivery.
    const bySha = typeof said?.sha256 === "string" ? await chain.findBySha(said.sha256) : null;
    const delivery = said?.handover?.delivery;
    const row = bySha ?? (typeof delivery === "string" ? await chain.findSeal(delivery) : null);
    // A record that was rewritten by a strike is no original to hold an older file against; its seal is.
    const isOriginal = row !== null && hashText(row.canonical) === row.sha256;
    const own = await chain.listKeys();
    const verified = verifyBundle(value, hashText, {
      ...(isOriginal ? { original: JSON.parse(row.canonical) as Handover | SealedHandover } : {}),
      ...(own.includes(String(said?.handover?.storeKey)) ? { keys: [...own, storeKey.publicKey] } : {}),
      ...(photoHashes === undefined ? {} : { photos: photoHashes }),
    });
    return {
      ...verified,
      differences: verified.differences.map((each) => ({ ...each, says: formatDifference(each) })),
      known: row === null ? null : { number: row.number, delivery: row.deliveryId, sealedAt: row.at },
      origin: await findOrigin(verified.signedBy, [...own, storeKey.publicKey]),
    };
  };

  /** Whether the store that signed is this one, one whose bundles were taken in before, or one that nobody here knows. */
  const findOrigin = async (
    signedBy: Verified["signedBy"],
    own: readonly string[],
  ): Promise<VerifiedSheet["origin"]> => {
    if (signedBy === null) return null;
    const { knownStores } = await settings.read();
    const known = knownStores.find(({ key }) => key === signedBy.key);
    const is = own.includes(signedBy.key) ? "this-store" : known === undefined ? "unknown" : "known";
    return { ...signedBy, is, since: known?.since ?? null };
  };
  return verify;
}

/** What another store sealed: looked at, then taken in. */
function createBundleReader(parts: Parts, verify: ReturnType<typeof createVerifier>) {
  const { database, boats, chain, settings, clock } = parts;
  const takeIn = createIntake(parts);
  const open = async (bytes: Buffer): Promise<OpenBundle> => {
    // A record without its photos comes as JSON, whatever the file is called.
    if (/^\s*\{/.test(bytes.subarray(0, 64).toString("utf8"))) {
      const value = readBundle(bytes);
      return { value, ...readHead(value), pictures: new Map(), verified: await verify(value) };
    }
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

  return {
    async preview(bytes: Buffer): Promise<BundlePreview> {
      const { value, head, entries, later, pictures, verified } = await open(bytes);
      return {
        store: head.store,
        boatName: head.boatName,
        hull: head.hull,
        date: head.date,
        buyers: head.buyers.map(({ name }) => name),
        topics: head.topics.length,
        entries: entries.length,
        photos: pictures.size,
        photosLeft: new Set(listPhotos([...entries, ...later])).size - pictures.size,
        amendments: value.amendments.length,
        verified,
        isBoatKnown: (await boats.findByHull(head.hull)) !== null,
        isKnown: (await chain.findBySha(value.sha256)) !== null,
      };
    },

    /**
     * Takes in a handover another store sealed: its boat unless it is here already, its entries, photos and seal. A boat of
     * ours stays as it is. `trusts`: the key of a store not known here, which somebody has looked at. A file that names the
     * key of a store bears that store's signature; one of the first format names none and is taken as unsigned. Failures:
     * `not-a-bundle` (altered), `unsigned-bundle`, `not-ours`, `unknown-store`, `already-here`.
     */
    async importBundle(bytes: Buffer, trusts: string | null, by: string): Promise<{ delivery: string; boat: string }> {
      const opened = await open(bytes);
      const { value, pictures, verified } = opened;
      if (!verified.isIntact)
        throw new Failure("not-a-bundle", { reason: verified.differences.map(({ says }) => says).join("; ") });
      if ((await chain.findBySha(value.sha256)) !== null) throw new Failure("already-here", { sha256: value.sha256 });
      const { origin } = verified;
      const claims = value.format === "ravik.bundle/1" ? null : value.handover.storeKey;
      if (claims !== null && verified.verdict !== "signed")
        throw new Failure("unsigned-bundle", { store: value.handover.store, key: claims });
      // What we sealed is here, or was lost: then a backup brings it back, and no file.
      if (origin?.is === "this-store") throw new Failure("not-ours", { sha256: value.sha256 });
      if (origin?.is === "unknown" && origin.key !== trusts)
        throw new Failure("unknown-store", { store: origin.store, key: origin.key });
      const readied: ReadiedPhoto[] = [];
      // One after the other: forty at once would take all memory there is.
      for (const [id, content] of pictures) readied.push({ id, ...(await readPhoto(content)) });
      return database.inTransaction(async (t) => {
        const imported = await takeIn(opened, readied, by, t);
        if (origin?.is === "unknown") {
          const { key, store: name } = origin;
          const since = clock.today();
          await settings.change(({ knownStores }) => ({ knownStores: [...knownStores, { key, name, since }] }), t);
        }
        return imported;
      });
    },
  };
}

async function writeBundle(parts: Parts, id: string): Promise<Bundle | SealedBundle> {
  const { chain, snapshots, storeKey, handoverService, imports } = parts;
  const seal = await chain.findSeal(id);
  const amendments = await chain.listAmendments(id);
  // Entries last: one that is added meanwhile is in no addition yet, where an addition without its entry would be a forgery.
  const { log } = await handoverService.get(id);
  if (seal === null) throw new Failure("not-sealed", { delivery: id });
  const isOurs = seal.kind === "handover";
  const handover = JSON.parse(seal.canonical) as Handover | SealedHandover;
  if (handover.format === "ravik.handover/1")
    return {
      format: "ravik.bundle/1",
      sha256: seal.sha256,
      handover,
      amendments: amendments.map(({ sha256, canonical }) => ({ sha256, amendment: JSON.parse(canonical) })),
      chain: toPlace(seal),
    };
  const named = await snapshots.findMany([handover.snapshot, ...handover.snapshots]);
  const head = {
    sha256: seal.sha256,
    content: await chain.findContent(seal.number, log.entries),
    snapshots: Object.fromEntries(named),
  };
  const opened = await Promise.all(
    amendments.map(async (row) => ({
      sha256: row.sha256,
      amendment: JSON.parse(row.canonical) as SealedAmendment,
      content: await chain.findContent(row.number, log.entries),
      chain: isOurs ? toSignedPlace(row) : null,
    })),
  );
  const end = { sha256: opened.at(-1)?.sha256 ?? seal.sha256, count: opened.length };
  if (isOurs) {
    const place = toSignedPlace(seal);
    const bundle: SealedBundle = { ...head, format: "ravik.bundle/3", handover, amendments: opened, chain: place, end };
    // Signed when it goes out: what is signed is what it holds now.
    const signs = hashSigned(bundle, hashText);
    return { ...bundle, signature: { key: storeKey.publicKey, signs, signature: storeKey.sign(signs) } };
  }
  return writeImported(await imports.find(id), { head, handover, opened, end });
}

interface Written {
  readonly head: Pick<SealedBundle, "sha256" | "content" | "snapshots">;
  readonly handover: SealedHandover;
  readonly opened: Extract<SealedBundle, { format: "ravik.bundle/3" }>["amendments"];
  readonly end: { readonly sha256: string; readonly count: number };
}

/**
 * What another store sealed, as it came, with that store's own signatures and none of ours. Where something was added here since,
 * or it was taken in before signatures were kept, nobody's signature is of the whole: it goes out unsigned.
 */
function writeImported(taken: Import | null, { head, handover, opened, end }: Written): SealedBundle {
  const places = taken?.proof.amendments ?? [];
  const isAsItCame = taken !== null && places.length === opened.length;
  if (isAsItCame && taken.proof.format === "ravik.bundle/2") {
    const { chain, signature } = taken.proof;
    const amendments = opened.map(({ chain: _, ...amendment }) => amendment);
    const bundle = { ...head, format: "ravik.bundle/2", handover, amendments } as SealedBundle;
    return {
      ...bundle,
      ...(chain == null ? {} : { chain }),
      ...(signature == null ? {} : { signature }),
    } as SealedBundle;
  }
  const amendments = opened.map((each, i) => ({ ...each, chain: (places[i] ?? null) as SignedPlace | null }));
  const isThird = taken?.proof.format === "ravik.bundle/3";
  const chain = isThird ? (taken.proof.chain as SignedPlace | null) : null;
  const bundle: SealedBundle = { ...head, format: "ravik.bundle/3", handover, amendments, chain, end };
  const signature = isAsItCame ? taken.proof.signature : null;
  return signature == null ? bundle : { ...bundle, signature };
}

const toPlace = ({ number, previous, link }: ChainRow) => ({ number, previous, link });
const toSignedPlace = (row: ChainRow): SignedPlace => ({ ...toPlace(row), key: row.key, signature: row.signature });
