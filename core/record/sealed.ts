import { z } from "zod";
import { instantSchema, localDateSchema } from "../dates/index.ts";
import { type Hash, sha256Schema, writeJson } from "../hash/index.ts";
import { plainText } from "../rig/index.ts";
import { type Entry, entrySchema, recordIdSchema, struckName, ulidSchema } from "../walk/index.ts";
import { photoFactSchema } from "./handover.ts";
import { type Snapshot, snapshotSchema } from "./snapshot.ts";
import { struckSchema } from "./strike.ts";

/** Sixteen random bytes in hex: without it, what a hash is of cannot be guessed by trying names. */
const saltSchema = z.string().regex(/^[0-9a-f]{32}$/, "must be 16 bytes in 32 small hex digits");

/** How an entry came to the store: from its staff, by the owner's page, by one made for a remote handover, with an import. */
export const arrivals = ["staff", "owner", "remote", "import"] as const;
export type Arrival = (typeof arrivals)[number];

/** What the store knows of an entry and its author does not: it stands beside the entry, so that a resend stays equal. */
export const receiptSchema = z.strictObject({
  /** Null of an entry that came before the store noted it. */
  receivedAt: instantSchema.nullable(),
  /** In the order in which the store received its entries. */
  number: z.int().min(1),
  via: z.enum(arrivals),
  /** By how many milliseconds the clock of the device was behind the store's when it sent it; not noted by the second format. */
  offsetMs: z.int().min(-1e14).max(1e14).optional(),
});
export type Receipt = z.infer<typeof receiptSchema>;

const { offsetMs: _, ...secondReceipt } = receiptSchema.shape;
const secondEntrySchema = z.strictObject({ id: ulidSchema, hash: sha256Schema, ...secondReceipt });
const sealedEntrySchema = z.strictObject({ id: ulidSchema, hash: sha256Schema, ...receiptSchema.shape });
const sealedPartSchema = z.strictObject({ id: recordIdSchema, hash: sha256Schema });
const personRoles = ["buyer", "staff", "guest"] as const;

/** A photo as it was when it was sealed: the bytes kept, and the bytes the device sent, which its entry names. */
export const sealedPhotoSchema = photoFactSchema.extend({ sent: sha256Schema.nullable() });
export type SealedPhoto = z.infer<typeof sealedPhotoSchema>;

/**
 * What a seal is over (`ravik.handover/3`): salted hashes of entries, names and photos, whose contents stand beside. So a
 * person's data can be struck later, and all the rest still verifies. Its SHA-256, in the form of RFC 8785, is the seal.
 * `ravik.handover/2` is the same without measured offsets in its receipts.
 */
const thirdHandoverSchema = z.strictObject({
  format: z.literal("ravik.handover/3"),
  delivery: recordIdSchema,
  store: plainText(80),
  /** The store's public key (Ed25519, hex); null of a store that had none. */
  storeKey: sha256Schema.nullable(),
  date: localDateSchema,
  hull: z.string(),
  boatName: plainText(80),
  /** The snapshot the walk went by at its end, and all that its entries name. */
  snapshot: sha256Schema,
  snapshots: z.array(sha256Schema).min(1).max(100),
  people: z.array(z.strictObject({ ...sealedPartSchema.shape, role: z.enum(personRoles) })),
  entries: z.array(sealedEntrySchema),
  photos: z.array(sealedPartSchema),
  sealedBy: recordIdSchema,
  sealedAt: instantSchema,
});
const secondHandoverSchema = thirdHandoverSchema.extend({
  format: z.literal("ravik.handover/2"),
  entries: z.array(secondEntrySchema),
});
export const sealedHandoverSchema = z.discriminatedUnion("format", [secondHandoverSchema, thirdHandoverSchema]);
export type SealedHandover = z.infer<typeof sealedHandoverSchema>;

/** What came after the seal (`ravik.amendment/3`), chained to the seal before it; `/2` without measured offsets. */
const thirdAmendmentSchema = z.strictObject({
  format: z.literal("ravik.amendment/3"),
  delivery: recordIdSchema,
  /** SHA-256 of the handover or amendment it follows. */
  previous: sha256Schema,
  at: instantSchema,
  /** `uncovered`: here when it was sealed, and no signature was for it. */
  why: z.enum(["uncovered", "added", "struck"]),
  entries: z.array(sealedEntrySchema),
  photos: z.array(sealedPartSchema),
  /** Whose data is no longer kept; the hashes stay. */
  struck: struckSchema.optional(),
});
const secondAmendmentSchema = thirdAmendmentSchema.extend({
  format: z.literal("ravik.amendment/2"),
  entries: z.array(secondEntrySchema),
});
export const sealedAmendmentSchema = z.discriminatedUnion("format", [secondAmendmentSchema, thirdAmendmentSchema]);
export type SealedAmendment = z.infer<typeof sealedAmendmentSchema>;

/** A value with its salt; or, where it was struck, nothing of it. */
const held = <S extends z.ZodType>(value: S) =>
  z.union([z.strictObject({ salt: saltSchema, value }), z.strictObject({ struck: z.literal(true) })]);
const personNameSchema = plainText(80);

/** What the hashes of a seal or an amendment are of. */
export const sealedContentSchema = z.strictObject({
  people: z.record(recordIdSchema, held(personNameSchema)),
  entries: z.record(ulidSchema, held(entrySchema)),
  photos: z.record(recordIdSchema, held(sealedPhotoSchema)),
});
export type SealedContent = z.infer<typeof sealedContentSchema>;

