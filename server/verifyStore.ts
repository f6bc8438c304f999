import {
  type Bundle,
  firstLink,
  formatDifference,
  type Handover,
  type Receipt,
  type SealedBundle,
  type SealedHandover,
  verifyBundle,
  writeLink,
} from "../core/record/index.ts";
import { isSignedWith } from "../core/signature/index.ts";
import { struckName } from "../core/walk/index.ts";
import type { ChainRow } from "./database/models.ts";
import type { Database } from "./database/open.ts";
import { readAll, readOne, readQuery } from "./database/rows.ts";
import { type Chain, hashText } from "./repositories/chain.ts";
import { isHeadSigned, readHeads } from "./sealHeads.ts";

export interface StoreVerdict {
  readonly isIntact: boolean;
  readonly faults: readonly string[];
  readonly links: number;
  readonly handovers: number;
  readonly photos: number;
  /** Handovers of the first format from which names were struck: their seals can no longer be recomputed. */
  readonly struck: readonly string[];
  readonly head: { readonly number: number; readonly link: string } | null;
}

interface Parts {
  readonly database: Database;
  readonly chain: Chain;
  readonly bundleService: { writeBundle(id: string): Promise<Bundle | SealedBundle> };
  /** Of one photo at a time, its sealed bytes. */
  readonly photos: { findSealed(id: string): Promise<Buffer | null> };
  readonly hashBytes: (bytes: Buffer) => string;
}

export interface Expected {
  /** What `seal-heads.txt` held before the database was read; null where it was not there. */
  readonly heads: string | null;
  /** The key that signs in this store; null where nobody knows it. */
  readonly key: string | null;
  /** No server of this version has run on it yet: what such a one keeps beside the database is not asked for. */
  readonly isOlder?: boolean;
}

/**
 * Walks the whole store: each link of the seal chain follows the one before and bears the signature of the store's key, which may
 * have changed only by a link that says so; every sealed handover, its entries, photos and additions are what was sealed, and so is
 * what stands beside them (entries, receipts, buyers, day); and the heads that were kept are all in the chain and reach its end, so
 * that a tail that was cut off shows.
 */
export async function verifyStore(parts: Parts, expected: Expected): Promise<StoreVerdict> {
  const { database, chain } = parts;
  const faults: string[] = [];
  const rows = await chain.listAll();
  const struck = await listRewritten(database);
  let previous = firstLink;
  for (const [i, row] of rows.entries()) {
    const where = nameLink(row);
    const isNext = i === 0 || row.number === rows[i - 1]!.number + 1;
    if (!isNext) faults.push(`${where} does not follow number ${rows[i - 1]!.number}: one between them is gone`);
    if (row.previous !== previous) faults.push(`${where} does not follow the link before it`);
    if (row.sha256 !== hashText(row.canonical) && !struck.has(row.number))
      faults.push(`${where} is not what was sealed`);
    if (row.link !== hashText(writeLink(row.previous, row.sha256))) faults.push(`${where} does not fit its own link`);
    if (row.key !== null && (row.signature === null || !isSignedWith(row.key, row.link, row.signature)))
      faults.push(`${where} does not bear the signature of its key`);
    previous = row.link;
  }
  faults.push(...checkKeys(rows, expected), ...checkHeads(rows, expected));
  const sealed = rows.filter(({ kind }) => kind === "handover" || kind === "import");
  const keys = await chain.listKeys();
  let photos = 0;
  for (const row of sealed) {
    const { deliveryId } = row;
    const bundle = await parts.bundleService.writeBundle(deliveryId);
    const hashes = new Map<string, string>();
    for (const id of await listPhotoIds(database, deliveryId)) {
      const bytes = await parts.photos.findSealed(id);
      if (bytes !== null) hashes.set(id, parts.hashBytes(bytes));
    }
    photos += hashes.size;
    // What a signature for the way out would say is of no matter here: this store's own key stands in the chain.
    const { signature: _, ...unsigned } = bundle as SealedBundle;
    const { differences } = verifyBundle(unsigned, hashText, { photos: hashes, keys });
    for (const each of differences) faults.push(`handover ${deliveryId}: ${formatDifference(each)}`);
    for (const fault of await checkBeside(database, row, bundle)) faults.push(`handover ${deliveryId}: ${fault}`);
  }
  const last = rows.at(-1);
  return {
    isIntact: faults.length === 0,
    faults,
    links: rows.length,
    handovers: sealed.length,
    photos,
    struck: [...new Set(rows.flatMap(({ number, deliveryId }) => (struck.has(number) ? [deliveryId] : [])))],
    head: last === undefined ? null : { number: last.number, link: last.link },
  };
}

const nameLink = ({ number, deliveryId }: ChainRow) => `link ${number} (${deliveryId})`;

/** Who signed: from the first signature on each link by the key before it, or by one that a link announced; at the end the store's. */
function checkKeys(rows: readonly ChainRow[], { key, isOlder = false }: Expected): string[] {
  const faults: string[] = [];
  let current: string | null = null;
  for (const [i, row] of rows.entries()) {
    if (row.key === null) {
      if (current !== null) faults.push(`${nameLink(row)} is signed by nobody, though the store had a key`);
      continue;
    }
    if (row.kind === "key") {
      const said = JSON.parse(row.canonical) as { key?: unknown; before?: unknown; head?: unknown };
      const before = rows[i - 1];
      if (said.key !== row.key || said.before !== (before?.key ?? null) || said.head !== before?.link)
        faults.push(`${nameLink(row)} announces a key that does not follow the one before`);
    } else if (current !== null && row.key !== current)
      faults.push(`${nameLink(row)} is signed with another key, and no link before it says so`);
    current = row.key;
  }
  if (current === null || isOlder) return faults;
  if (key === null) faults.push("the store's public key (store-key.pub) is not there: give it with --key");
  else if (key !== current)
    faults.push(`the chain ends with key ${current.slice(0, 16)}…, not with the store's ${key.slice(0, 16)}…`);
  return faults;
}

