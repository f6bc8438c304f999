import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import {
  type Bundle,
  firstLink,
  formatDifference,
  isSignedWith,
  type SealedBundle,
  verifyBundle,
  writeLink,
} from "../core/record/index.ts";
import type { Database } from "./database/open.ts";
import { readQuery } from "./database/rows.ts";
import { type Chain, hashText } from "./repositories/chain.ts";
import { headsFile, readHeads } from "./sealHeads.ts";

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

/**
 * Walks the whole store: each link of the seal chain follows the one before and bears the signature of its key; every sealed
 * handover, its entries, photos and additions are what was sealed; and the heads kept day by day (`folder`) are all still in
 * the chain, so that a tail that was cut off shows.
 */
export async function verifyStore(parts: Parts, folder: string): Promise<StoreVerdict> {
  const { database, chain } = parts;
  const faults: string[] = [];
  const rows = await chain.listAll();
  const struck = await listRewritten(database);
  let previous = firstLink;
  for (const [i, row] of rows.entries()) {
    const where = `link ${row.number} (${row.deliveryId})`;
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
  const sealed = rows.filter(({ kind }) => kind === "handover" || kind === "import");
  let photos = 0;
  for (const { deliveryId } of sealed) {
    const bundle = await parts.bundleService.writeBundle(deliveryId);
    const hashes = new Map<string, string>();
    for (const id of await listPhotoIds(database, deliveryId)) {
      const bytes = await parts.photos.findSealed(id);
      if (bytes !== null) hashes.set(id, parts.hashBytes(bytes));
    }
    photos += hashes.size;
    const { differences } = verifyBundle(bundle, hashText, { photos: hashes });
    for (const each of differences) faults.push(`handover ${deliveryId}: ${formatDifference(each)}`);
  }
  const known = new Set(rows.map(({ link }) => link));
  const file = join(folder, headsFile);
  if (existsSync(file))
    for (const { day, link, number } of readHeads(readFileSync(file, "utf8")))
      if (!known.has(link))
        faults.push(`the head kept on ${day} (link ${number}) is no longer in the chain: its tail was cut off`);
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
