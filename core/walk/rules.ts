import { listMeasures } from "../measure/index.ts";
import type { Rig } from "../rig/index.ts";
import { findLineFault } from "../text/lineText.ts";
import { isTyped } from "../units/index.ts";
import type { Entry, EntryOf } from "./entry.ts";
import { isOwnersPhoto } from "./photoId.ts";
import { correctors, type EntryRole, mayEnter, type Role, whoMayEnter } from "./roles.ts";
import { isSignature } from "./signing.ts";
import { isSignForm } from "./signWords.ts";

/** What an entry is held against. */
export interface EntryQuestion {
  readonly delivery: string;
  readonly author: { readonly id: string; readonly role: EntryRole };
  /** Who may let a boat go that is not ready. */
  readonly allowers: readonly Role[];
  /** It comes from a page that was made for a remote handover. */
  readonly isRemote: boolean;
  readonly isSealed: boolean;
  readonly buyers: readonly { readonly id: string }[];
  readonly rig: Rig;
  readonly makeReady: readonly { readonly id: string }[];
  readonly arrival: readonly { readonly id: string }[];
  /** Topics of the walk, and of the library: one may have left the walk since a tablet went aboard; what was told is not lost. */
  isTopic(id: string): boolean;
  /** Every entry there is by its id, those just sent among them. */
  readonly all: Pick<ReadonlyMap<string, Entry>, "get" | "has" | "values">;
  /** Who came along. */
  readonly present: Pick<ReadonlySet<string>, "has">;
  /** The snapshots that are here of those these entries name. */
  isSnapshot(sha256: string): boolean;
  /** Whether a snapshot is another boat's, or was never handed out to this delivery. */
  isForeign(sha256: string): boolean;
}

/** What is wrong with an entry: the code of the refusal, the field it is about, and what else is to be said. */
export interface EntryFault {
  readonly code:
    | "wrong-delivery"
    | "not-your-entry"
    | "not-allowed"
    | "unknown-topic"
    | "unknown-ref"
    | "unknown-snapshot"
    | "needs-date"
    | "not-yours-to-undo"
    | "undo-needs-reason"
    | "old-form"
    | "copied-signature"
    | "not-a-buyer"
    | "no-signature"
    | "invalid-input";
  readonly field: string;
  readonly facts?: Readonly<Record<string, unknown>>;
  /** Of `invalid-input`: what is wrong with the value. */
  readonly message?: string;
}

/** The first fault of an entry that names what its delivery does not have, or that is not its author's to make; or null. */
export function findEntryFault(entry: Entry, question: EntryQuestion): EntryFault | null {
  const { delivery, author, allowers } = question;
  if (entry.delivery !== delivery)
    return { code: "wrong-delivery", field: "delivery", facts: { got: entry.delivery, expected: delivery } };
  if (entry.by !== author.id) return { code: "not-your-entry", field: "by", facts: { got: entry.by } };
  if (!mayEnter(entry.kind, author.role, allowers)) {
    const admits = author.role === "owner-page" ? {} : { admits: whoMayEnter(entry.kind, allowers) };
    return { code: "not-allowed", field: "kind", facts: { role: author.role, ...admits } };
  }
  return (
    findNameFault(entry) ??
    findForeign(entry, question) ??
    findTopicFault(entry, question) ??
    findNamedFault(entry, question)
  );
}

/** A name is one line, and turns nothing around that stands after it: it is printed beside what it answers for. */
function findNameFault(entry: Entry): EntryFault | null {
  for (const field of ["name", "owner"] as const) {
    const name = (entry as { readonly [key in typeof field]?: string | null })[field];
    const message = name == null ? null : findLineFault(name);
    if (message !== null) return { code: "invalid-input", field, message };
  }
  return null;
}