/** One commit may add several links, and be the one that a kill left unnoted: what was added within so long. */
const lastCommitMs = 5000;

/** The heads that were kept: each signed where it is numbered with a key, each still in the chain, and the last at its end. */
function checkHeads(rows: readonly ChainRow[], { heads: text, key, isOlder = false }: Expected): string[] {
  if (rows.length === 0) return [];
  if (text === null) return isOlder ? [] : ["the heads of the seal chain (seal-heads.txt) are not there"];
  const heads = readHeads(text);
  const byNumber = new Map(rows.map((row) => [row.number, row]));
  // Those that were not noted in their time are by the key of whoever completed them.
  const keys = new Set([key, ...rows.map((row) => row.key)]);
  const faults = heads.flatMap((head): string[] => {
    const where = `the head kept on ${head.at} (link ${head.number})`;
    const row = byNumber.get(head.number);
    if (row === undefined) return [`${where} is no longer in the chain: its tail was cut off`];
    if (row.link !== head.link) return [`${where} is another than the chain has there`];
    if (head.signed === null) return [];
    return keys.has(head.signed.key) && isHeadSigned(head) ? [] : [`${where} does not bear the signature of its key`];
  });
  const noted = heads.reduce((most, { number }) => Math.max(most, number), 0);
  const last = rows.at(-1)!;
  const unnoted = rows.filter(({ number }) => number > noted);
  const isOneCommit =
    unnoted.every(({ at }) => Math.abs(Date.parse(last.at) - Date.parse(at)) <= lastCommitMs) ||
    // What was taken in bears the times of who sealed it.
    unnoted.every(({ deliveryId }) => deliveryId === last.deliveryId);
  if (!isOneCommit && !isOlder)
    faults.push(`the heads that were kept end at link ${noted}, the chain at ${last.number}: lines of them are gone`);
  return faults;
}

/** What stands beside a sealed handover: entries that are in no seal, receipts, buyers and day that are not what was sealed. */
async function checkBeside(
  { models }: Database,
  { deliveryId, kind, canonical }: ChainRow,
  bundle: Bundle | SealedBundle,
): Promise<string[]> {
  const entries = await readAll(models.entries, { where: { deliveryId } });
  const delivery = await readOne(models.deliveries, deliveryId);
  if (delivery === null) return ["its row is gone"];
  const handover = JSON.parse(canonical) as Handover | SealedHandover;
  const faults: string[] = [];
  if (delivery.date !== handover.date) faults.push(`its day is ${delivery.date}, and was sealed as ${handover.date}`);
  const sealed = listSealedEntries(bundle);
  for (const { id, receivedAt, number, via } of entries) {
    const receipt = sealed.get(id);
    if (receipt === undefined) faults.push(`entry ${id} stands beside its seal, and is in no addition`);
    // What another store received it received by its own count.
    else if (kind === "handover" && receipt !== null)
      if (receipt.receivedAt !== receivedAt || receipt.number !== number || receipt.via !== via)
        faults.push(`the receipt of entry ${id} is not what was sealed`);
  }
  const here = new Set(entries.map(({ id }) => id));
  for (const id of sealed.keys()) if (!here.has(id)) faults.push(`entry ${id} was sealed, and is not there`);
  faults.push(...compareBuyers(JSON.parse(delivery.buyers), bundle));
  return faults;
}

/** What was sealed of each entry's receipt; null of the first format, which kept none. */
function listSealedEntries(bundle: Bundle | SealedBundle): Map<string, Receipt | null> {
  if (bundle.format === "ravik.bundle/1")
    return new Map(
      [bundle.handover, ...bundle.amendments.map(({ amendment }) => amendment)].flatMap(({ entries }) =>
        entries.map(({ id }) => [id, null] as const),
      ),
    );
  return new Map(
    [bundle.handover, ...bundle.amendments.map(({ amendment }) => amendment)].flatMap(({ entries }) =>
      entries.map((entry) => [entry.id, entry as Receipt] as const),
    ),
  );
}

/** Buyers as the handover's row has them, against who was sealed; a name that was struck is nobody's any more. */
function compareBuyers(rows: readonly { id: string; name: string }[], bundle: Bundle | SealedBundle): string[] {
  const sealed =
    bundle.format === "ravik.bundle/1"
      ? bundle.handover.buyers
      : bundle.handover.people.flatMap(({ id, role }) => {
          const part = bundle.content.people[id];
          if (role !== "buyer") return [];
          return [{ id, name: part !== undefined && "value" in part ? part.value : struckName }];
        });
  const write = (people: readonly { id: string; name: string }[]) =>
    people
      .map(({ id, name }) => `${id} ${name}`)
      .sort()
      .join("; ");
  return write(rows) === write(sealed) ? [] : ["its buyers are not who was sealed"];
}

/** Links that were rewritten by a strike; that a strike stands in the chain is held with the handover itself. */
async function listRewritten({ models }: Database): Promise<ReadonlySet<number>> {
  const rows = await readQuery<{ id: string }>(models.strikes, "SELECT id FROM strikes WHERE part = 'record'");
  return new Set(rows.map(({ id }) => Number(id)));
}

async function listPhotoIds(database: Database, deliveryId: string): Promise<string[]> {
  const rows = await readQuery<{ photo: string }>(
    database.models.entries,
    "SELECT DISTINCT json_extract(body, '$.photo') AS photo FROM entries WHERE deliveryId = ? AND json_extract(body, '$.kind') = 'photo'",
    [deliveryId],
  );
  return rows.map(({ photo }) => photo);
}
