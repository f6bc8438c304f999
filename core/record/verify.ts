import type { Bundle } from "./bundle.ts";
import { bundleSchema } from "./bundle.ts";
import { type Handover, handoverSchema, writeCanonical, writeJson, writeLink } from "./handover.ts";

/** SHA-256 of a text as UTF-8, in small hex digits. */
export type Hash = (text: string) => string | Promise<string>;

/** One thing that is not as it was sealed. */
export type Difference =
  | { readonly code: "not-readable"; readonly path: string; readonly message: string }
  /** This entry is not the one that was sealed. */
  | { readonly code: "entry-changed"; readonly entry: string; readonly kind: string; readonly in: string }
  | { readonly code: "entry-missing"; readonly entry: string; readonly in: string }
  | { readonly code: "entry-added"; readonly entry: string; readonly kind: string; readonly in: string }
  /** The entries are right, or cannot be told one by one; what was changed is this part, or any part where it is null. */
  | { readonly code: "part-changed"; readonly part: string | null; readonly in: string }
  | { readonly code: "chain-broken"; readonly in: string; readonly expected: string; readonly got: string }
  | { readonly code: "photo-changed"; readonly photo: string }
  | { readonly code: "photo-missing"; readonly photo: string };

export interface Verified {
  readonly isIntact: boolean;
  readonly differences: readonly Difference[];
  readonly sha256: string | null;
  readonly entries: number;
  readonly amendments: number;
}

interface Known {
  /** The record as the store itself keeps it, where it can be asked: then any part can be told. */
  readonly original?: Handover;
  /** Hashes of the photos' bytes that came with it, by id. */
  readonly photos?: ReadonlyMap<string, string>;
}

const theRecord = "the sealed record";
const formatAmendment = (i: number) => `addition ${i + 1}`;

/**
 * Is this handover what was sealed? Takes a bundle or a bare record (`ravik.handover/1` beside its seal is a bundle without
 * additions), as parsed JSON. Every entry that was changed, left out or put in is named; so is any other part when the
 * store's own copy is at hand.
 */
export async function verifyBundle(value: unknown, hash: Hash, known: Known = {}): Promise<Verified> {
  const differences: Difference[] = [];
  const parsed = bundleSchema.safeParse(value);
  // A changed record may not even be a valid one any more: what can be read of it is still compared entry by entry.
  const loose = value as Partial<Bundle> | null;
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    differences.push({ code: "not-readable", path: issue.path.join("."), message: issue.message });
    if (typeof loose?.handover !== "object" || loose.handover === null || !Array.isArray(loose.handover.entries))
      return { isIntact: false, differences, sha256: null, entries: 0, amendments: 0 };
  }
  // As it came: what parsing fills in was not sealed.
  const bundle = loose as Bundle;
  const { handover } = bundle;
  const sha256 = await hash(writeCanonical(handover));
  if (
    sha256 !== bundle.sha256 ||
    (known.original !== undefined && writeCanonical(known.original) !== writeCanonical(handover))
  )
    differences.push(...(await findChanges(handover, hash, known.original)));
  let previous = bundle.sha256;
  for (const [i, { sha256: said, amendment }] of (bundle.amendments ?? []).entries()) {
    const where = formatAmendment(i);
    if (amendment.previous !== previous)
      differences.push({ code: "chain-broken", in: where, expected: previous, got: amendment.previous });
    if ((await hash(writeCanonical(amendment))) !== said)
      differences.push(
        amendment.entries.length === 1
          ? { code: "entry-changed", entry: amendment.entries[0]!.id, kind: amendment.entries[0]!.kind, in: where }
          : { code: "part-changed", part: null, in: where },
      );
    previous = said;
  }
  if (bundle.chain !== undefined) {
    const expected = await hash(writeLink(bundle.chain.previous, bundle.sha256));
    if (expected !== bundle.chain.link)
      differences.push({ code: "chain-broken", in: "the store's seal chain", expected, got: bundle.chain.link });
  }
  const added = (bundle.amendments ?? []).flatMap(({ amendment }) => amendment.photos ?? []);
  if (known.photos !== undefined)
    for (const photo of [...(handover.photos ?? []), ...added]) {
      const got = known.photos.get(photo.id);
      if (got === undefined) differences.push({ code: "photo-missing", photo: photo.id });
      else if (got !== photo.sha256) differences.push({ code: "photo-changed", photo: photo.id });
    }
  return {
    isIntact: differences.length === 0,
    differences,
    sha256,
    entries: handover.entries.length,
    amendments: bundle.amendments?.length ?? 0,
  };
}

/** Where a record that does not fit its seal was changed: by its own digests, and by the original where there is one. */
async function findChanges(handover: Handover, hash: Hash, original?: Handover): Promise<Difference[]> {
  const found: Difference[] = [];
  const digests =
    original === undefined
      ? (handover.digests ?? null)
      : Object.fromEntries(
          await Promise.all(original.entries.map(async (e) => [e.id, await hash(writeJson(e))] as const)),
        );
  if (digests !== null) {
    const seen = new Set<string>();
    for (const entry of handover.entries) {
      seen.add(entry.id);
      const where = { entry: entry.id, kind: entry.kind, in: theRecord };
      if (digests[entry.id] === undefined) found.push({ code: "entry-added", ...where });
      else if (digests[entry.id] !== (await hash(writeJson(entry)))) found.push({ code: "entry-changed", ...where });
    }
    for (const id of Object.keys(digests))
      if (!seen.has(id)) found.push({ code: "entry-missing", entry: id, in: theRecord });
  }
  if (original !== undefined) {
    for (const part of Object.keys(handoverSchema.shape) as (keyof Handover)[]) {
      if (part === "entries") continue;
      if (JSON.stringify(sortDeep(original[part])) !== JSON.stringify(sortDeep(handover[part])))
        found.push({ code: "part-changed", part, in: theRecord });
    }
  }
  if (found.length === 0) found.push({ code: "part-changed", part: null, in: theRecord });
  return found;
}

const sortDeep = (value: unknown): unknown => (value === undefined ? null : JSON.parse(writeJson(value)));

/** A difference in words, without a full stop. */
export function formatDifference(difference: Difference): string {
  switch (difference.code) {
    case "not-readable":
      return `not a handover any more: ${difference.path} ${difference.message}`;
    case "entry-changed":
      return `entry ${difference.entry} (${difference.kind}) in ${difference.in} is not the one that was sealed`;
    case "entry-missing":
      return `entry ${difference.entry} is missing from ${difference.in}`;
    case "entry-added":
      return `entry ${difference.entry} (${difference.kind}) was not in ${difference.in}`;
    case "part-changed":
      return difference.part === null
        ? `${difference.in} does not fit its seal, though no single entry can be blamed: another part of it was changed`
        : `"${difference.part}" of ${difference.in} is not what was sealed`;
    case "chain-broken":
      return `${difference.in} does not follow the seal before it`;
    case "photo-changed":
      return `photo ${difference.photo} is not the one that was sealed`;
    case "photo-missing":
      return `photo ${difference.photo} is missing`;
    default:
      throw new Error(`formatDifference: expected a known code, got ${JSON.stringify(difference satisfies never)}`);
  }
}
