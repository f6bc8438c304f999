import { type Hash, hashText, writeJson } from "../hash/index.ts";
import { findUnfit } from "../text/index.ts";
import type { Bundle } from "./bundle.ts";
import { bundleSchema } from "./bundle.ts";
import { type Handover, handoverSchema, writeCanonical, writeLink } from "./handover.ts";
import type { Strike } from "./strike.ts";
import { type Difference, type Known, unread, type Verified } from "./verified.ts";
import { verifySealed } from "./verifySealed.ts";

const theRecord = "the sealed record";
const formatAmendment = (i: number) => `addition ${i + 1}`;

/**
 * Is this handover what was sealed? Takes a bundle or a bare record (`ravik.handover/1` beside its seal is a bundle without
 * additions), as parsed JSON. Every entry that was changed, left out or put in is named; so is any other part when the
 * store's own copy is at hand.
 */
export function verifyBundle(value: unknown, hash: Hash = hashText, known: Known = {}): Verified {
  const unfit = findUnfit(value);
  if (unfit !== null) {
    const differences: Difference[] = [{ code: "not-readable", ...unfit }];
    return { ...unread, differences };
  }
  const format = (value as { format?: unknown } | null)?.format;
  const isSealed = format === "ravik.bundle/2" || format === "ravik.bundle/3";
  return isSealed ? verifySealed(value, hash, known) : verifyFirst(value, hash, known);
}

/** `verifyBundle` for `ravik.bundle/1`, whose record holds its entries themselves. */
function verifyFirst(value: unknown, hash: Hash, known: Known): Verified {
  const differences: Difference[] = [];
  const original = known.original?.format === "ravik.handover/1" ? known.original : undefined;
  const parsed = bundleSchema.safeParse(value);
  // A changed record may not even be a valid one any more: what can be read of it is still compared entry by entry.
  const loose = value as Partial<Bundle> | null;
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    differences.push({ code: "not-readable", path: issue.path.join("."), message: issue.message });
    if (!isReadable(loose)) return { ...unread, differences };
  }
  // As it came: what parsing fills in was not sealed.
  const bundle = loose as Bundle;
  const { handover } = bundle;
  const struck = (bundle.amendments ?? []).flatMap(({ amendment }) => amendment.struck?.parts ?? []);
  if (struck.length > 0) return verifyStruck(bundle, hash, struck, { differences, photos: known.photos });
  const sha256 = hash(writeCanonical(handover));
  if (sha256 !== bundle.sha256 || (original !== undefined && writeCanonical(original) !== writeCanonical(handover)))
    differences.push(...findChanges(handover, hash, original));
  differences.push(...findBreaks(bundle, hash, () => false), ...comparePhotos(bundle, known.photos, () => false));
  return {
    ...judge(differences),
    differences,
    sha256,
    entries: handover.entries.length,
    amendments: bundle.amendments?.length ?? 0,
  };
}

/** The first format carries nobody's signature. */
const judge = ({ length }: readonly Difference[]): Pick<Verified, "verdict" | "isIntact" | "signedBy"> => ({
  verdict: length === 0 ? "unsigned" : "differs",
  isIntact: length === 0,
  signedBy: null,
});

/** Additions that are not what was added, or stand in another's place, but those that were rewritten by a strike. */
function findBreaks(bundle: Bundle, hash: Hash, isStruck: IsStruck): Difference[] {
  const found: Difference[] = [];
  let previous = bundle.sha256;
  for (const [i, { sha256: said, amendment }] of (bundle.amendments ?? []).entries()) {
    const where = formatAmendment(i);
    if (amendment.previous !== previous)
      found.push({ code: "chain-broken", in: where, expected: previous, got: amendment.previous });
    const isRewritten = amendment.entries.some(({ id }) => isStruck("entry", id));
    if (!isRewritten && hash(writeCanonical(amendment)) !== said)
      found.push(
        amendment.entries.length === 1
          ? { code: "entry-changed", entry: amendment.entries[0]!.id, kind: amendment.entries[0]!.kind, in: where }
          : { code: "part-changed", part: null, in: where },
      );
    previous = said;
  }
  if (bundle.chain !== undefined) {
    const expected = hash(writeLink(bundle.chain.previous, bundle.sha256));
    if (expected !== bundle.chain.link)
      found.push({ code: "chain-broken", in: "the store's seal chain", expected, got: bundle.chain.link });
  }
  return found;
}

type IsStruck = (part: Strike["part"], id: string) => boolean;

