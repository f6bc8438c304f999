import { type Hash, writeJson } from "../hash/index.ts";
import type { SealedBundle } from "./sealed.ts";

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
