import type { Entry, EntryOf, Mark } from "./entry.ts";

export interface TopicState {
  readonly mark: Mark;
  readonly entry: EntryOf<"mark">;
  /** The furthest each person got, for marks made for one person. */
  readonly people: ReadonlyMap<string, Mark>;
  readonly spentS: number;
}

/** A handover as its entries tell it. */
export interface WalkState {
  readonly startedAt: string | null;
  readonly lastAt: string | null;
  readonly topics: ReadonlyMap<string, TopicState>;
  readonly reasons: ReadonlyMap<string, EntryOf<"reason">>;
  readonly ready: ReadonlyMap<string, EntryOf<"ready">>;
  readonly snags: readonly EntryOf<"snag">[];
  readonly settled: ReadonlyMap<string, EntryOf<"settle">>;
  readonly gear: ReadonlyMap<string, EntryOf<"gear">>;
  readonly hours: ReadonlyMap<string, EntryOf<"hours">>;
  readonly signatures: ReadonlyMap<"buyer" | "staff", EntryOf<"sign">>;
  readonly amendments: readonly EntryOf<"amend">[];
  /** The entries that count, in order: what an undo may take back. */
  readonly standing: readonly Entry[];
}

/**
 * What the entries of one delivery add up to. The order they come in and how often does not matter: they are put in order of
 * time, then of id, and an entry seen twice counts once. An undone entry counts as never made.
 */
export function foldWalk(entries: readonly Entry[]): WalkState {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const undone = new Set([...byId.values()].flatMap((entry) => (entry.kind === "undo" ? [entry.ref] : [])));
  const standing = [...byId.values()]
    .filter((entry) => entry.kind !== "undo" && !undone.has(entry.id))
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : 1));
  const topics = new Map<string, TopicState>();
  const reasons = new Map<string, EntryOf<"reason">>();
  const ready = new Map<string, EntryOf<"ready">>();
  const snags: EntryOf<"snag">[] = [];
  const settled = new Map<string, EntryOf<"settle">>();
  const gear = new Map<string, EntryOf<"gear">>();
  const hours = new Map<string, EntryOf<"hours">>();
  const signatures = new Map<"buyer" | "staff", EntryOf<"sign">>();
  const amendments: EntryOf<"amend">[] = [];
  let startedAt: string | null = null;
  for (const entry of standing) {
    switch (entry.kind) {
      case "start":
        startedAt ??= entry.at;
        break;
      case "mark":
        topics.set(entry.topic, addMark(topics.get(entry.topic), entry));
        break;
      case "reason":
        reasons.set(entry.topic, entry);
        break;
      case "ready":
        ready.set(entry.check, entry);
        break;
      case "snag":
        snags.push(entry);
        break;
      case "settle":
        settled.set(entry.ref, entry);
        break;
      case "gear":
        gear.set(entry.item, entry);
        break;
      case "hours":
        hours.set(entry.engine, entry);
        break;
      case "sign":
        signatures.set(entry.role, entry);
        break;
      case "amend":
        amendments.push(entry);
        break;
      case "undo":
        break;
      default:
        throw new Error(`foldWalk: expected a known kind of entry, got ${JSON.stringify(entry satisfies never)}`);
    }
  }
  const lastAt = standing.at(-1)?.at ?? null;
  return { startedAt, lastAt, topics, reasons, ready, snags, settled, gear, hours, signatures, amendments, standing };
}

function addMark(before: TopicState | undefined, entry: EntryOf<"mark">): TopicState {
  const people = new Map(entry.person === null ? [] : before?.people);
  if (entry.person !== null) people.set(entry.person, entry.mark);
  return { mark: entry.mark, entry, people, spentS: (before?.spentS ?? 0) + entry.spentS };
}
