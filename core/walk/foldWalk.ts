import type { Instant } from "../dates/index.ts";
import { goesOnFromSeal } from "./afterSeal.ts";
import type { Entry, EntryOf } from "./entry.ts";
import { type Mark, ownerId, type SignRole } from "./kinds.ts";
import { orderEntries } from "./orderEntries.ts";

export interface TopicState {
  readonly mark: Mark;
  readonly entry: EntryOf<"mark">;
  /** The furthest each person got, for marks made for one person. */
  readonly people: ReadonlyMap<string, Mark>;
  /** Every mark that stands, the first first: where two people disagree, both are here and the later counts. */
  readonly marks: readonly EntryOf<"mark">[];
  readonly spentS: number;
}

/** A handover as its entries tell it. */
export interface WalkState {
  readonly startedAt: Instant | null;
  /** What the walk goes by: the snapshot of the start that governs, or of the last update since; null of old walks. */
  readonly snapshot: string | null;
  /** When the walk was last worked on, before any close. */
  readonly lastAt: Instant | null;
  readonly closedAt: Instant | null;
  readonly allowed: EntryOf<"allow"> | null;
  /** Who is here, by id: those of the delivery unless said otherwise, and who came along. */
  readonly present: ReadonlyMap<string, EntryOf<"present">>;
  readonly topics: ReadonlyMap<string, TopicState>;
  readonly reasons: ReadonlyMap<string, EntryOf<"reason">>;
  readonly ready: ReadonlyMap<string, EntryOf<"ready">>;
  readonly snags: readonly EntryOf<"snag">[];
  readonly promises: readonly EntryOf<"promise">[];
  readonly assigned: ReadonlyMap<string, EntryOf<"assign">>;
  readonly settled: ReadonlyMap<string, EntryOf<"settle">>;
  readonly tells: readonly EntryOf<"tell">[];
  readonly gear: ReadonlyMap<string, EntryOf<"gear">>;
  readonly hours: ReadonlyMap<string, EntryOf<"hours">>;
  readonly measures: ReadonlyMap<string, EntryOf<"measure">>;
  readonly photos: readonly EntryOf<"photo">[];
  /** The signatures that stand: of each role and person the last. */
  readonly signatures: readonly EntryOf<"sign">[];
  /** Signatures that were given and taken back, with what took them back. */
  readonly takenBack: readonly { readonly sign: EntryOf<"sign">; readonly by: EntryOf<"undo"> }[];
  readonly refusals: readonly EntryOf<"refuse">[];
  readonly remote: ReadonlyMap<string, EntryOf<"remote">>;
  readonly questions: readonly EntryOf<"ask">[];
  readonly inspected: ReadonlyMap<string, EntryOf<"inspect">>;
  readonly calls: readonly EntryOf<"call">[];
  readonly amendments: readonly EntryOf<"amend">[];
  /** The entries that count, in order: what an undo may take back. */
  readonly counted: readonly Entry[];
}

/** By the order in which the server received entries; undefined of one it has not received yet. */
export type SequenceOf = (id: string) => number | undefined;

const noSequence: SequenceOf = () => undefined;

/**
 * What the entries of one delivery add up to. The order they come in and how often does not matter: they are put in order of
 * time, then of id, and an entry seen twice counts once. An undone entry counts as never made. Of two starts the one first
 * received governs (`sequenceOf`), before any that nobody has received yet.
 */
