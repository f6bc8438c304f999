import { fail, type Result, succeed } from "../result.ts";
import type { Rig } from "../rig/index.ts";
import type { FaultComponent, FaultFunction, FaultModel } from "./buildModel.ts";
import { diagnose } from "./diagnose.ts";
import type { DiagnoseError } from "./diagnoseContract.ts";

/** What is known so far: functions that work or do not, and components that were looked at. */
export interface Findings {
  readonly functions: Readonly<Record<string, boolean>>;
  /** True: looked at and good; false: found at fault. */
  readonly components: Readonly<Record<string, boolean>>;
}

export interface Suspect {
  readonly faults: readonly FaultComponent[];
  readonly share: number;
}
export interface Found {
  /** The likeliest first. */
  readonly suspects: readonly Suspect[];
  /** What to look at next, what tells the most for its time first. */
  readonly looks: readonly FaultComponent[];
}

const mostFaults = 2;
/** A component that was looked at stands as a function that needs it alone. */
const lookAt = (component: string) => `look at ${component}`;

/** What the findings come to on this boat, by the contract `diagnose`, and the look that tells the most for its time. */
export function findFault(model: FaultModel, findings: Findings): Result<Found, DiagnoseError> {
  const looked = Object.entries(findings.components);
  const answer = diagnose({
    components: model.components.map(({ id, prior, minutes }) => ({ id, prior, minutesToCheck: minutes })),
    functions: [
      ...model.functions.map(({ id, needs }) => ({ id, needs: [...needs] })),
      ...looked.map(([id]) => ({ id: lookAt(id), needs: [id] })),
    ],
    observed: [
      ...Object.entries(findings.functions).map(([id, works]) => ({ function: id, works })),
      ...looked.map(([id, works]) => ({ function: lookAt(id), works })),
    ],
    maxFaults: mostFaults,
  });
  if (!answer.ok) return fail(answer.error);
  const byId = new Map(model.components.map((component) => [component.id, component]));
  const { candidates, checks } = answer.value;
  const suspects = candidates.map(({ faults, share }) => ({ faults: faults.map((id) => byId.get(id)!), share }));
  const open = checks.filter(({ component }) => findings.components[component] === undefined);
  // What is in every candidate tells none of them apart; it is looked at last, to be sure.
  const isTelling = ({ share }: { share: number }) => share < 1 - 1e-9;
  const looks = [...open.filter(isTelling), ...open.filter((check) => !isTelling(check))];
  return succeed({ suspects, looks: looks.map(({ component }) => byId.get(component)!) });
}

/** Answers of which one must be wrong: functions said to fail, and what proves good all that they need; by the ids of the contract. */
export function listContradicting(
  { functions, components }: FaultModel,
  findings: Findings,
  conflicting: readonly string[],
): (FaultFunction | FaultComponent)[] {
  const failing = functions.filter(({ id }) => conflicting.includes(id));
  const needed = new Set(failing.flatMap(({ needs }) => needs));
  const looked = components.filter(({ id }) => needed.has(id) && findings.components[id] === true);
  const working = functions.filter(
    ({ id, needs }) => findings.functions[id] === true && needs.some((need) => needed.has(need)),
  );
  return [...failing, ...looked, ...working];
}

/** Functions to ask about next: those that share components with what fails and are not answered, the most telling first. */
export function listQuestions(model: FaultModel, findings: Findings, found: Found): FaultFunction[] {
  const shareOf = new Map<string, number>();
  for (const { faults, share } of found.suspects)
    for (const { id } of faults) shareOf.set(id, (shareOf.get(id) ?? 0) + share);
  const tells = ({ needs }: FaultFunction) => {
    const inside = needs.reduce((sum, id) => sum + (shareOf.get(id) ?? 0), 0);
    return Math.min(inside, 1 - inside);
  };
  return model.functions
    .filter(({ id }) => findings.functions[id] === undefined)
    .map((each) => ({ each, tells: tells(each) }))
    .filter((one) => one.tells > 0.02)
    .sort((a, b) => b.tells - a.tells)
    .map(({ each }) => each);
}

/** What a sentence says beside that a function fails: ("beeps but won't start") → the key is heard. Only of what the boat has. */
export function readClues(model: FaultModel, failing: FaultFunction, text: string): Record<string, boolean> {
  const known = new Set(model.functions.map(({ id }) => id));
  const said = text.toLowerCase();
  const clues = failing.clues.filter((clue) => said.includes(clue.says) && known.has(clue.function));
  return Object.fromEntries(clues.map((clue) => [clue.function, clue.works]));
}

/** What a touch on the plan may mean: functions thought of at a station, then those whose parts are there and nowhere else. */
export function listAtPlace(model: FaultModel, rig: Rig, station: string, most = 10): FaultFunction[] {
  const stationOf = new Map(rig.parts.map((part) => [part.id, part.station]));
  const placeOf = new Map(model.components.map(({ id, part }) => [id, part === null ? null : stationOf.get(part)]));
  const weigh = ({ needs, stations }: FaultFunction) => {
    const placed = needs.filter((id) => placeOf.get(id) != null);
    const here = placed.filter((id) => placeOf.get(id) === station);
    return (stations.includes(station) ? 1 : 0) + (placed.length === 0 ? 0 : here.length / placed.length);
  };
  return model.functions
    .map((each) => ({ each, weight: weigh(each) }))
    .filter(({ weight }) => weight > 0)
    .sort((a, b) => b.weight - a.weight)
    .slice(0, most)
    .map(({ each }) => each);
}

const words = (text: string): string[] =>
  text
    .toLowerCase()
    .replaceAll(/[’']/g, "")
    .match(/[\p{L}\d]+/gu) ?? [];
/** Words that say nothing of which function is meant. */
const empty = new Set([
  "the",
  "a",
  "is",
  "it",
  "but",
  "and",
  "my",
  "does",
  "do",
  "not",
  "no",
  "wont",
  "will",
  "doesnt",
  "of",
  "at",
  "in",
  "to",
]);

/** Functions that a few words may mean, the best first: "beeps but won't start" → starting. */
export function matchWords(functions: readonly FaultFunction[], text: string): FaultFunction[] {
  const asked = words(text).filter((word) => !empty.has(word));
  if (asked.length === 0) return [];
  const scored = functions.map((each) => {
    const own = words([each.label, ...each.words].join(" "));
    const hits = asked.filter((word) =>
      own.some((other) => other.startsWith(word) || (word.length > 4 && word.startsWith(other) && other.length > 3)),
    );
    const isSaid = each.words.some((said) => text.toLowerCase().includes(said.toLowerCase()));
    return { each, score: hits.length + (isSaid ? 2 : 0) };
  });
  return scored
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score)
    .slice(0, 8)
    .map(({ each }) => each);
}

/** What follows from what was seen on a boat, and what is worth asking next: all that a finder shows. */
export function searchFault(model: FaultModel, findings: Findings) {
  const answer = findFault(model, findings);
  return { answer, questions: answer.ok ? listQuestions(model, findings, answer.value) : [] };
}
