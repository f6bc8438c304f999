import { hashJson } from "../hash/index.ts";
import { isSignedWith, signWith } from "../signature/index.ts";
import type { Entry } from "../walk/index.ts";

/** What an entry says, whatever its clock was put right to as it was sent: SHA-256, by which its author's key answers for it. */
export function describeEntry({ at: _, clockMs: __, ...entry }: Entry): string {
  return `entry ${hashJson(entry)}`;
}

/** What is written about a boat: the endpoint's name, what stands in its address, and what is sent but for the device's clock. */
export function describePost(name: string, params: object, sent: object): string {
  const { deviceMs: _, ...body } = sent as { readonly deviceMs?: unknown };
  return `post ${hashJson({ name, params, body })}`;
}

/** A photo by its name and its bytes. */
export const describePhoto = (id: string, sha256: string) => `photo ${id} ${sha256}`;

const write = (what: string) => `ravik.sent/1 ${what}`;

/** The word of whoever has a PIN's seed (hex) for something that is sent while another is in front (`describe…`): a signature in hex. */
export const signSent = (seed: string, what: string): string => signWith(seed, write(what));

/** Whether it is the word of whom a public key belongs to. */
export const isSent = (publicKey: string, what: string, proof: string): boolean =>
  isSignedWith(publicKey, write(what), proof);
