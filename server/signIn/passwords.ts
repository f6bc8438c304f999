import { randomBytes, scryptSync, timingSafeEqual } from "node:crypto";
import { z } from "zod";

/** What scrypt is told. 128 · N · r bytes are in use while it works. */
export const scryptCostSchema = z.strictObject({ N: z.int(), r: z.int(), p: z.int() });
export type ScryptCost = z.infer<typeof scryptCostSchema>;

/** As OWASP's Password Storage Cheat Sheet advises for scrypt where memory is short: 32 MB, three rounds. */
export const usualCost: ScryptCost = { N: 32_768, r: 8, p: 3 };

/** A password as it is kept: salt and hash in hex, with the cost it was made at. */
export interface KeptPassword {
  readonly salt: string;
  readonly hash: string;
  readonly cost: ScryptCost;
}

/** Where hashes are made: one after the other, away from everything else. */
export interface Hasher {
  /** scrypt, 32 bytes in hex. Failure: `busy`. */
  scrypt(password: string, salt: string, cost: ScryptCost): Promise<string>;
  close(): Promise<void>;
}

/** 256 · N · r leaves scrypt the room it checks for. */
export const scryptHere = (password: string, salt: string, { N, r, p }: ScryptCost): string =>
  scryptSync(password.normalize("NFKC"), salt, 32, { N, r, p, maxmem: 256 * N * r }).toString("hex");

/** In this very thread: for tests, and for what makes stores. */
export const hashHere: Hasher = {
  scrypt: async (password, salt, cost) => scryptHere(password, salt, cost),
  close: async () => undefined,
};

export async function hashPassword(hasher: Hasher, password: string, cost: ScryptCost): Promise<KeptPassword> {
  const salt = randomBytes(16).toString("hex");
  return { salt, hash: await hasher.scrypt(password, salt, cost), cost };
}

/** Takes the same time for a right and a wrong password. */
export async function isPassword(hasher: Hasher, password: string, kept: KeptPassword): Promise<boolean> {
  const mine = Buffer.from(await hasher.scrypt(password, kept.salt, kept.cost), "hex");
  const theirs = Buffer.from(kept.hash, "hex");
  return mine.length === theirs.length && timingSafeEqual(mine, theirs);
}

/** Whether a hash was made at less than what is usual now: it is made anew when its password is next known. */
export const isWeaker = (cost: ScryptCost, than: ScryptCost): boolean =>
  cost.N * cost.r * cost.p < than.N * than.r * than.p;
