import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";

/** SHA-256 of a text as UTF-8, in small hex digits. The server puts its own, faster one in this place. */
export type Hash = (text: string) => string;

/** SHA-256 of bytes, in small hex digits. In plain JavaScript: a page served without TLS has no `crypto.subtle`. */
export const hashBytes = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/**
 * SHA-256 of a text as UTF-8, in small hex digits.
 *
 * @example ("") → "e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855"
 */
export const hashText: Hash = (text) => hashBytes(utf8ToBytes(text));
