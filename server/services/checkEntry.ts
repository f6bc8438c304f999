import { arrivalChecks } from "../../content/index.ts";
import { listMeasures } from "../../core/measure/index.ts";
import type { Arrival, Snapshot } from "../../core/record/index.ts";
import { type Entry, isOwnersToMake, isSignature } from "../../core/walk/index.ts";
import { Failure } from "../failure.ts";
import type { Author } from "./author.ts";
import type { Library } from "./libraryService.ts";
import type { HandoverContext } from "./walkReader.ts";

interface Question {
  readonly context: HandoverContext;
  readonly library: Library;
  readonly author: Author;
  readonly via: Arrival;
  /** Ids of every entry there is, those just sent among them. */
  readonly refs: ReadonlySet<string>;
  readonly all: readonly Entry[];
  /** The snapshots that are here of those these entries name. */
  readonly named: ReadonlyMap<string, Snapshot>;
}

const closers: readonly Author["role"][] = ["owner", "sales", "delivery"];

/** Refuses an entry that names what this delivery does not have, or that is not this person's to make. */
export function checkEntry(entry: Entry, path: string, question: Question): void {
  const { context, library, author, via, refs, all, named } = question;
  const { delivery, walk } = context;
  const must = (isKnown: boolean, field: string, value: string) => {
    if (!isKnown)
      throw new Failure("invalid-input", {
        issues: [{ path: `${path}.${field}`, message: `no ${field} "${value}" here` }],
      });
  };
  if (entry.delivery !== delivery.id)
    throw new Failure("wrong-delivery", { path: `${path}.delivery`, got: entry.delivery, expected: delivery.id });
  if (entry.by !== author.id) throw new Failure("not-your-entry", { path: `${path}.by`, got: entry.by });
  const isAllowed = author.role === "owner-page" ? isOwnersToMake(entry.kind) : true;
  if (!isAllowed) throw new Failure("not-allowed", { path: `${path}.kind`, role: author.role });
  const mayHold = (admits: readonly Author["role"][]) => {
    if (!admits.includes(author.role)) throw new Failure("not-allowed", { path, role: author.role, admits });
  };
  // A topic that was on the walk when a tablet went aboard may have left it since; what was told is not lost for that.
  const mustBeTopic = (id: string) => {
    if (!walk.topics.some((topic) => topic.id === id) && !library.topics.some((topic) => topic.id === id))
      throw new Failure("unknown-topic", { path: `${path}.topic`, got: id });
  };
  const mustBeRef = (ref: string) => {
    if (!refs.has(ref)) throw new Failure("unknown-ref", { path: `${path}.ref`, got: ref });
  };
  switch (entry.kind) {
    case "mark": {
      mustBeTopic(entry.topic);
      const { person } = entry;
      if (person === null) return;
      const isBuyer = delivery.buyers.some(({ id }) => id === person);
      const cameAlong = all.some((other) => other.kind === "present" && other.person === person);
      must(isBuyer || cameAlong, "person", person);
      return;
    }
    case "remote":
      // Only a page made for a remote handover has the walk on it.
      if (via !== "remote") throw new Failure("not-allowed", { path: `${path}.kind`, role: author.role });
      mustBeTopic(entry.topic);
      return;
    case "reason":
      mustBeTopic(entry.topic);
      return;
    case "snag":
      if (entry.topic !== null) mustBeTopic(entry.topic);
      if (entry.how === "by-date" && !entry.stops && entry.due === undefined)
        throw new Failure("needs-date", { path: `${path}.due` });
      return;
    case "call":
    case "ask":
      if (entry.topic !== null) mustBeTopic(entry.topic);
      return;
    case "photo":
      if (entry.topic !== null) mustBeTopic(entry.topic);
      if (entry.ref !== null) mustBeRef(entry.ref);
      return;
    case "undo": {
      mustBeRef(entry.ref);
      const undone = all.find((other) => other.id === entry.ref);
      // A signature is taken back where it was given, by whoever held the tablet for it; and not once it is sealed.
      const isTheirs = undone?.kind !== "sign" || (undone.device === entry.device && undone.by === entry.by);
      if (!isTheirs && walk.sealed === null) throw new Failure("not-yours-to-undo", { path: `${path}.ref` });
      return;
    }
    case "update":
      if (!named.has(entry.next)) throw new Failure("unknown-snapshot", { path: `${path}.next`, got: entry.next });
      return;
    case "sign":
      if (!isSignature(entry)) throw new Failure("no-signature", { path: `${path}.strokes` });
      return;
    case "settle":
    case "assign":
    case "tell":
      mustBeRef(entry.ref);
      return;
    case "ready":
      must(
        walk.makeReady.some(({ id }) => id === entry.check),
        "check",
        entry.check,
      );
      return;
    case "inspect":
      must(
        arrivalChecks.some(({ id }) => id === entry.check),
        "check",
        entry.check,
      );
      return;
    case "gear":
      must(
        walk.rig.gear.some(({ id }) => id === entry.item),
        "item",
        entry.item,
      );
      return;
    case "hours":
      must(
        walk.rig.engines.some(({ id }) => id === entry.engine),
        "engine",
        entry.engine,
      );
      return;
    case "measure": {
      const measure = listMeasures(walk.rig).find(({ id }) => id === entry.item);
      if (measure === undefined) {
        must(false, "item", entry.item);
        return;
      }
      if (entry.value < measure.least || entry.value > measure.most)
        throw new Failure("invalid-input", {
          issues: [
            {
              path: `${path}.value`,
              message: `must be from ${measure.least} to ${measure.most} ${measure.unit}`.trim(),
            },
          ],
        });
      return;
    }
    case "allow":
      mayHold(["owner"]);
      return;
    case "close":
      mayHold(closers);
      return;
    case "start":
    case "present":
    case "promise":
    case "refuse":
    case "amend":
      return;
    default:
      throw new Error(`checkEntry: expected a known kind, got ${JSON.stringify(entry satisfies never)}`);
  }
}
