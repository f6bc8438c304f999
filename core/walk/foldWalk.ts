import type { Instant } from "../dates/index.ts";
import { findChanged, goesOnFromSeal } from "./afterSeal.ts";
import type { Entry, EntryKind, EntryOf } from "./entry.ts";
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
  /** Each as it was put right last, under the id it was first entered with. */
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
  /** Refusals that were taken back; marks, snags, promises and leaves to start that another took back; with what took them back. */
  readonly undone: readonly {
    readonly what: EntryOf<"mark" | "refuse" | "snag" | "promise" | "allow">;
    readonly by: EntryOf<"undo">;
  }[];
  readonly remote: ReadonlyMap<string, EntryOf<"remote">>;
  readonly questions: readonly EntryOf<"ask">[];
  readonly inspected: ReadonlyMap<string, EntryOf<"inspect">>;
  readonly calls: readonly EntryOf<"call">[];
  readonly amendments: readonly EntryOf<"amend">[];
  /** Steps of sequences (hitching up, launching), of all times they were gone through. */
  readonly steps: readonly EntryOf<"step">[];
  /** Days out, each as it was planned last. */
  readonly trips: ReadonlyMap<string, EntryOf<"trip">>;
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
  return keepWalk(entries, sequenceOf).state;
}

/** A walk that is folded and goes on: what comes in order is added to it, and nothing of what came before is looked at again. */
export interface KeptWalk {
  /** Of all entries so far. It changes with the next `add`. */
  readonly state: WalkState;
  /** The walk with these as well, of which `all` are the entries; whoever holds the one before holds nothing of use any more. */
  add(fresh: readonly Entry[], all: readonly Entry[], sequenceOf?: SequenceOf): KeptWalk;
}

/** Folds a walk as `foldWalk` does, to be gone on from. */
export function keepWalk(entries: readonly Entry[], sequenceOf: SequenceOf = noSequence): KeptWalk {
  const counted = orderEntries(entries);
  const into = createGathering(sequenceOf);
  for (const entry of counted) take(into, entry);
  const takenBack = listTakenBack(entries);
  const undone = listUndone(entries);
  /** Ids that a later entry cannot have, and those an undo that is here already names. */
  let known: Set<string> | null = null;
  const listKnown = () =>
    new Set(entries.flatMap((entry) => (entry.kind === "undo" ? [entry.id, entry.ref] : [entry.id])));
  const comesNext = (entry: Entry) => {
    const last = counted.at(-1);
    if (entry.kind === "undo" || known!.has(entry.id)) return false;
    if (last === undefined) return true;
    const [ofLast, ofEntry] = [Date.parse(last.at), Date.parse(entry.at)];
    return ofEntry > ofLast || (ofEntry === ofLast && entry.id > last.id);
  };
  const kept: KeptWalk = {
    get state() {
      return readState(into, counted, takenBack, undone);
    },
    add(fresh, all, nextSequenceOf = noSequence) {
      known ??= listKnown();
      into.sequenceOf = nextSequenceOf;
      for (const entry of fresh) {
        if (!comesNext(entry)) return keepWalk(all, nextSequenceOf);
        known.add(entry.id);
        counted.push(entry);
        take(into, entry);
      }
      return kept;
    },
  };
  return kept;
}

function take(into: Gathering, entry: Entry) {
  if (into.closedAt === null && entry.by !== ownerId) into.lastAt = entry.at;
  (takers[entry.kind] as (into: Gathering, entry: Entry) => void)(into, entry);
}

function readState(
  { governing, snapshot, signatures, refusals, snags, corrections, sequenceOf: _, ...state }: Gathering,
  counted: readonly Entry[],
  takenBack: WalkState["takenBack"],
  undone: WalkState["undone"],
): WalkState {
  return {
    ...state,
    snags: corrections.size === 0 ? snags : snags.map((snag) => correct(snag, corrections.get(snag.id))),
    snapshot: snapshot ?? governing?.snapshot ?? null,
    signatures: [...signatures.values()],
    takenBack,
    undone,
    refusals: [...refusals.values()],
    counted,
  };
}

function createGathering(sequenceOf: SequenceOf) {
  return {
    sequenceOf,
    governing: null as EntryOf<"start"> | null,
    snapshot: null as string | null,
    startedAt: null as Instant | null,
    closedAt: null as Instant | null,
    lastAt: null as Instant | null,
    allowed: null as EntryOf<"allow"> | null,
    present: new Map<string, EntryOf<"present">>(),
    topics: new Map<string, Gathered>(),
    reasons: new Map<string, EntryOf<"reason">>(),
    ready: new Map<string, EntryOf<"ready">>(),
    snags: [] as EntryOf<"snag">[],
    /** The last that puts a snag right, by that snag. */
    corrections: new Map<string, EntryOf<"snag">>(),
    promises: [] as EntryOf<"promise">[],
    assigned: new Map<string, EntryOf<"assign">>(),
    settled: new Map<string, EntryOf<"settle">>(),
    tells: [] as EntryOf<"tell">[],
    gear: new Map<string, EntryOf<"gear">>(),
    hours: new Map<string, EntryOf<"hours">>(),
    measures: new Map<string, EntryOf<"measure">>(),
    photos: [] as EntryOf<"photo">[],
    signatures: new Map<string, EntryOf<"sign">>(),
    refusals: new Map<string, EntryOf<"refuse">>(),
    remote: new Map<string, EntryOf<"remote">>(),
    questions: [] as EntryOf<"ask">[],
    inspected: new Map<string, EntryOf<"inspect">>(),
    calls: [] as EntryOf<"call">[],
    amendments: [] as EntryOf<"amend">[],
    steps: [] as EntryOf<"step">[],
    trips: new Map<string, EntryOf<"trip">>(),
  };
}
type Gathering = ReturnType<typeof createGathering>;