export function foldWalk(entries: readonly Entry[], sequenceOf: SequenceOf = noSequence): WalkState {
  const counted = orderEntries(entries);
  const present = new Map<string, EntryOf<"present">>();
  const topics = new Map<string, Gathered>();
  const reasons = new Map<string, EntryOf<"reason">>();
  const ready = new Map<string, EntryOf<"ready">>();
  const snags: EntryOf<"snag">[] = [];
  const promises: EntryOf<"promise">[] = [];
  const assigned = new Map<string, EntryOf<"assign">>();
  const settled = new Map<string, EntryOf<"settle">>();
  const tells: EntryOf<"tell">[] = [];
  const gear = new Map<string, EntryOf<"gear">>();
  const hours = new Map<string, EntryOf<"hours">>();
  const measures = new Map<string, EntryOf<"measure">>();
  const photos: EntryOf<"photo">[] = [];
  const signatures = new Map<string, EntryOf<"sign">>();
  const refusals = new Map<string, EntryOf<"refuse">>();
  const remote = new Map<string, EntryOf<"remote">>();
  const questions: EntryOf<"ask">[] = [];
  const inspected = new Map<string, EntryOf<"inspect">>();
  const calls: EntryOf<"call">[] = [];
  const amendments: EntryOf<"amend">[] = [];
  let governing: EntryOf<"start"> | null = null;
  let snapshot: string | null = null;
  let startedAt: Instant | null = null;
  let closedAt: Instant | null = null;
  let lastAt: Instant | null = null;
  let allowed: EntryOf<"allow"> | null = null;
  for (const entry of counted) {
    if (closedAt === null && entry.by !== ownerId) lastAt = entry.at;
    switch (entry.kind) {
      case "start":
        startedAt ??= entry.at;
        if (governing === null || isReceivedBefore(entry, governing, sequenceOf)) governing = entry;
        break;
      case "update":
        snapshot = entry.next;
        break;
      case "allow":
        allowed = entry;
        break;
      case "present":
        present.set(entry.person, entry);
        break;
      case "mark":
        addMark(topics, entry);
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
      case "promise":
        promises.push(entry);
        break;
      case "assign":
        assigned.set(entry.ref, entry);
        break;
      case "settle":
        settled.set(entry.ref, entry);
        break;
      case "tell":
        tells.push(entry);
        break;
      case "gear":
        gear.set(entry.item, entry);
        break;
      case "hours":
        hours.set(entry.engine, entry);
        break;
      case "measure":
        measures.set(entry.item, entry);
        break;
      case "photo":
        photos.push(entry);
        break;
      case "sign":
        signatures.set(`${entry.role} ${entry.person ?? entry.name}`, entry);
        break;
      case "refuse":
        refusals.set(entry.person ?? entry.name, entry);
        break;
      case "close":
        closedAt ??= entry.at;
        break;
      case "remote":
        remote.set(entry.topic, entry);
        break;
      case "ask":
        questions.push(entry);
        break;
      case "inspect":
        inspected.set(entry.check, entry);
        break;
      case "call":
        calls.push(entry);
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
  return {
    startedAt,
    snapshot: snapshot ?? governing?.snapshot ?? null,
    lastAt,
    closedAt,
    allowed,
    present,
    topics,
    reasons,
    ready,
    snags,
    promises,
    assigned,
    settled,
    tells,
    gear,
    hours,
    measures,
    photos,
    signatures: [...signatures.values()],
    takenBack: listTakenBack(entries),
    refusals: [...refusals.values()],
    remote,
    questions,
    inspected,
    calls,
    amendments,
    counted,
  };
}

/** Whether the server had `a` before `b`; what it has not received comes last, and then what was made first. */
function isReceivedBefore(a: Entry, b: Entry, sequenceOf: SequenceOf): boolean {
  const [of, other] = [sequenceOf(a.id), sequenceOf(b.id)];
  if (of === undefined || other === undefined) return of !== undefined;
  return of < other;
}

/** In order of when they were taken back, whatever order the entries came in. */
function listTakenBack(entries: readonly Entry[]): WalkState["takenBack"] {
  // Folded for every mark: one plain pass, and nothing made where nothing was taken back.
  const undos = new Map<string, EntryOf<"undo">>();
  const signs = new Map<string, EntryOf<"sign">>();
  for (const entry of entries) {
    if (entry.kind === "undo") undos.set(entry.ref, entry);
    else if (entry.kind === "sign") signs.set(entry.id, entry);
  }
  if (undos.size === 0 || signs.size === 0) return [];
  return [...undos.values()]
    .flatMap((by) => {
      const sign = signs.get(by.ref);
      return sign === undefined ? [] : [{ sign, by }];
    })
    .sort((a, b) => (a.by.id < b.by.id ? -1 : 1));
}

interface Gathered extends TopicState {
  mark: Mark;
  entry: EntryOf<"mark">;
  spentS: number;
  readonly people: Map<string, Mark>;
  readonly marks: EntryOf<"mark">[];
}

/** A mark for all present starts everybody anew; one for a person is theirs alone. */
function addMark(topics: Map<string, Gathered>, entry: EntryOf<"mark">) {
  let topic = topics.get(entry.topic);
  if (topic === undefined) {
    topic = { mark: entry.mark, entry, people: new Map(), marks: [], spentS: 0 };
    topics.set(entry.topic, topic);
  }
  topic.mark = entry.mark;
  topic.entry = entry;
  topic.spentS += entry.spentS;
  topic.marks.push(entry);
  if (entry.person === null) topic.people.clear();
  else topic.people.set(entry.person, entry.mark);
}

/**
 * A sealed handover with what came after: made-up topics, settled snags and notes go on from it; whatever would change what
 * was sealed (an undo of it, a signature, gear counted anew) counts for nothing.
 */
export function foldAfterSeal(sealed: readonly Entry[], later: readonly Entry[]): WalkState {
  const laterIds = new Set(later.map(({ id }) => id));
  const goingOn = later.filter((entry) => (entry.kind === "undo" ? laterIds.has(entry.ref) : goesOnFromSeal(entry)));
  return foldWalk([...sealed, ...goingOn]);
}

/** The last signature of a role; null when nobody signed for it. */
export function findSignature(state: WalkState, role: SignRole): EntryOf<"sign"> | null {
  return state.signatures.findLast((sign) => sign.role === role) ?? null;
}

/** The marks of a topic that another person of the store contradicted for the same people; both stand, the later counts. */
export function listDisputed(topic: TopicState): readonly EntryOf<"mark">[] {
  const { entry } = topic;
  return topic.marks.filter(
    (other) => other.by !== entry.by && other.person === entry.person && other.mark !== entry.mark,
  );
}
