import type { LocalDate } from "../dates/index.ts";
import { askHandoverHours, type Reading } from "../hours/index.ts";
import type { ReadyCheck } from "../ready/index.ts";
import type { Rig } from "../rig/index.ts";
import type { Plan } from "../route/index.ts";
import type { Topic } from "../topic/index.ts";
import { listOpenTopics } from "./coverage.ts";
import type { EntryOf } from "./entry.ts";
import { findSignature, type WalkState } from "./foldWalk.ts";
import { isInOrder } from "./putRight.ts";
import { listStale } from "./signing.ts";
import { saysWhatStands } from "./signWords.ts";

export const obstacleCodes = [
  "must-open",
  "gear-uncounted",
  "hours-unread",
  "hours-asked",
  "unsigned",
  "signature-stale",
  "stopping-snag",
  "not-allowed-to-start",
] as const;

export interface Obstacle {
  readonly code: (typeof obstacleCodes)[number];
  readonly ids: string[];
}

/** What a walk goes by: what its snapshot holds, and who comes. */
export interface WalkContent {
  readonly topics: readonly Topic[];
  readonly rig: Rig;
  readonly makeReady: readonly ReadyCheck[];
  readonly buyers: readonly { readonly id: string; readonly name: string }[];
  /** The hours of each engine as read before this handover, by engine. */
  readonly readings: Readonly<Record<string, readonly Reading[]>>;
  readonly date: LocalDate;
  /** A must that is to be done by their own hands is open until each who attends did it. */
  readonly eachDoes?: boolean | undefined;
  /** What was planned of it; null before it is. */
  readonly plan?: Pick<Plan, "visits" | "second"> | null;
}

/**
 * What still stands between the walk and its close; empty when it may be sealed. `close`: where there is one, what it
 * covers is all there is in `state`; one of the first version lists nothing, and one buyer signed for all.
 */
export function listObstacles(
  content: WalkContent,
  state: WalkState,
  close: EntryOf<"close"> | null = null,
): Obstacle[] {
  const { topics, rig, makeReady } = content;
  const isFirstVersion = close !== null && close.covers === undefined;
  const attending = content.eachDoes === true ? listAttending(content.buyers, state) : [];
  const musts = listOpenTopics(topics, state, attending).filter(({ topic, reason }) => topic.must && reason === null);
  const start = listStartObstacles(makeReady, state);
  const found: Obstacle[] = [
    { code: "must-open", ids: musts.map(({ topic }) => topic.id) },
    { code: "gear-uncounted", ids: rig.gear.filter(({ id }) => !state.gear.has(id)).map(({ id }) => id) },
    { code: "hours-unread", ids: rig.engines.filter(({ id }) => !state.hours.has(id)).map(({ id }) => id) },
    { code: "hours-asked", ids: isFirstVersion ? [] : listHoursAsked(content, state) },
    { code: "unsigned", ids: listUnsigned(content.buyers, state, isFirstVersion) },
    { code: "signature-stale", ids: listUnfit(content, state) },
    {
      code: "stopping-snag",
      ids: state.snags.filter(({ id, stops }) => stops && !state.settled.has(id)).map(({ id }) => id),
    },
    { code: "not-allowed-to-start", ids: start.isFree ? [] : start.open.map(({ id }) => id) },
  ];
  return found.filter(({ ids }) => ids.length > 0);
}

/** Buyers who are here, unless somebody has said otherwise. */
export const listAttending = <B extends { readonly id: string }>(buyers: readonly B[], state: WalkState): B[] =>
  buyers.filter(({ id }) => state.present.get(id)?.here ?? true);

/** Signatures for something else than what stands: by what was shown, or by the words above them. */
function listUnfit(content: WalkContent, state: WalkState): string[] {
  const { plan = null } = content;
  const stale = listStale(content, state).map(({ id }) => id);
  if (plan === null) return stale;
  const untrue = state.signatures.filter((sign) => !saysWhatStands(sign, { ...content, plan }, state));
  return [...new Set([...stale, ...untrue.map(({ id }) => id)])];
}

/** The engines whose hours do not follow from those before, and nobody has said why. */
function listHoursAsked({ rig, readings, date }: WalkContent, state: WalkState): string[] {
  return rig.engines.flatMap(({ id, meter }) => {
    const read = state.hours.get(id);
    if (read === undefined || read.answer !== undefined) return [];
    const next = { date, hours: read.hours };
    return askHandoverHours(readings[id] ?? [], next, { meter, isUsed: rig.used !== undefined }) === null ? [] : [id];
  });
}

/** Who has not signed: buyers who are here (by id), the one who walked, and a witness where somebody would not sign. */
function listUnsigned(buyers: WalkContent["buyers"], state: WalkState, isOneForAll: boolean): string[] {
  const missing = buyers.filter(({ id, name }) => {
    const isTheirs = (other: { person?: string | undefined; name: string }) =>
      (other.person ?? other.name) === id || other.name === name;
    const isHere = state.present.get(id)?.here ?? true;
    const isHeard =
      state.signatures.some((sign) => sign.role === "buyer" && isTheirs(sign)) || state.refusals.some(isTheirs);
    return isHere && !isHeard;
  });
  const isAnyHeard = findSignature(state, "buyer") !== null || state.refusals.length > 0;
  return [
    // A handover that nobody attends is signed for by somebody all the same.
    ...(isAnyHeard
      ? isOneForAll
        ? []
        : missing.map(({ id }) => id)
      : missing.length > 0
        ? missing.map(({ id }) => id)
        : ["buyer"]),
    ...(findSignature(state, "staff") === null ? ["staff"] : []),
    // A refusal is witnessed by a second person of the store.
    ...(state.refusals.length > 0 && findSignature(state, "countersign") === null ? ["countersign"] : []),
  ];
}

export interface StartObstacles {
  /** Nothing is in the way, or the owner of the store has answered for it. */
  readonly isFree: boolean;
  readonly open: readonly ReadyCheck[];
  readonly stopping: readonly EntryOf<"snag">[];
}

/** What stands between a boat and its walk: make-ready not finished, or a snag that stops the handover. */
export function listStartObstacles(checks: readonly ReadyCheck[], state: WalkState): StartObstacles {
  const open = checks.filter((check) => !isInOrder(state, check));
  const stopping = state.snags.filter(({ id, stops }) => stops && !state.settled.has(id));
  return { open, stopping, isFree: state.allowed !== null || (open.length === 0 && stopping.length === 0) };
}