/** What a walk goes by, and whose words a mark was told in, is what this delivery was given. */
function findForeign({ kind, snapshot, ...entry }: Entry, { isForeign }: EntryQuestion): EntryFault | null {
  if (snapshot !== undefined && isForeign(snapshot))
    return { code: "unknown-snapshot", field: "snapshot", facts: { got: snapshot } };
  if (kind === "update" && "next" in entry && isForeign(entry.next))
    return { code: "unknown-snapshot", field: "next", facts: { got: entry.next } };
  return null;
}

function findTopicFault(entry: Entry, { isTopic }: EntryQuestion): EntryFault | null {
  if (!("topic" in entry) || entry.topic === null || isTopic(entry.topic)) return null;
  return { code: "unknown-topic", field: "topic", facts: { got: entry.topic } };
}

/** What an entry of its kind names besides a topic. */
function findNamedFault(entry: Entry, question: EntryQuestion): EntryFault | null {
  const { author, isRemote, buyers, present, rig, makeReady, arrival, all } = question;
  const has = (list: readonly { readonly id: string }[], id: string) => list.some((each) => each.id === id);
  const mustBe = (isKnown: boolean, field: string, value: string): EntryFault | null =>
    isKnown ? null : { code: "invalid-input", field, message: `no ${field} "${value}" here` };
  const mustBeRef = (ref: string): EntryFault | null =>
    all.has(ref) ? null : { code: "unknown-ref", field: "ref", facts: { got: ref } };
  switch (entry.kind) {
    case "mark":
      return entry.person === null
        ? null
        : mustBe(has(buyers, entry.person) || present.has(entry.person), "person", entry.person);
    case "remote":
      // Only a page made for a remote handover has the walk on it.
      return isRemote ? null : { code: "not-allowed", field: "kind", facts: { role: author.role } };
    case "snag":
      if (entry.how === "by-date" && !entry.stops && entry.due === undefined)
        return { code: "needs-date", field: "due" };
      if (entry.corrects !== undefined && !isFirstSnag(all.get(entry.corrects)))
        return { code: "unknown-ref", field: "corrects", facts: { got: entry.corrects } };
      return entry.check === undefined ? null : mustBe(has(makeReady, entry.check), "check", entry.check);
    case "photo":
      // Whoever names a photo may look at it: an owner names those that came by an owner's page, and no others.
      if (author.role === "owner-page" && !isOwnersPhoto(entry.photo))
        return { code: "invalid-input", field: "photo", message: "must be a photo sent by this page" };
      return entry.ref === null ? null : mustBeRef(entry.ref);
    case "undo":
      return mustBeRef(entry.ref) ?? findUndoFault(entry, question);
    case "update":
      return question.isSnapshot(entry.next)
        ? null
        : { code: "unknown-snapshot", field: "next", facts: { got: entry.next } };
    case "sign":
      return findSignFault(entry, question);
    case "close":
      if (entry.covers === undefined && isPresentForm(all)) return { code: "old-form", field: "covers" };
      return firstFault((entry.beside ?? []).map(mustBeRef));
    case "settle":
    case "assign":
    case "tell":
      return mustBeRef(entry.ref);
    case "ready":
      return mustBe(has(makeReady, entry.check), "check", entry.check);
    case "inspect":
      return mustBe(has(arrival, entry.check), "check", entry.check);
    case "gear":
      return mustBe(has(rig.gear, entry.item), "item", entry.item);
    case "hours":
      return mustBe(has(rig.engines, entry.engine), "engine", entry.engine);
    case "measure":
      return findMeasureFault(entry, rig);
    case "step":
      return findStepFault(entry);
    case "reason":
    case "trip":
    case "call":
    case "ask":
    case "start":
    case "present":
    case "promise":
    case "refuse":
    case "amend":
    case "allow":
    case "rehearsed":
    case "watched":
    case "answered":
      return null;
    default:
      throw new Error(`findEntryFault: expected a known kind, got ${JSON.stringify(entry satisfies never)}`);
  }
}

const firstFault = (faults: readonly (EntryFault | null)[]) => faults.find((fault) => fault !== null) ?? null;

