import { type Hash, writeJson } from "../hash/index.ts";
import { isSignedWith } from "../signature/index.ts";
import { writeLink } from "./handover.ts";
import { hashSigned } from "./hashSigned.ts";
import { hashSalted, type SealedBundle, type SealedContent, type SignedPlace, sealedBundleSchema } from "./sealed.ts";
import type { Strike } from "./strike.ts";
import { type Difference, type Known, unread, type Verified } from "./verified.ts";

const theRecord = "the sealed record";
const nameAmendment = (i: number) => `addition ${i + 1}`;

interface Sealed {
  readonly people?: readonly { id: string; hash: string }[];
  readonly entries: readonly { id: string; hash: string }[];
  readonly photos: readonly { id: string; hash: string }[];
}

/** `verifyBundle` for `ravik.bundle/2` and `/3`: every hash against its content, what was struck against who struck it. */
export function verifySealed(value: unknown, hash: Hash, known: Known): Verified {
  const differences: Difference[] = [];
  const parsed = sealedBundleSchema.safeParse(value);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    differences.push({ code: "not-readable", path: issue.path.join("."), message: issue.message });
    return { ...unread, differences };
  }
  // As it came: what parsing fills in was not sealed.
  const bundle = value as SealedBundle;
  const { handover } = bundle;
  const sha256 = hash(writeJson(handover));
  if (sha256 !== bundle.sha256) differences.push({ code: "part-changed", part: null, in: theRecord });
  if (known.original !== undefined && writeJson(known.original) !== writeJson(handover)) {
    const original = known.original as Readonly<Record<string, unknown>>;
    for (const part of Object.keys(original))
      if (writeJson(original[part]) !== writeJson(handover[part as keyof typeof handover]))
        differences.push({ code: "part-changed", part, in: theRecord });
  }
  const struck = bundle.amendments.flatMap(({ amendment }) => amendment.struck?.parts ?? []);
  differences.push(...compareContent(handover, bundle.content, struck, theRecord, hash));
  for (const name of new Set([handover.snapshot, ...handover.snapshots])) {
    const snapshot = bundle.snapshots[name];
    if (snapshot === undefined || hash(writeJson(snapshot)) !== name)
      differences.push({ code: "part-changed", part: `snapshot ${name.slice(0, 12)}`, in: theRecord });
  }
  let previous = bundle.sha256;
  for (const [i, { sha256: said, amendment, content }] of bundle.amendments.entries()) {
    const where = nameAmendment(i);
    if (amendment.previous !== previous)
      differences.push({ code: "chain-broken", in: where, expected: previous, got: amendment.previous });
    if (hash(writeJson(amendment)) !== said) differences.push({ code: "part-changed", part: null, in: where });
    differences.push(...compareContent(amendment, content, struck, where, hash));
    previous = said;
  }
  differences.push(...compareEnd(bundle), ...comparePlaces(bundle, hash));
  const signer = findSigner(bundle, hash, known);
  differences.push(...signer.differences, ...comparePhotos(bundle, known.photos));
  const isIntact = differences.length === 0;
  return {
    verdict: isIntact ? (signer.key === null ? "unsigned" : "signed") : "differs",
    isIntact,
    differences,
    sha256,
    entries: handover.entries.length,
    amendments: bundle.amendments.length,
    signedBy: signer.key === null ? null : { store: handover.store, key: signer.key },
  };
}

/** Additions that were cut off or put at the end. */
function compareEnd(bundle: SealedBundle): Difference[] {
  if (bundle.format === "ravik.bundle/2") return [];
  const got = bundle.amendments.at(-1)?.sha256 ?? bundle.sha256;
  const { sha256, count } = bundle.end;
  if (sha256 === got && count === bundle.amendments.length) return [];
  return [{ code: "chain-broken", in: "the end of its additions", expected: sha256, got }];
}

/** Seal and additions, each with its place in the store's chain as far as the format has one. */
const listPlaces = (bundle: SealedBundle): { sha256: string; place: Partial<SignedPlace> | null; in: string }[] => [
  { sha256: bundle.sha256, place: bundle.chain ?? null, in: "the store's seal chain" },
  ...bundle.amendments.map((each, i) => ({
    sha256: each.sha256,
    place: "chain" in each ? each.chain : null,
    in: nameAmendment(i),
  })),
];

