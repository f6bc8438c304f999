import type { Handover } from "./handover.ts";
import type { SealedHandover } from "./sealed.ts";

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
  | { readonly code: "signature-wrong"; readonly key: string }
  /** What bears a good signature is signed by another than the store that sealed it. */
  | { readonly code: "key-differs"; readonly key: string; readonly expected: string; readonly in: string }
  | { readonly code: "photo-changed"; readonly photo: string }
  | { readonly code: "photo-missing"; readonly photo: string };

/** Intact and signed by the store that sealed it; intact, and nobody's signature says so; or something differs. */
export const verdicts = ["signed", "unsigned", "differs"] as const;

export interface Verified {
  readonly verdict: (typeof verdicts)[number];
  readonly isIntact: boolean;
  readonly differences: readonly Difference[];
  readonly sha256: string | null;
  readonly entries: number;
  readonly amendments: number;
  /**
   * Names were struck from a record of the first format: its seal was over them and can no longer be recomputed. What stays
   * was held against the digests that were sealed with it.
   */
  readonly cannotRecompute?: true;
  /** Whose signature it bears, where it bears a good one. */
  readonly signedBy: { readonly store: string; readonly key: string } | null;
}

export interface Known {
  /** What the store itself sealed, where it can be asked: then any part can be named. */
  readonly original?: Handover | SealedHandover;
  /** Other keys of the store that sealed it, before or after it changed its key. */
  readonly keys?: readonly string[];
  /** The key that must have signed it, where somebody knows it from elsewhere. */
  readonly expectedKey?: string;
  /** Hashes of the photos' bytes that came with it, by id. */
  readonly photos?: ReadonlyMap<string, string>;
}

/** Of what cannot be read as a handover at all. */
export const unread = {
  verdict: "differs",
  isIntact: false,
  sha256: null,
  entries: 0,
  amendments: 0,
  signedBy: null,
} as const satisfies Partial<Verified>;
