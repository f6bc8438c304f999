import type { Rig } from "../rig/index.ts";
import type { FaultContent } from "./faultContent.ts";

type Family = Rig["family"];

/** A call whose cause was found: the kinds that could have been it, and which it was. */
export interface ClosedCall {
  readonly family: Family;
  readonly atStake: readonly string[];
  readonly cause: string;
}

/** How likely one kind is at fault here, by the store's own calls: on all boats, or on those of one family. */
export interface LearnedPrior {
  readonly kind: string;
  readonly family: Family | null;
  /** Closed calls in which it could have been the cause, and those in which it was. */
  readonly calls: number;
  readonly causes: number;
  readonly prior: number;
}

/** How many calls' worth of trust what ships has; and what the store's boats together say, about one family of them. */
const shippedWeight = 20;
const storeWeight = 10;
const least = 0.0005;
const most = 0.95;

/**
 * A Beta update for each kind: the shipped likelihood counts as twenty calls, each closed call in which the kind could have been
 * the cause as one more. A family's likelihood starts from the store's, which counts as ten calls. Kinds that no call was
 * about are left out. (Mean of Beta(w·p + causes, w·(1 − p) + calls − causes).)
 *
 * @example shipped 0.1, thirty calls of which ten were it → (2 + 10) / (20 + 30) = 0.24.
 */
export function learnPriors(content: FaultContent, calls: readonly ClosedCall[]): LearnedPrior[] {
  // A cause that nothing needs was no candidate: it says nothing of the others.
  const counted = calls.filter(({ atStake, cause }) => atStake.includes(cause));
  const ofStore = tally(counted);
  const ofFamilies = [...new Set(counted.map(({ family }) => family))].map(
    (family) => [family, tally(counted.filter((call) => call.family === family))] as const,
  );
  return content.kinds.flatMap(({ id: kind, prior: shipped }) => {
    const seen = ofStore.get(kind);
    if (seen === undefined) return [];
    const prior = update(shipped, shippedWeight, seen);
    const learned: LearnedPrior[] = [{ kind, family: null, ...seen, prior }];
    for (const [family, byKind] of ofFamilies) {
      const own = byKind.get(kind);
      if (own !== undefined) learned.push({ kind, family, ...own, prior: update(prior, storeWeight, own) });
    }
    return learned;
  });
}

type Seen = Pick<LearnedPrior, "calls" | "causes">;

function tally(calls: readonly ClosedCall[]): Map<string, Seen> {
  const byKind = new Map<string, Seen>();
  for (const { atStake, cause } of calls)
    for (const kind of new Set(atStake)) {
      const { calls: n, causes } = byKind.get(kind) ?? { calls: 0, causes: 0 };
      byKind.set(kind, { calls: n + 1, causes: causes + (kind === cause ? 1 : 0) });
    }
  return byKind;
}

const update = (before: number, weight: number, { calls, causes }: Seen): number =>
  Math.min(most, Math.max(least, (weight * before + causes) / (weight + calls)));

/** What ships, with what was learned in the place of its likelihoods: of this family where there is such, else of the store. */
export function applyLearned(content: FaultContent, learned: readonly LearnedPrior[], family: Family): FaultContent {
  if (learned.length === 0) return content;
  const priors = new Map(learned.filter((each) => each.family === null).map(({ kind, prior }) => [kind, prior]));
  for (const each of learned) if (each.family === family) priors.set(each.kind, each.prior);
  return { ...content, kinds: content.kinds.map((kind) => ({ ...kind, prior: priors.get(kind.id) ?? kind.prior })) };
}
