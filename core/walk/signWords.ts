import type { Rig } from "../rig/index.ts";
import { countTopics, listHands } from "./coverage.ts";
import type { EntryOf } from "./entry.ts";
import type { WalkState } from "./foldWalk.ts";
import type { SignRole } from "./kinds.ts";
import { listOwed } from "./owed.ts";

/** What a signature is for, in numbers: as they stand in what it covers. */
export interface SignCounts {
  readonly planned: number;
  readonly done: number;
  /** Explained although the plan had no time for them. */
  readonly extra: number;
  /** Topics this buyer did with their own hands; of staff and a witness those that anybody did. */
  readonly byHand: number;
  /** Kinds of gear that were counted in full, and kinds in all. */
  readonly gearFull: number;
  readonly gearKinds: number;
  readonly owed: number;
  /** Explained, of all the boat has; as older apps said it. */
  readonly explained: number;
  readonly topics: number;
}

type Counted = Parameters<typeof countTopics>[0] & {
  readonly rig: Pick<Rig, "gear">;
  /** Walks that began since each buyer signs for their own hands: then no count of all buyers is taken. */
  readonly eachDoes?: boolean | undefined;
};

/** The numbers a signature of this person is for; null: of nobody in particular, as older apps counted them for everybody. */
export function countForSigning(content: Counted, state: WalkState, person: string | null): SignCounts {
  const { planned, done, extra, byHand, explained } = countTopics(content, state);
  const { gear } = content.rig;
  const theirs = (id: string) =>
    content.topics.filter((topic) => listHands(topic, [{ id }], state).get(id) === "did").length;
  return {
    planned,
    done,
    extra,
    byHand: person === null ? byHand : theirs(person),
    gearFull: gear.filter(({ id, count }) => (state.gear.get(id)?.count ?? 0) >= count).length,
    gearKinds: gear.length,
    owed: listOwed(content.topics, gear, state).length,
    explained,
    topics: content.topics.length,
  };
}

const sayTopics = ({ planned, done, extra }: SignCounts) =>
  `${done} of ${planned} planned topics done${extra > 0 ? `, ${extra} more explained` : ""}`;

/**
 * What stands above a signature and goes into the record with it: composed of a form and of numbers, never typed.
 * `isRefused`: of a witness, whether a buyer would not sign.
 */
export function writeSignWords(role: SignRole, counts: SignCounts, isRefused = false): string[] {
  switch (role) {
    case "buyer":
      return [
        `${sayTopics(counts)}; ${counts.byHand} of them I did with my own hands.`,
        `I received the gear as counted: ${counts.gearFull} of ${counts.gearKinds} kinds in full.`,
        counts.owed === 0
          ? "Nothing is owed to me."
          : `${counts.owed} ${counts.owed === 1 ? "thing is" : "things are"} owed to me, as listed here.`,
      ];
    case "staff":
      return [`I explained this boat as marked: ${sayTopics(counts)}.`];
    case "countersign":
      return [isRefused ? "I was there when the buyer did not sign." : "I was there when this was signed."];
    default:
      throw new Error(`writeSignWords: expected a known role, got ${JSON.stringify(role satisfies never)}`);
  }
}

/** What apps of before 2026-11-28 wrote: a signature given without signal may still come in these words. */
function writeOldWords(role: SignRole, counts: SignCounts): string[] {
  const [topics, gear] = writeSignWords("buyer", counts);
  if (role === "staff") return [`I explained this boat as marked: ${counts.explained} of ${counts.topics} topics.`];
  const owed = counts.owed === 0 ? "Nothing is owed to me." : `${counts.owed} things are owed to me, as listed here.`;
  const explained = topics!.replace(/^.*; /, `${counts.explained} topics were explained to me, `);
  return [explained, gear!, owed];
}

const number = "\\d{1,5}";
const topicsForm = `${number} of ${number} planned topics done(, ${number} more explained)?`;
const forms: Readonly<Record<SignRole, readonly RegExp[]>> = {
  buyer: [
    new RegExp(
      `^(${topicsForm};|${number} topics were explained to me,) ${number} of them I did with my own hands\\.$`,
    ),
    new RegExp(`^I received the gear as counted: ${number} of ${number} kinds in full\\.$`),
    new RegExp(`^(Nothing is owed to me\\.|${number} (thing is|things are) owed to me, as listed here\\.)$`),
  ],
  staff: [new RegExp(`^I explained this boat as marked: (${topicsForm}|${number} of ${number} topics)\\.$`)],
  countersign: [/^I was there when (the buyer did not sign|this was signed)\.$/],
};

/** Whether these lines are of the form that an app composes, of this version or of one before: no free text stands above a name. */
export const isSignForm = (role: SignRole, lines: readonly string[]): boolean =>
  lines.length === forms[role].length && lines.every((line, i) => forms[role][i]!.test(line));

/**
 * Whether a signature's words say what stands in what it covers. One of an older app counted what all buyers did with their
 * hands; one that says nothing is given its words by the record.
 */
export function saysWhatStands(
  { role, person, signsFor }: Pick<EntryOf<"sign">, "role" | "person" | "signsFor">,
  content: Counted,
  state: WalkState,
): boolean {
  if (signsFor === undefined || role === "countersign") return true;
  const said = JSON.stringify(signsFor);
  const forAll = countForSigning(content, state, null);
  const theirs = countForSigning(content, state, person ?? null);
  const older = content.eachDoes === true ? [] : [writeSignWords(role, forAll)];
  const possible = [writeSignWords(role, theirs), ...older, writeOldWords(role, forAll)];
  return possible.some((words) => JSON.stringify(words) === said);
}
