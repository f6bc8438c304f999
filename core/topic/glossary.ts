import { z } from "zod";
import { plainText } from "../rig/index.ts";

/**
 * A trade word explained once, in plain words. `also` are other forms it is met in; `leaves` are phrases in which the word means
 * something else and is left alone ("count heads" has no toilet in it).
 */
export const glossaryEntrySchema = z.strictObject({
  term: plainText(40),
  also: z.array(plainText(40)).max(8),
  leaves: z.array(plainText(40)).max(20).optional(),
  means: plainText(300),
});
export type GlossaryEntry = z.infer<typeof glossaryEntrySchema>;

export const glossaryListSchema = z.array(glossaryEntrySchema).superRefine((entries, check) => {
  const seen = new Set<string>();
  entries.forEach(({ term, also }, i) => {
    for (const word of [term, ...also].map((each) => each.toLowerCase())) {
      if (seen.has(word)) check.addIssue({ code: "custom", path: [i], message: `"${word}" is explained twice` });
      seen.add(word);
    }
  });
});

/** A store's own words of the glossary, by the term they stand for: its own entry, or null where it leaves the word out. */
export const ownWordsSchema = z.record(plainText(40), glossaryEntrySchema.nullable());
export type OwnWords = z.infer<typeof ownWordsSchema>;

/** One word of the glossary as a store reads it. */
export interface GlossaryLine {
  readonly entry: GlossaryEntry;
  /** The term it is kept under: that of the original, where there is one. */
  readonly key: string;
  /** What ships for it; null for a word of the store's own. */
  readonly original: GlossaryEntry | null;
}

/** The shipped glossary with the store's own words laid over it, and the originals of those it leaves out. */
export function layGlossary(
  shipped: readonly GlossaryEntry[],
  own: OwnWords,
): { readonly lines: GlossaryLine[]; readonly leftOut: GlossaryEntry[] } {
  const known = new Set(shipped.map(({ term }) => term));
  const lines = shipped.flatMap((original): GlossaryLine[] => {
    const entry = own[original.term];
    return entry === null ? [] : [{ entry: entry ?? original, key: original.term, original }];
  });
  for (const [key, entry] of Object.entries(own))
    if (!known.has(key) && entry !== null) lines.push({ entry, key, original: null });
  return { lines, leftOut: shipped.filter(({ term }) => own[term] === null) };
}

export interface TextPiece {
  readonly text: string;
  /** The entry this piece is a word of; null for the rest. */
  readonly entry: GlossaryEntry | null;
}

/**
 * Cuts a text into pieces so that trade words can be underlined: the longest term wins, whole words only, plurals too, and
 * each entry at its first place only.
 *
 * @example "Pull the bilge plug." with the term "bilge" → ["Pull the ", bilge, " plug."]
 */
export function createGlossaryMarker(entries: readonly GlossaryEntry[]): (text: string) => TextPiece[] {
  const byWord = new Map<string, GlossaryEntry>();
  for (const entry of entries) for (const word of [entry.term, ...entry.also]) byWord.set(word.toLowerCase(), entry);
  const words = [...byWord.keys()].sort((a, b) => b.length - a.length).map(escapeWord);
  if (words.length === 0) return (text) => [{ text, entry: null }];
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}-])(${words.join("|")})(s|es)?(?![\\p{L}\\p{N}-])`, "giu");
  const isLeft = ({ leaves = [] }: GlossaryEntry, text: string, at: number, length: number) =>
    leaves.some((phrase) =>
      [...text.matchAll(new RegExp(escapeWord(phrase), "giu"))].some(
        ({ index }) => index <= at && at + length <= index + phrase.length,
      ),
    );
  return (text) => {
    const pieces: TextPiece[] = [];
    const met = new Set<GlossaryEntry>();
    let from = 0;
    for (const match of text.matchAll(pattern)) {
      const entry = byWord.get(match[1]!.toLowerCase());
      if (entry === undefined || met.has(entry) || isLeft(entry, text, match.index, match[0].length)) continue;
      met.add(entry);
      if (match.index > from) pieces.push({ text: text.slice(from, match.index), entry: null });
      pieces.push({ text: match[0], entry });
      from = match.index + match[0].length;
    }
    if (from < text.length) pieces.push({ text: text.slice(from), entry: null });
    return pieces;
  };
}

const escapeWord = (word: string) => word.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
