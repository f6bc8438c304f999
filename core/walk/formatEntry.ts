import { formatMeasure, listMeasures } from "../measure/index.ts";
import type { Rig } from "../rig/index.ts";
import { capitalize } from "../text/index.ts";
import type { Entry, EntryOf } from "./entry.ts";
import type { LaterHow, Mark } from "./kinds.ts";

const markWords: Record<Mark, string> = {
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

/** What an entry says, as one line for people, without who and when. */
export function formatEntry(
  entry: Entry,
  { rig, entries }: { readonly rig: Rig; readonly entries: readonly Entry[] },
  titleOf: (topic: string) => string,
): string {
  const of = (ref: string): string => {
    const other = entries.find(({ id }) => id === ref);
    if (other === undefined || other.kind === "settle" || other.kind === "tell") return "something owed";
    return formatEntry(other, { rig, entries }, titleOf);
  };
  const more = (note: string | undefined) => (note === undefined ? "" : `: ${note}`);
  switch (entry.kind) {
    case "start":
      return "The walk was begun";
    case "update":
      return "The walk was brought up to date with the library and the boat sheet";
    case "close":
      return "The handover was closed";
    case "allow":
      return `The walk was allowed to start: ${entry.reason}`;
    case "ready":
      return `Make-ready ${entry.check}: ${entry.ok ? "in order" : "not in order"}${more(entry.note)}`;
    case "present":
      return `${entry.name} ${entry.here ? "is here" : "is not here"}`;
    case "mark": {
      const how = entry.how === undefined ? "" : `, ${laterWords[entry.how]}`;
      return `${titleOf(entry.topic)}: ${markWords[entry.mark]}${how}${more(entry.note)}`;
    }
    case "snag":
      return `${entry.corrects === undefined ? "Snag" : "Snag, put right"}: ${entry.note}`;
    case "promise":
      return `${entry.isExtra ? "Sold, not fitted" : "Promised"}: ${entry.note}`;
    case "assign":
      return `${of(entry.ref)}: ${entry.owner ?? "nobody yet"}, ${entry.due ?? "no day"}`;
    case "undo":
      return "Something was taken back";
    case "gear": {
      const item = rig.gear.find(({ id }) => id === entry.item);
      return `${item?.label ?? entry.item}: ${entry.count} counted`;
    }
    case "hours":
      return `${rig.engines.find(({ id }) => id === entry.engine)?.label ?? entry.engine}: ${entry.hours} h read`;
    case "measure":
      return formatReading(entry, rig);
    case "photo":
      if (entry.topic !== null) return `A photo: ${titleOf(entry.topic)}`;
      return entry.ref === null ? "A photo" : `A photo: ${of(entry.ref)}`;
    case "reason":
      return `${titleOf(entry.topic)}: left out, ${entry.reason}`;
    case "sign":
      return `${entry.name} signed`;
    case "refuse":
      return `${entry.name} did not sign: ${entry.reason}`;
    case "settle":
      return `Settled: ${of(entry.ref)} (${entry.note})`;
    case "tell":
      return `Message to the buyer: ${entry.text}`;
    case "call":
      return `The buyer rang${entry.topic === null ? "" : ` about ${titleOf(entry.topic)}`}: ${entry.note}`;
    case "amend":
      return entry.note;
    case "remote":
      return `${titleOf(entry.topic)}: ${entry.as === "did" ? "did it" : "understood"}, on the owner page`;
    case "ask":
      return `Asked on the owner page: ${entry.note}`;
    case "trip":
      return entry.plan === null ? "A trip was called off" : `Trip planned: ${entry.plan.name}, ${entry.plan.date}`;
    case "step":
      return formatStep(entry);
    case "inspect":
      return `Looked at on arrival, ${entry.check}: ${entry.ok ? "in order" : "damaged"}${more(entry.note)}`;
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

function formatReading(entry: EntryOf<"measure">, rig: Rig): string {
  const measure = listMeasures(rig).find(({ id }) => id === entry.item);
  return measure === undefined ? `${entry.item}: read` : `${measure.label}: ${formatMeasure(measure, entry)} read`;
}
