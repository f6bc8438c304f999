import { createTell, type Tell } from "../language/index.ts";
import { formatMeasure, listMeasures } from "../measure/index.ts";
import type { Rig } from "../rig/index.ts";
import { capitalize } from "../text/index.ts";
import type { Entry, EntryOf } from "./entry.ts";
import type { LaterHow, Mark } from "./kinds.ts";

export const entryMarkWords: Record<Mark, string> = {
  told: "told",
  shown: "shown",
  did: "done by their own hands",
  later: "put off",
  "not-aboard": "not aboard",
};

export const laterWords: Record<LaterHow, string> = {
  "next-visit": "at their next visit",
  "on-the-water": "on the water",
  "by-phone": "by phone",
  "manual-together": "with the manual, together",
  "by-link": "on their own page",
};

/** Of what an owner went through on their own page. */
export const remoteWords = {
  understood: "read and understood on the owner page",
  did: "did it, on the owner page",
} as const;

const tellEnglish = createTell(null);

/** What an entry says, as one line for people, without who and when; in the words of `tell`. */
export function formatEntry(
  entry: Entry,
  { rig, entries }: { readonly rig: Rig; readonly entries: readonly Entry[] },
  titleOf: (topic: string) => string,
  tell: Tell = tellEnglish,
): string {
  const of = (ref: string): string => {
    const other = entries.find(({ id }) => id === ref);
    if (other === undefined || other.kind === "settle" || other.kind === "tell") return tell("something owed");
    return formatEntry(other, { rig, entries }, titleOf, tell);
  };
  const more = (note: string | undefined) => (note === undefined ? "" : `: ${note}`);
  switch (entry.kind) {
    case "start":
      return tell("The walk was begun");
    case "update":
      return tell("The walk was brought up to date with the library and the boat sheet");
    case "close":
      return tell("The handover was closed");
    case "allow":
      return tell("The walk was allowed to start: {0}", entry.reason);
    case "ready":
      return tell("Make-ready {0}: {1}", entry.check, tell(entry.ok ? "in order" : "not in order")) + more(entry.note);
    case "present":
      return tell(entry.here ? "{0} is here" : "{0} is not here", entry.name);
    case "mark": {
      const how = entry.how === undefined ? "" : `, ${tell(laterWords[entry.how])}`;
      return `${titleOf(entry.topic)}: ${tell(entryMarkWords[entry.mark])}${how}${more(entry.note)}`;
    }
    case "snag":
      return `${tell(entry.corrects === undefined ? "Snag" : "Snag, put right")}: ${entry.note}`;
    case "promise":
      return `${tell(entry.isExtra ? "Sold, not fitted" : "Promised")}: ${entry.note}`;
    case "assign":
      return `${of(entry.ref)}: ${entry.owner ?? tell("nobody yet")}, ${entry.due ?? tell("no day")}`;
    case "undo": {
      const undone = entries.find(({ id }) => id === entry.ref);
      if (undone === undefined) return tell("Something was taken back");
      return tell("Taken back: {0}", formatEntry(undone, { rig, entries }, titleOf, tell)) + more(entry.reason);
    }
    case "gear": {
      const item = rig.gear.find(({ id }) => id === entry.item);
      return tell("{0}: {1} counted", tell.label(item?.label ?? entry.item), entry.count);
    }
    case "hours":
      return tell("{0}: {1} h read", tell.label(nameEngine(rig, entry.engine)), entry.hours);
    case "measure":
      return formatReading(entry, rig, tell);
    case "photo":
      if (entry.topic !== null) return tell("A photo: {0}", titleOf(entry.topic));
      return entry.ref === null ? tell("A photo") : tell("A photo: {0}", of(entry.ref));
    case "reason":
      return tell("{0}: left out, {1}", titleOf(entry.topic), entry.reason);
    case "sign":
      return tell("{0} signed", entry.name);
    case "refuse":
      return tell("{0} did not sign: {1}", entry.name, entry.reason);
    case "settle":
      return tell("Settled: {0} ({1})", of(entry.ref), entry.note);
    case "tell":
      return tell("Message to the buyer: {0}", entry.text);
    case "call":
      return entry.topic === null
        ? tell("The buyer called: {0}", entry.note)
        : tell("The buyer called about {0}: {1}", titleOf(entry.topic), entry.note);
    case "amend":
      return entry.note;
    case "remote":
      return `${titleOf(entry.topic)}: ${tell(remoteWords[entry.as])}`;
    case "ask":
      return tell("Asked on the owner page: {0}", entry.note);
    case "trip":
      return entry.plan === null
        ? tell("A trip was called off")
        : tell("Trip planned: {0}, {1}", entry.plan.name, entry.plan.date);
    case "step":
      return formatStep(entry);
    case "rehearsed":
      return tell("Rehearsed at the drawn helm: {0}", entry.scenario.replaceAll("-", " "));
    case "watched":
      return tell("Watched: {0}", titleOf(entry.topic));
    case "answered":
      return tell("Answered a question: {0}", titleOf(entry.topic));
    case "inspect":
      return (
        tell("Looked at on arrival, {0}: {1}", entry.check, tell(entry.ok ? "in order" : "damaged")) + more(entry.note)
      );
    default:
      throw new Error(`formatEntry: expected a known kind, got ${JSON.stringify(entry satisfies never)}`);
  }
}

/** "Launch, strap off: done"; "Hitch up, hubs port: 41 °C". */
function formatStep({ sequence, step, as, value, typed, feel }: EntryOf<"step">): string {
  const name = (id: string) => capitalize(id.replaceAll("-", " "));
  const read = typed === undefined ? value : `${typed.value} ${typed.unit}`;
  return `${name(sequence)}, ${step.replaceAll("-", " ")}: ${read ?? feel ?? as}`;
}

function formatReading(entry: EntryOf<"measure">, rig: Rig, tell: Tell): string {
  const measure = listMeasures(rig, tell).find(({ id }) => id === entry.item);
  if (measure === undefined) return tell("{0}: read", entry.item);
  return tell("{0}: {1} read", measure.label, formatMeasure(measure, entry));
}

const nameEngine = (rig: Rig, engine: string) => rig.engines.find(({ id }) => id === engine)?.label ?? engine;
