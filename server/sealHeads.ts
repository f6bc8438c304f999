import { appendFileSync, existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import type { LocalDate } from "../core/dates/index.ts";
import type { Chain } from "./repositories/chain.ts";

/** Where the head of the seal chain is kept day by day, outside the database: whoever cuts the chain's tail does not cut this. */
export const headsFile = "seal-heads.txt";

export interface Head {
  readonly day: LocalDate;
  readonly number: number;
  readonly link: string;
}

/** The heads of a file, the first first; lines that are none are passed over. */
export function readHeads(text: string): Head[] {
  return text.split("\n").flatMap((line) => {
    const match = /^(\d{4}-\d{2}-\d{2}) (\d+) ([0-9a-f]{64})$/.exec(line.trim());
    return match === null ? [] : [{ day: match[1] as LocalDate, number: Number(match[2]), link: match[3]! }];
  });
}

/** Writes down today's head of the chain, once a day; nothing while nothing was sealed since the last. */
export async function keepHead(folder: string, chain: Chain, today: LocalDate): Promise<void> {
  const head = await chain.findHead();
  if (head === null) return;
  const path = join(folder, headsFile);
  const last = existsSync(path) ? readHeads(readFileSync(path, "utf8")).at(-1) : undefined;
  if (last?.day === today || last?.link === head.link) return;
  appendFileSync(path, `${today} ${head.number} ${head.link}\n`);
}
