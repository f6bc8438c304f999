import { hashJson } from "../hash/index.ts";
import type { Rig } from "../rig/index.ts";
import type { Topic } from "../topic/index.ts";
import type { Entry, EntryKind, EntryOf } from "./entry.ts";
import type { WalkState } from "./foldWalk.ts";
import { listOwed } from "./owed.ts";

/** Least length of all strokes, as a share of the pad's width, and least extent: a dot or a tick is no signature. Ours. */
const leastInk = { length: 0.12, extent: 0.06 } as const;

/** Whether these strokes (x, y pairs, in pixels of a pad `width` wide) are more than a dot. */
export function isSignature({ strokes, width }: Pick<EntryOf<"sign">, "strokes" | "width">): boolean {
  let length = 0;
  let [left, right, top, bottom] = [
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
    Number.POSITIVE_INFINITY,
    Number.NEGATIVE_INFINITY,
  ];
  for (const stroke of strokes)
    for (let i = 0; i + 1 < stroke.length; i += 2) {
      const [x, y] = [stroke[i]!, stroke[i + 1]!];
      if (i >= 2) length += Math.hypot(x - stroke[i - 2]!, y - stroke[i - 1]!);
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  return length >= width * leastInk.length && Math.max(right - left, bottom - top) >= width * leastInk.extent;
}

/** What a signature is for: marks, reasons, gear, hours, readings and what is owed, in one form whoever works it out. */
function describeShown(
  { topics, rig }: { readonly topics: readonly Topic[]; readonly rig: Pick<Rig, "gear"> },
  state: WalkState,
) {
  const byKey = <V>(map: ReadonlyMap<string, V>, toFacts: (value: V) => unknown) =>
    [...map].map(([key, value]) => [key, toFacts(value)] as const).sort(([a], [b]) => (a < b ? -1 : 1));
  return {
    version: 1,
    marks: byKey(state.topics, ({ mark, entry, people }) => [
      mark,
      entry.note ?? null,
      entry.how ?? null,
      entry.when ?? null,
      byKey(people, (each) => each),
    ]),
    reasons: byKey(state.reasons, ({ reason }) => reason),
    gear: byKey(state.gear, ({ count, dated }) => [count, dated ?? null]),
    hours: byKey(state.hours, ({ hours }) => hours),
    measures: byKey(state.measures, ({ value }) => value),
    owed: listOwed(topics, rig.gear, state)
      .map(({ ref, what, text, topic, severity, owner, due }) => [
        topic ?? ref,
        what,
        topic ?? text,
        severity,
        owner,
        due,
      ])
      .sort((a, b) => (String(a[0]) < String(b[0]) ? -1 : 1)),
  };
}

/**
 * SHA-256 of all that a signature is for, as it stands. Who is here, who else signed and when what was entered do not
 * change it; what was marked, counted, read or promised does.
 */
export function hashShown(content: Parameters<typeof describeShown>[0], state: WalkState): string {
  return hashJson(describeShown(content, state));
}

/** The signatures that are for something else than what stands now. One of the first version carries no digest. */
export function listStale(content: Parameters<typeof describeShown>[0], state: WalkState): EntryOf<"sign">[] {
  const digests = state.signatures.filter(({ digest, role }) => digest !== undefined && role !== "countersign");
  if (digests.length === 0) return [];
  const now = hashShown(content, state);
  return digests.filter(({ digest }) => digest !== now);
}

/** Kinds of entry that change what a signature is for. */
const signedKinds: ReadonlySet<EntryKind> = new Set<EntryKind>([
  "mark",
  "reason",
  "gear",
  "hours",
  "measure",
  "snag",
  "promise",
  "assign",
  "settle",
  "ask",
  "remote",
]);

/** What was entered or taken back since a signature, the first first: what it was not for. */
export function listSince(sign: EntryOf<"sign">, entries: readonly Entry[]): Entry[] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  return entries
    .filter((entry) => {
      const what = entry.kind === "undo" ? byId.get(entry.ref) : entry;
      return entry.id > sign.id && what !== undefined && signedKinds.has(what.kind);
    })
    .sort((a, b) => (a.id < b.id ? -1 : 1));
}

/**
 * What the signatures of a sitting are for, of all that a device knows: everything it entered itself, and what others had
 * entered when the first of them was given (`seenIds`). What came from elsewhere since is not covered by them.
 */
export function listSittingEntries(
  entries: readonly Entry[],
  device: string,
  seenIds: ReadonlySet<string> | null,
): Entry[] {
  if (seenIds === null) return [...entries];
  return entries.filter((entry) => entry.device === device || seenIds.has(entry.id));
}

/** The entries a close is for, the close itself among them; null while one of them has not arrived. */
export function listCovered(close: EntryOf<"close">, entries: readonly Entry[]): Entry[] | null {
  if (close.covers === undefined) return [...entries];
  const wanted = new Set(close.covers);
  wanted.add(close.id);
  const covered = entries.filter(({ id }) => wanted.has(id));
  return covered.length === wanted.size ? covered : null;
}