const signatureSchema = z.string().regex(/^[0-9a-f]{128}$/);
/** Where a seal stands in its store's chain. */
const placeSchema = z.strictObject({ number: z.int().min(1), previous: sha256Schema, link: sha256Schema });
/** And the store's signature of its link, made when it was sealed; null of what bears none. */
const signedPlaceSchema = placeSchema.extend({
  key: sha256Schema.nullable(),
  signature: signatureSchema.nullable(),
});
export type SignedPlace = z.infer<typeof signedPlaceSchema>;

/** What the second and the third format of a bundle share. */
const bundleParts = {
  sha256: sha256Schema,
  content: sealedContentSchema,
  snapshots: z.record(sha256Schema, snapshotSchema),
  /** The store's signature (Ed25519) of the whole, made when it went out (`hashSigned`). */
  signature: z.strictObject({ key: sha256Schema, signs: sha256Schema, signature: signatureSchema }).optional(),
};
const secondBundleSchema = z.strictObject({
  ...bundleParts,
  format: z.literal("ravik.bundle/2"),
  handover: secondHandoverSchema,
  amendments: z
    .array(z.strictObject({ sha256: sha256Schema, amendment: secondAmendmentSchema, content: sealedContentSchema }))
    .max(2000),
  chain: placeSchema.optional(),
});
const thirdBundleSchema = z.strictObject({
  ...bundleParts,
  format: z.literal("ravik.bundle/3"),
  handover: sealedHandoverSchema,
  /** Each with its own place and signature; null of what another store than the one that signed it added. */
  amendments: z
    .array(
      z.strictObject({
        sha256: sha256Schema,
        amendment: sealedAmendmentSchema,
        content: sealedContentSchema,
        chain: signedPlaceSchema.nullable(),
      }),
    )
    .max(2000),
  chain: signedPlaceSchema.nullable(),
  /** The last of its additions, the seal itself where there is none, and how many there are. */
  end: z.strictObject({ sha256: sha256Schema, count: z.int().min(0) }),
});
/**
 * A sealed handover with all that was added since, to be taken elsewhere (`ravik.bundle/3`; `/2` without signatures of its
 * parts). Photos lie beside it.
 */
export const sealedBundleSchema = z.discriminatedUnion("format", [secondBundleSchema, thirdBundleSchema]);
export type SealedBundle = z.infer<typeof sealedBundleSchema>;

/** What is sealed, by the number of its format: for whoever describes the formats. */
export const sealedFormats = {
  2: { handover: secondHandoverSchema, amendment: secondAmendmentSchema, bundle: secondBundleSchema },
  3: { handover: thirdHandoverSchema, amendment: thirdAmendmentSchema, bundle: thirdBundleSchema },
} as const;

/** The salted hash of a value: SHA-256 of the salt's digits followed by its canonical text. */
export const hashSalted = (salt: string, value: unknown, hash: Hash): string => hash(`${salt}${writeJson(value)}`);

/** What is to be sealed: names, entries and photos as they are. */
export interface ToSeal {
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly role: (typeof personRoles)[number];
  }[];
  readonly entries: readonly { readonly entry: Entry; readonly receipt: Receipt }[];
  readonly photos: readonly SealedPhoto[];
}

/** Hashes and contents of what is to be sealed, each under a salt of its own (`createSalt`: 16 random bytes in hex). */
export function saltParts({ people, entries, photos }: ToSeal, hash: Hash, createSalt: () => string) {
  const content: SealedContent = { people: {}, entries: {}, photos: {} };
  const salted = <V>(value: V) => {
    const salt = createSalt();
    return { held: { salt, value }, hash: hashSalted(salt, value, hash) };
  };
  const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);
  return {
    content,
    people: people
      .map(({ id, name, role }) => {
        const made = salted(name);
        content.people[id] = made.held;
        return { id, role, hash: made.hash };
      })
      .sort(byId),
    entries: entries
      .map(({ entry, receipt }) => {
        const made = salted(entry);
        content.entries[entry.id] = made.held;
        return { id: entry.id, hash: made.hash, ...receipt };
      })
      .sort(byId),
    photos: photos
      .map((photo) => {
        const made = salted(photo);
        content.photos[photo.id] = made.held;
        return { id: photo.id, hash: made.hash };
      })
      .sort(byId),
  };
}

const valuesOf = <V>(parts: Readonly<Record<string, { salt: string; value: V } | { struck: true }>>): V[] =>
  Object.values(parts).flatMap((part) => ("value" in part ? [part.value] : []));

/** A sealed handover as people read it: what still stands of its contents. */
export interface OpenedHandover {
  readonly snapshot: Snapshot;
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly role: (typeof personRoles)[number];
  }[];
  readonly entries: readonly Entry[];
  readonly photos: readonly SealedPhoto[];
}

/** Opens what a seal is over. The snapshots must be those it names. */
export function openSealed(
  handover: Pick<SealedHandover, "people" | "snapshot">,
  content: SealedContent,
  snapshots: ReadonlyMap<string, Snapshot>,
): OpenedHandover {
  const snapshot = snapshots.get(handover.snapshot);
  if (snapshot === undefined) throw new Error(`openSealed: expected the snapshot ${handover.snapshot}, found none`);
  return {
    snapshot,
    people: handover.people.map(({ id, role }) => {
      const part = content.people[id];
      return { id, role, name: part !== undefined && "value" in part ? part.value : struckName };
    }),
    entries: valuesOf(content.entries),
    photos: valuesOf(content.photos),
  };
}
