import type { Topic } from "../topic/index.ts";
import { listOpenTopics, type OpenTopic } from "./coverage.ts";
import type { WalkState } from "./foldWalk.ts";

/** What a store has learned of one topic: how often it was marked late or asked for by phone, over so many handovers. */
export interface Forgotten {
  /** Marked only when closing, or after signing. */
  readonly late: number;
  readonly calls: number;
}

/** A call counts for more than a late mark: the late mark was still made. */
const callWeight = 2;
/** Handovers a store must have had before its own figures outweigh what is usual. */
const priorHandovers = 10;

/**
 * How likely a topic is to be left out here, 0 to about 1: the store's own late marks and calls, and until it has enough
 * of them what is usual (`usual`: topic ids, the most forgotten first).
 *
 * @example no handovers yet, first of four usual ones → 1; not among them → 0.
 */
export function scoreForgotten(id: string, usual: readonly string[], own: Forgotten | undefined, handovers: number) {
  const place = usual.indexOf(id);
  const prior = place < 0 ? 0 : 1 - place / usual.length;
  const counted = (own?.late ?? 0) + callWeight * (own?.calls ?? 0);
  return (prior * priorHandovers + counted) / (priorHandovers + handovers);
}

/** The sheet before the goodbye: what is still open. */
export interface BeforeParting {
  readonly musts: OpenTopic[];
  /** Open and often forgotten here, the likeliest first. */
  readonly forgotten: OpenTopic[];
  readonly others: OpenTopic[];
}

const mostForgotten = 8;

/** Did I leave anything out? Open musts, then what this store most often forgets, then the rest in walk order. */
export function listBeforeParting(
  topics: readonly Topic[],
  state: WalkState,
  scores: Readonly<Record<string, number>>,
  attending: readonly { readonly id: string }[] = [],
): BeforeParting {
  const open = listOpenTopics(topics, state, attending);
  const others = open.filter(({ topic }) => !topic.must);
  const forgotten = others
    .filter(({ topic }) => (scores[topic.id] ?? 0) > 0)
    .sort((a, b) => (scores[b.topic.id] ?? 0) - (scores[a.topic.id] ?? 0))
    .slice(0, mostForgotten);
  return {
    musts: open.filter(({ topic }) => topic.must),
    forgotten,
    others: others.filter((each) => !forgotten.includes(each)),
  };
}
