import { scrypt } from "@noble/hashes/scrypt.js";
import { bytesToHex, hexToBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { findPublicKey, signWith } from "../signature/index.ts";

/** What a PIN unlocks on one tablet: a key (Ed25519) that the server knows the public half of. Both halves are 64 hex digits. */
export interface PinKey {
  readonly seed: string;
  readonly publicKey: string;
}

const cost = { N: 2 ** 14, r: 8, p: 1, dkLen: 32 };

/** The key of a PIN and its salt (hex): scrypt makes the seed of it. It works without a secure context, which a yard's network has none of. */
export function derivePinKey(pin: string, salt: string): PinKey {
  const seed = bytesToHex(scrypt(utf8ToBytes(pin), hexToBytes(salt), cost));
  return { seed, publicKey: findPublicKey(seed) };
}

/** The proof of whoever has a PIN's seed (hex), for the server's challenge. */
export const signOpening = (seed: string, challenge: string): string => signWith(seed, writeOpening(challenge));

/** What a PIN's key signs to open a session at the server, which made the challenge. */
export const writeOpening = (challenge: string): string => `ravik.open/1 ${challenge}`;