/** What each kind of entry does to what was gathered before it. */
const takers: { readonly [K in EntryKind]: (into: Gathering, entry: EntryOf<K>) => void } = {
  start: (into, entry) => {
    into.startedAt ??= entry.at;
    if (into.governing === null || isReceivedBefore(entry, into.governing, into.sequenceOf)) into.governing = entry;
  },
  update: (into, entry) => {
    into.snapshot = entry.next;
  },
  allow: (into, entry) => {
    into.allowed = entry;
  },
  close: (into, entry) => {
    into.closedAt ??= entry.at;
  },
  present: ({ present }, entry) => present.set(entry.person, entry),
  mark: ({ topics }, entry) => addMark(topics, entry),
  reason: ({ reasons }, entry) => reasons.set(entry.topic, entry),
  ready: ({ ready }, entry) => ready.set(entry.check, entry),
  snag: (into, entry) => {
    if (entry.corrects === undefined) into.snags.push(entry);
    else {
      into.corrections.set(entry.corrects, entry);
      // Whose it is and by when stands in the correction.
      into.assigned.delete(entry.corrects);
    }
  },
  promise: ({ promises }, entry) => promises.push(entry),
  assign: ({ assigned }, entry) => assigned.set(entry.ref, entry),
  settle: ({ settled }, entry) => settled.set(entry.ref, entry),
  tell: ({ tells }, entry) => tells.push(entry),
  gear: ({ gear }, entry) => gear.set(entry.item, entry),
  hours: ({ hours }, entry) => hours.set(entry.engine, entry),
  measure: ({ measures }, entry) => measures.set(entry.item, entry),
  photo: ({ photos }, entry) => photos.push(entry),
  sign: ({ signatures }, entry) => signatures.set(`${entry.role} ${entry.person ?? entry.name}`, entry),
  refuse: ({ refusals }, entry) => refusals.set(entry.person ?? entry.name, entry),
  remote: ({ remote }, entry) => remote.set(entry.topic, entry),
  ask: ({ questions }, entry) => questions.push(entry),
  inspect: ({ inspected }, entry) => inspected.set(entry.check, entry),
  call: ({ calls }, entry) => calls.push(entry),
  amend: ({ amendments }, entry) => amendments.push(entry),
  step: ({ steps }, entry) => steps.push(entry),
  trip: ({ trips }, entry) => trips.set(entry.trip, entry),
  undo: () => {},
  // The format knows them; nothing counts them yet.
  rehearsed: () => {},
  watched: () => {},
  answered: () => {},
};

/** A snag as it was put right: what is wrong anew, found by whom, where and when it was. */
function correct(snag: EntryOf<"snag">, right: EntryOf<"snag"> | undefined): EntryOf<"snag"> {
  if (right === undefined) return snag;
  const { id, at, by, device, topic, check } = snag;
  return { ...right, id, at, by, device, topic, ...(check === undefined ? {} : { check }) };
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

/** In order of when they were undone. */
function listUndone(entries: readonly Entry[]): WalkState["undone"] {
  const undos = new Map(entries.flatMap((entry) => (entry.kind === "undo" ? [[entry.ref, entry] as const] : [])));
  if (undos.size === 0) return [];
  const found = new Map<string, WalkState["undone"][number]>();
  for (const what of entries) {
    const by = undos.get(what.id);
    if (by === undefined) continue;
    const isSaid = what.kind === "mark" || what.kind === "snag" || what.kind === "promise" || what.kind === "allow";
    if (what.kind === "refuse" || (isSaid && what.by !== by.by)) found.set(what.id, { what, by });
  }
  return [...found.values()].sort((a, b) => (a.by.id < b.by.id ? -1 : 1));
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
 * was sealed (an undo of it, a snag of it put right, a signature, gear counted anew) counts for nothing.
 */
export function foldAfterSeal(sealed: readonly Entry[], later: readonly Entry[]): WalkState {
  const laterIds = new Set(later.map(({ id }) => id));
  const goingOn = later.filter((entry) => {
    const changed = findChanged(entry);
    return changed === null ? goesOnFromSeal(entry) : laterIds.has(changed);
  });
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
