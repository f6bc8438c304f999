import { findStation, type Rig, type Station } from "../rig/index.ts";
import { shortenTitles, type Topic } from "../topic/index.ts";
import type { RouteVisit } from "./contract.ts";
import type { RouteStyle } from "./styles.ts";

interface Explained {
  readonly rig: Rig;
  readonly topics: readonly Topic[];
  readonly visits: readonly RouteVisit[];
  /** What shaped the order; left out where it is not known any more, or where a person did. */
  readonly style?: RouteStyle;
  readonly isByHand?: boolean;
}

/** One topic that must come before another of another stop. */
interface Need {
  readonly first: Topic;
  readonly then: Topic;
  /** The stop of `then` or of `first`, whichever is not the one explained. */
  readonly stop: number;
}

/**
 * Why each stop stands where it does, in a line each without a full stop. What a topic needs goes before what the style
 * asks; where neither says anything it is the shortest way, or where it was put by hand.
 *
 * @example ["Before the helm, because “Battery switches” comes before “Starting the engine”", "The shortest way from the bow"]
 */
export function explainStops({ rig, topics, visits, style, isByHand = false }: Explained): string[] {
  const byId = new Map(topics.map((topic) => [topic.id, topic]));
  const short = shortenTitles(topics.map(({ title }) => title));
  const titleOf = new Map(topics.map(({ id }, i) => [id, short[i]!]));
  const stationAt = (stop: number) => rig.stations.find(({ id }) => id === visits[stop]!.station)!;
  const stopOf = new Map(visits.flatMap((visit, stop) => visit.topics.map((id) => [id, stop] as const)));
  const needs = listNeeds(visits, byId, stopOf);
  const sayNeed = ({ first, then }: Need) => `“${titleOf.get(first.id)}” comes before “${titleOf.get(then.id)}”`;
  return visits.map((visit, stop) => {
    const isBack = visits.slice(0, stop).some(({ station }) => station === visit.station);
    const before = needs.before[stop];
    const after = needs.after[stop];
    if (isBack && after !== undefined) return `Back here, because ${sayNeed(after)}`;
    if (before !== undefined) {
      const isHereAgain = visits[before.stop]!.station === visit.station;
      return `${isHereAgain ? "Here first" : `Before ${nameStation(stationAt(before.stop))}`}, because ${sayNeed(before)}`;
    }
    const told = style === undefined ? null : sayStyle(style, { rig, byId, visits, stop });
    if (told !== null) return told;
    if (after !== undefined) return `After ${nameStation(stationAt(after.stop))}, because ${sayNeed(after)}`;
    if (isByHand) return "Put here by hand";
    return stop === 0 ? "A good place to begin" : `The shortest way from ${nameStation(stationAt(stop - 1))}`;
  });
}

/** Of each stop, the weightiest topic of it that one of a later stop waits for, and the weightiest that itself waits. */
function listNeeds(
  visits: readonly RouteVisit[],
  byId: ReadonlyMap<string, Topic>,
  stopOf: ReadonlyMap<string, number>,
): { readonly before: (Need | undefined)[]; readonly after: (Need | undefined)[] } {
  const before: (Need | undefined)[] = visits.map(() => undefined);
  const after: (Need | undefined)[] = visits.map(() => undefined);
  const weigh = ({ then }: Need) => (then.must ? 10 : 0) + then.value;
  const offer = (list: (Need | undefined)[], stop: number, need: Need) => {
    const rival = list[stop];
    if (rival === undefined || weigh(need) > weigh(rival)) list[stop] = need;
  };
  for (const [id, stop] of stopOf) {
    const then = byId.get(id);
    for (const needed of then?.after ?? []) {
      const first = byId.get(needed);
      const earlier = stopOf.get(needed);
      if (then === undefined || first === undefined || earlier === undefined || earlier >= stop) continue;
      offer(before, earlier, { first, then, stop });
      offer(after, stop, { first, then, stop: earlier });
    }
  }
  return { before, after };
}

interface Placed {
  readonly rig: Rig;
  readonly byId: ReadonlyMap<string, Topic>;
  readonly visits: readonly RouteVisit[];
  readonly stop: number;
}

function sayStyle(style: RouteStyle, { rig, byId, visits, stop }: Placed): string | null {
  const isAt = (kinds: RouteStyle["start"]) => findStation(rig, kinds)?.id === visits[stop]!.station;
  if (stop === 0 && isAt(style.start)) return `“${style.name}” begins here`;
  if (stop === visits.length - 1 && isAt(style.end)) return `“${style.name}” ends here`;
  const told = visits.map(({ topics }) => topics.flatMap((id) => byId.get(id) ?? []));
  const last = maxBy(told[stop]!, style.rank);
  const next = told.slice(stop + 1).flatMap((topics) => {
    const first = maxBy(topics, (topic) => -style.rank(topic));
    return first !== undefined && last !== undefined && style.rank(first) > style.rank(last) ? first : [];
  })[0];
  return next === undefined || last === undefined
    ? null
    : `“${style.name}”: ${style.group(last)} before ${style.group(next)}`;
}

const maxBy = (topics: readonly Topic[], of: (topic: Topic) => number): Topic | undefined =>
  topics.reduce(
    (best: Topic | undefined, topic) => (best === undefined || of(topic) > of(best) ? topic : best),
    undefined,
  );

/** "the helm", "the VHF locker". */
function nameStation({ label }: Station): string {
  const isWord = label[1] === undefined || label[1] === label[1].toLowerCase();
  return `the ${isWord ? label.charAt(0).toLowerCase() + label.slice(1) : label}`;
}