/** Places that do not follow from their seals, or whose signature is none of their key. */
function comparePlaces(bundle: SealedBundle, hash: Hash): Difference[] {
  return listPlaces(bundle).flatMap(({ sha256, place, in: where }): Difference[] => {
    if (place === null) return [];
    const expected = hash(writeLink(place.previous!, sha256));
    if (expected !== place.link) return [{ code: "chain-broken", in: where, expected, got: place.link! }];
    const { key = null, signature = null } = place;
    if (key === null) return [];
    return signature !== null && isSignedWith(key, place.link, signature) ? [] : [{ code: "signature-wrong", key }];
  });
}

/** Who signed the whole; and what is signed by somebody else than the store that sealed it. */
function findSigner(bundle: SealedBundle, hash: Hash, { keys = [], expectedKey }: Known) {
  const { signature, handover } = bundle;
  const differences: Difference[] = [];
  const own = handover.storeKey;
  const check = (key: string, where: string) => {
    if (own !== null && key !== own && !keys.includes(key))
      differences.push({ code: "key-differs", key, expected: own, in: where });
  };
  for (const { place, in: where } of listPlaces(bundle)) if (place?.key != null) check(place.key, where);
  if (signature === undefined) {
    if (expectedKey !== undefined)
      differences.push({ code: "key-differs", key: "none", expected: expectedKey, in: theRecord });
    return { key: null, differences };
  }
  const isOfThis = hashSigned(bundle, hash) === signature.signs;
  if (!isOfThis || !isSignedWith(signature.key, signature.signs, signature.signature)) {
    differences.push({ code: "signature-wrong", key: signature.key });
    return { key: null, differences };
  }
  check(signature.key, theRecord);
  if (expectedKey !== undefined && signature.key !== expectedKey)
    differences.push({ code: "key-differs", key: signature.key, expected: expectedKey, in: theRecord });
  return { key: signature.key, differences };
}

/** Each sealed hash against the content it is of, and no content besides. */
function compareContent(
  sealed: Sealed,
  content: SealedContent,
  struck: readonly Strike[],
  where: string,
  hash: Hash,
): Difference[] {
  const found: Difference[] = [];
  const isStruck = (part: Strike["part"], id: string) => struck.some((each) => each.part === part && each.id === id);
  for (const { id, hash: wanted } of sealed.entries) {
    const part = content.entries[id];
    if (part === undefined || "struck" in part) {
      if (part === undefined || !isStruck("entry", id)) found.push({ code: "entry-missing", entry: id, in: where });
    } else if (part.value.id !== id || hashSalted(part.salt, part.value, hash) !== wanted)
      found.push({ code: "entry-changed", entry: id, kind: part.value.kind, in: where });
  }
  const sealedIds = new Set(sealed.entries.map(({ id }) => id));
  for (const [id, part] of Object.entries(content.entries))
    if (!sealedIds.has(id))
      found.push({ code: "entry-added", entry: id, kind: "value" in part ? part.value.kind : "?", in: where });
  for (const kind of ["people", "photos"] as const) {
    const list = sealed[kind] ?? [];
    for (const { id, hash: wanted } of list) {
      const part = content[kind][id];
      const isGone = part === undefined || "struck" in part;
      const mayBeGone = part !== undefined && isStruck(kind === "people" ? "person" : "photo", id);
      if (isGone ? !mayBeGone : hashSalted(part.salt, part.value, hash) !== wanted)
        found.push({ code: "part-changed", part: `${kind === "people" ? "name of" : "photo"} ${id}`, in: where });
    }
    for (const id of Object.keys(content[kind]))
      if (!list.some((each) => each.id === id)) found.push({ code: "part-changed", part: `${kind} ${id}`, in: where });
  }
  return found;
}

function comparePhotos(bundle: SealedBundle, hashes: Known["photos"]): Difference[] {
  if (hashes === undefined) return [];
  const contents = [bundle.content, ...bundle.amendments.map(({ content }) => content)];
  return contents.flatMap(({ photos }) =>
    Object.entries(photos).flatMap(([photo, part]): Difference[] => {
      if ("struck" in part) return [];
      const got = hashes.get(photo);
      if (got === undefined) return [{ code: "photo-missing", photo }];
      return got === part.value.sha256 ? [] : [{ code: "photo-changed", photo }];
    }),
  );
}
