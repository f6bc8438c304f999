import type { Arrival, Snapshot } from "../../core/record/index.ts";
import { type Entry, type EntryQuestion, findEntryFault, type Role } from "../../core/walk/index.ts";
import { Failure } from "../failure.ts";
import type { Author } from "./author.ts";
import type { Library } from "./libraryService.ts";
import type { HandoverContext } from "./walkReader.ts";

interface Question {
  readonly context: HandoverContext;
  readonly library: Library;
  readonly author: Author;
  readonly allowers: readonly Role[];
  readonly via: Arrival;
  readonly all: readonly Entry[];
  /** The snapshots that are here of those these entries name. */
  readonly named: ReadonlyMap<string, Snapshot>;
  /** Those of them that this handover was never given. */
  readonly foreign: ReadonlySet<string>;
}

/** Refuses entries that name what this delivery does not have, or that are not this person's to make. */
export function createEntryCheck(parts: Question) {
  const { context, library, author, allowers, via, all, named, foreign } = parts;

  const { delivery, walk } = context;
  const question: EntryQuestion = {
    delivery: delivery.id,
    author,
    allowers,
    isRemote: via === "remote",
    isSealed: walk.sealed !== null,
    buyers: delivery.buyers,
    rig: walk.rig,
    makeReady: walk.makeReady,
    arrival: walk.arrival,
    isTopic: (id) => walk.topics.some((topic) => topic.id === id) || library.topics.some((topic) => topic.id === id),
    // Nearly every question is about a mark, which names nobody and nothing: a long walk is looked through only where it has to be.
    all: {
      get: (id) => all.find((entry) => entry.id === id),
      has: (id) => all.some((entry) => entry.id === id),
      values: () => all.values(),
    },
    present: { has: (id) => all.some((entry) => entry.kind === "present" && entry.person === id) },
    isSnapshot: (sha256) => named.has(sha256),
    isForeign: (sha256) => foreign.has(sha256),
  };
  return (entry: Entry, path: string): void => {
    const fault = findEntryFault(entry, question);
    if (fault === null) return;
    const at = `${path}.${fault.field}`;
    if (fault.code === "invalid-input")
      throw new Failure("invalid-input", { issues: [{ path: at, message: fault.message! }] });
    throw new Failure(fault.code, { path: at, ...fault.facts });
  };
}
