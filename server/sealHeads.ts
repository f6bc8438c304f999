import { existsSync, readFileSync } from "node:fs";
import { open } from "node:fs/promises";
import { join } from "node:path";
import type { Instant } from "../core/dates/index.ts";
import { isSignedWith } from "../core/signature/index.ts";
import type { ChainRow } from "./database/models.ts";
import type { Chain } from "./repositories/chain.ts";
import type { StoreKey } from "./storeKey.ts";

/** Where the head of the seal chain is kept with every seal, outside the database: whoever cuts the chain's tail does not cut this. */
export const headsFile = "seal-heads.txt";

export interface Head {
  /** When it was noted; of the lines of before 2026-12, which were written once a day and unsigned, the day. */
  readonly at: string;
  readonly number: number;
  readonly link: string;
  /** The store's signature, and its key; null of those older lines. */
  readonly signed: { readonly key: string; readonly signature: string } | null;
}

/** What is signed of a head. */
const writeHead = ({ at, number, link }: Pick<Head, "at" | "number" | "link">) =>
  `ravik.head/1 ${at} ${number} ${link}`;

/** The heads of a file, the first first; lines that are none are passed over. */
export function readHeads(text: string): Head[] {
  return text.split("\n").flatMap((line): Head[] => {
    const [at, number, link, key, signature, ...more] = line.trim().split(" ");
    if (more.length > 0 || at === undefined || !/^\d{4}-\d{2}-\d{2}/.test(at)) return [];
    if (!/^\d+$/.test(number ?? "") || !/^[0-9a-f]{64}$/.test(link ?? "")) return [];
    const signed = key === undefined || signature === undefined ? null : { key, signature };
    return [{ at, number: Number(number), link: link!, signed }];
  });
}

/** Whether a head bears the signature of its key. */
export const isHeadSigned = (head: Head): boolean =>
  head.signed !== null && isSignedWith(head.signed.key, writeHead(head), head.signed.signature);

/** The text of a store's heads; null where the file is not there. */
export function readHeadsFile(folder: string): string | null {
  const path = join(folder, headsFile);
  return existsSync(path) ? readFileSync(path, "utf8") : null;
}

/**
 * Keeps the heads: a signed line for every link of the chain, appended after it is on disk and completed from the chain at every
 * start, so that a kill between the two leaves at most the last seal unnoted.
 */
export function createHeads(
  folder: string,
  chain: Pick<Chain, "listFrom">,
  { publicKey, sign }: StoreKey,
  now: () => Instant,
) {
  let last: number | null = null;
  let queue: Promise<void> = Promise.resolve();
  const writeLine = ({ number, link }: Pick<ChainRow, "number" | "link">): string => {
    const head = { at: now(), number, link };
    return `${head.at} ${number} ${link} ${publicKey} ${sign(writeHead(head))}\n`;
  };
  const append = async () => {
    last ??= readHeads(readHeadsFile(folder) ?? "").reduce((most, { number }) => Math.max(most, number), 0);
    const fresh = await chain.listFrom(last + 1);
    if (fresh.length === 0) return;
    const file = await open(join(folder, headsFile), "a");
    try {
      await file.write(fresh.map(writeLine).join(""));
      await file.datasync();
    } finally {
      await file.close();
    }
    last = fresh.at(-1)!.number;
  };
  return {
    /** Notes what the chain has and the file has not; one after the other, however often it is asked. */
    complete(): Promise<void> {
      const done = queue.then(append);
      queue = done.catch(() => undefined);
      return done;
    },
  };
}

export type Heads = ReturnType<typeof createHeads>;
