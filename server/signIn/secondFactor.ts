import { createHash, randomBytes, timingSafeEqual } from "node:crypto";
import { Secret, TOTP } from "otpauth";

/** Codes of the step before and the step after are taken too: clocks differ. */
const window = 1;
const periodS = 30;
const recoveryCodes = 8;

const totpOf = (secret: string, store = "", login = "") =>
  new TOTP({ issuer: store, label: login, secret: Secret.fromBase32(secret), period: periodS });

/** A fresh secret of 160 bits in base 32 (RFC 6238). */
export const createSecret = (): string => new Secret({ size: 20 }).base32;

/** The `otpauth` address that an authenticator reads from a QR code. */
export const describeSecret = (secret: string, store: string, login: string): string =>
  totpOf(secret, store, login).toString();

/** The step a code belongs to, where it is right and later than `lastStep`: each works once. Null else. */
export function findStep(secret: string, code: string, nowMs: number, lastStep: number): number | null {
  const delta = totpOf(secret).validate({ token: code.replace(/\s/g, ""), timestamp: nowMs, window });
  if (delta === null) return null;
  const step = Math.floor(nowMs / 1000 / periodS) + delta;
  return step > lastStep ? step : null;
}

/** Crockford's base 32: no letter is taken for a digit. */
const alphabet = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";

/** A code to be read out or typed: ten signs, 50 bits, in two halves. */
export function createCode(): string {
  const signs = [...randomBytes(10)].map((byte) => alphabet[byte % 32]);
  return `${signs.slice(0, 5).join("")}-${signs.slice(5).join("")}`;
}

/** As it was meant, however it was typed. */
export const readCode = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/O/g, "0")
    .replace(/[IL]/g, "1")
    .replace(/[^0-9A-Z]/g, "");

/** What is kept of a code or a token. They are random and long, so that a plain hash holds. */
export const hashCode = (code: string): string => createHash("sha256").update(readCode(code)).digest("hex");

export const isSameCode = (a: string, b: string): boolean => {
  const [mine, theirs] = [a, b].map((code) => Buffer.from(hashCode(code), "hex"));
  return timingSafeEqual(mine!, theirs!);
};

export const createRecoveryCodes = (): string[] => Array.from({ length: recoveryCodes }, createCode);