function comparePhotos({ handover, amendments }: Bundle, hashes: Known["photos"], isStruck: IsStruck): Difference[] {
  if (hashes === undefined) return [];
  const added = (amendments ?? []).flatMap(({ amendment }) => amendment.photos ?? []);
  return [...(handover.photos ?? []), ...added].flatMap(({ id, sha256 }): Difference[] => {
    if (isStruck("photo", id)) return [];
    const got = hashes.get(id);
    if (got === undefined) return [{ code: "photo-missing", photo: id }];
    return got === sha256 ? [] : [{ code: "photo-changed", photo: id }];
  });
}

/** Of a record that names were struck from what can still be held against something: the digests, the chain, the photos. */
function verifyStruck(
  bundle: Bundle,
  hash: Hash,
  struck: readonly Strike[],
  { differences, photos }: { readonly differences: readonly Difference[]; readonly photos: Known["photos"] },
): Verified {
  const isStruck: IsStruck = (part, id) => struck.some((each) => each.part === part && each.id === id);
  const { handover } = bundle;
  const found = [
    ...differences,
    ...compareDigests(handover.entries, handover.digests ?? null, hash).filter(
      (each) => !("entry" in each && each.code === "entry-changed" && isStruck("entry", each.entry)),
    ),
    ...findBreaks(bundle, hash, isStruck),
    ...comparePhotos(bundle, photos, isStruck),
  ];
  return {
    ...judge(found),
    differences: found,
    sha256: bundle.sha256,
    entries: handover.entries.length,
    amendments: bundle.amendments.length,
    cannotRecompute: true,
  };
}

/** Entries against the digests that were sealed with them; nothing where there are none. */
function compareDigests(
  entries: Handover["entries"],
  digests: Readonly<Record<string, string>> | null,
  hash: Hash,
): Difference[] {
  if (digests === null) return [];
  const seen = new Set(entries.map(({ id }) => id));
  return [
    ...entries.flatMap((entry): Difference[] => {
      const where = { entry: entry.id, kind: entry.kind, in: theRecord };
      if (digests[entry.id] === undefined) return [{ code: "entry-added", ...where }];
      return digests[entry.id] === hash(writeJson(entry)) ? [] : [{ code: "entry-changed", ...where }];
    }),
    ...Object.keys(digests).flatMap((id): Difference[] =>
      seen.has(id) ? [] : [{ code: "entry-missing", entry: id, in: theRecord }],
    ),
  ];
}

/** Whether so much of it is a record that its entries can be looked at one by one. */
function isReadable(loose: Partial<Bundle> | null): boolean {
  const isObject = (each: unknown): each is object => typeof each === "object" && each !== null && !Array.isArray(each);
  if (!isObject(loose) || !isObject(loose.handover) || typeof loose.sha256 !== "string") return false;
  const { entries, photos, digests } = loose.handover as Partial<Handover>;
  const isList = (list: unknown) => Array.isArray(list) && list.every(isObject);
  return (
    isList(entries) &&
    (photos === undefined || isList(photos)) &&
    (digests === undefined || isObject(digests)) &&
    (loose.amendments === undefined ||
      (isList(loose.amendments) &&
        loose.amendments.every(({ amendment }) => isObject(amendment) && isList(amendment.entries)))) &&
    (loose.chain === undefined || isObject(loose.chain))
  );
}

/** Where a record that does not fit its seal was changed: by its own digests, and by the original where there is one. */
function findChanges(handover: Handover, hash: Hash, original?: Handover): Difference[] {
  const digests =
    original === undefined
      ? (handover.digests ?? null)
      : Object.fromEntries(original.entries.map((e) => [e.id, hash(writeJson(e))] as const));
  const found = compareDigests(handover.entries, digests, hash);
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
    case "signature-wrong":
      return `the store's signature is not of this file (key ${difference.key.slice(0, 16)}…)`;
    case "key-differs":
      return difference.key === "none"
        ? `it bears no signature, and was to bear that of key ${difference.expected.slice(0, 16)}…`
        : `${difference.in} is signed with key ${difference.key.slice(0, 16)}…, not with ${difference.expected.slice(0, 16)}… of the store that sealed it: right only if that store says it changed its key`;
    case "photo-changed":
      return `photo ${difference.photo} is not the one that was sealed`;
    case "photo-missing":
      return `photo ${difference.photo} is missing`;
    default:
      throw new Error(`formatDifference: expected a known code, got ${JSON.stringify(difference satisfies never)}`);
  }
}
