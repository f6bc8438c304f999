import { randomBytes, scrypt, timingSafeEqual } from "node:crypto";
import { promisify } from "node:util";

const scryptAsync = promisify<string, string, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(
  scrypt,
);
const cost = { N: 16_384, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };

/** scrypt of a password with a fresh salt, both in hex. */
export async function hashPassword(password: string): Promise<{ salt: string; hash: string }> {
  const salt = randomBytes(16).toString("hex");
  return { salt, hash: (await scryptAsync(password, salt, 32, cost)).toString("hex") };
}

/** Takes the same time for a right and a wrong password. */
export async function isPassword(password: string, stored: { salt: string; hash: string }): Promise<boolean> {
  const mine = await scryptAsync(password, stored.salt, 32, cost);
  return timingSafeEqual(mine, Buffer.from(stored.hash, "hex"));
}