const isFirstSnag = (entry: Entry | undefined) => entry?.kind === "snag" && entry.corrects === undefined;

/** Whether this walk began in the form of today, which names what it goes by: then nothing of it is taken in an older one. */
const isPresentForm = (all: EntryQuestion["all"]): boolean => {
  for (const entry of all.values()) if (entry.kind === "start" && entry.snapshot !== undefined) return true;
  return false;
};

/** A signature is drawn by a hand, once, under words that an app composes; a buyer's by one of this handover's buyers. */
function findSignFault(entry: EntryOf<"sign">, { all, buyers, present, isSealed }: EntryQuestion): EntryFault | null {
  if (!isSignature(entry)) return { code: "no-signature", field: "strokes" };
  if (entry.signsFor !== undefined && !isSignForm(entry.role, entry.signsFor))
    return { code: "invalid-input", field: "signsFor", message: "must be the words of the form" };
  const drawn = JSON.stringify(entry.strokes);
  for (const other of all.values())
    if (other.kind === "sign" && other.id !== entry.id && JSON.stringify(other.strokes) === drawn)
      return { code: "copied-signature", field: "strokes", facts: { of: other.name } };
  // What comes after the seal is a claim beside the record, whoever makes it.
  if (isSealed || !isPresentForm(all)) return null;
  if (entry.digest === undefined) return { code: "old-form", field: "digest" };
  if (entry.role !== "buyer") return null;
  const isOfIt =
    entry.person !== undefined && (present.has(entry.person) || buyers.some(({ id }) => id === entry.person));
  return isOfIt ? null : { code: "not-a-buyer", field: "person", facts: { got: entry.person ?? entry.name } };
}

/** What a record says or waits for: another's is not taken back without a word. */
const guardedKinds: ReadonlySet<Entry["kind"]> = new Set(["mark", "refuse", "snag", "promise", "allow", "close"]);

/**
 * A signature is taken back where it was given, by whoever held the tablet for it. A mark, a refusal, a snag, a promise, a leave to
 * start and a close are taken back by whoever entered them, or by whoever may correct, with a reason that prints. Once it is sealed an undo is a claim beside the record.
 */
function findUndoFault(
  { ref, device, by, reason }: EntryOf<"undo">,
  { all, author, isSealed }: EntryQuestion,
): EntryFault | null {
  const undone = all.get(ref);
  if (isSealed || undone === undefined) return null;
  if (undone.kind === "sign")
    return undone.device === device && undone.by === by ? null : { code: "not-yours-to-undo", field: "ref" };
  if (!guardedKinds.has(undone.kind) || undone.by === by) return null;
  if (!correctors.some((role) => role === author.role)) return { code: "not-yours-to-undo", field: "ref" };
  return reason === undefined || reason.trim() === "" ? { code: "undo-needs-reason", field: "reason" } : null;
}

/** What was read at a wheel is what was typed: a hub's temperature or a tire's pressure. */
function findStepFault({ value, typed }: EntryOf<"step">): EntryFault | null {
  if (typed === undefined) return null;
  const isSame =
    value !== undefined && (["temperature", "pressure"] as const).some((what) => isTyped(typed, value, what));
  return isSame ? null : { code: "invalid-input", field: "typed", message: "must be the same reading as value" };
}

function findMeasureFault({ item, value, typed }: EntryOf<"measure">, rig: Rig): EntryFault | null {
  const measure = listMeasures(rig).find(({ id }) => id === item);
  if (measure === undefined) return { code: "invalid-input", field: "item", message: `no item "${item}" here` };
  if (typed !== undefined && (measure.quantity === null || !isTyped(typed, value, measure.quantity)))
    return { code: "invalid-input", field: "typed", message: "must be the same reading as value" };
  if (value >= measure.least && value <= measure.most) return null;
  const message = `must be from ${measure.least} to ${measure.most} ${measure.unit}`.trim();
  return { code: "invalid-input", field: "value", message };
}
