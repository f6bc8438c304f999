import * as ed25519 from "@noble/ed25519";
import { sha512 } from "@noble/hashes/sha2.js";
import { bytesToHex, hexToBytes, utf8ToBytes } from "@noble/hashes/utils.js";

// The package brings the curve and leaves the hash to its user.
ed25519.hashes.sha512 = sha512;

/** Whether a signature (Ed25519, hex) of a text as UTF-8 was made with the private part of a public key (hex). */
export function isSignedWith(key: string, text: string, signature: string): boolean {
  try {
    return ed25519.verify(hexToBytes(signature), utf8ToBytes(text), hexToBytes(key));
  } catch {
    // A key that is no point of the curve, digits that are none: nobody signed with that.
    return false;
  }
}

/** The signature (hex) of a text as UTF-8 by the private half of a key, given as its seed (hex). */
export const signWith = (seed: string, text: string): string =>
  bytesToHex(ed25519.sign(utf8ToBytes(text), hexToBytes(seed)));

/** The public half (hex) of the key that a seed (hex) makes. */
export const findPublicKey = (seed: string): string => bytesToHex(ed25519.getPublicKey(hexToBytes(seed)));
