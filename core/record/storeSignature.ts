import * as ed25519 from "@noble/ed25519";
import { sha512 } from "@noble/hashes/sha2.js";
import { hexToBytes, utf8ToBytes } from "@noble/hashes/utils.js";
import { type Hash, writeJson } from "../hash/index.ts";
import type { SealedBundle } from "./sealed.ts";

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

/** What the store signs of a bundle: its seal, the last that was added, how many were, and its link in the chain, as one hash. */
export function hashSigned(
  bundle: Pick<SealedBundle, "format" | "sha256" | "amendments" | "chain">,
  hash: Hash,
): string {
  const { sha256, amendments, chain } = bundle;
  const signed = { sha256, last: amendments.at(-1)?.sha256 ?? sha256, link: chain?.link ?? null };
  // The second format did not count them.
  return hash(writeJson(bundle.format === "ravik.bundle/2" ? signed : { ...signed, count: amendments.length }));
}
