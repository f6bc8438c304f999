import type { RouteInput, RouteOutput, RouteTopic } from "../contract.ts";
import { chooseByKnapsack, isKnapsackExact } from "./chooseByKnapsack.ts";
import { orderWalk, type Walk } from "./orderWalk.ts";

const tolerance = 1e-9;
const exhaustiveTopics = 10;
/** Walks the local search may find anew, and how far each is looked for: with the rest about 200 ms of a laptop core. */
const localSearches = 4;
const localStates = 2000;
const lastStates = 15_000;

type Kept = ReadonlySet<number>;

/** Which topics fit into `budgetMin`, and their walk. `moves` closed under shortest paths; topics acyclic. */
export function chooseForBudget(
  input: RouteInput,
  budgetMin: number,
  moves: readonly (readonly number[])[],
  maxStates: number,
): RouteOutput {
  const { topics } = input;
  const closureOf = createClosure(topics);
  const musts = new Set<number>();
  topics.forEach((topic, i) => {
    if (topic.must) for (const j of closureOf(i)) musts.add(j);
  });
  const listOf = (kept: Kept) => topics.filter((_, i) => kept.has(i));
  const walkOf = (kept: Kept, states: number) => orderWalk(input, listOf(kept), moves, states);
  const answer = (kept: Kept, walk: Walk, optimal: boolean): RouteOutput => ({
    ...walk,
    deferred: topics.filter((_, i) => !kept.has(i)).map((topic) => topic.id),
    optimal: optimal && walk.optimal,
  });
  const mustWalk = walkOf(musts, maxStates);
  if (mustWalk.totalMin > budgetMin + tolerance) {
    return { ...answer(musts, mustWalk, true), overBudgetMin: mustWalk.totalMin - budgetMin };
  }
  const fits = (walk: Walk) => walk.totalMin <= budgetMin + tolerance;
  const all = new Set(topics.map((_, i) => i));
  if (topics.reduce((sum, topic) => sum + topic.minutes, 0) <= budgetMin + tolerance) {
    const allWalk = walkOf(all, maxStates);
    if (fits(allWalk)) return answer(all, allWalk, true);
  }
  if (topics.length <= exhaustiveTopics) {
    const kept = chooseExhaustively(topics, musts, closureOf, (set) => fits(walkOf(set, maxStates)));
    return answer(kept, walkOf(kept, maxStates), true);
  }
  const exact = isKnapsackExact(input) ? chooseByKnapsack(input, budgetMin + tolerance, moves, musts) : null;
  if (exact !== null) return answer(exact, walkOf(exact, maxStates), true);
  const draftOf = (kept: Kept, walk: Walk): Draft => ({
    kept,
    totalMin: walk.totalMin,
    stations: walk.visits.map(({ station }) => station),
    visitOf: new Map(walk.visits.flatMap((visit, v) => visit.topics.map((id) => [id, v] as const))),
  });
  const redraft = (kept: Kept) => draftOf(kept, walkOf(kept, localStates));
  const kept = chooseLocally(topics, draftOf(musts, mustWalk), budgetMin, closureOf, redraft);
  const last = walkOf(kept, lastStates);
  if (fits(last)) return answer(kept, last, false);
  // The short look may miss the walk that the choice was made on; if the long one does too, only the musts are sure.
  const longest = walkOf(kept, maxStates);
  return fits(longest) ? answer(kept, longest, false) : answer(musts, mustWalk, false);
}

/** For each topic: itself and everything it comes after, however far back. */
function createClosure(topics: readonly RouteTopic[]): (i: number) => ReadonlySet<number> {
  const index = new Map(topics.map((topic, i) => [topic.id, i]));
  const known = new Map<number, Set<number>>();
  const closureOf = (i: number): Set<number> => {
    const seen = known.get(i);
    if (seen) return seen;
    const set = new Set([i]);
    known.set(i, set);
    for (const id of topics[i]!.after) for (const j of closureOf(index.get(id)!)) set.add(j);
    return set;
  };
  return closureOf;
}

const sumValue = (topics: readonly RouteTopic[], kept: Kept) => [...kept].reduce((sum, i) => sum + topics[i]!.value, 0);

/** Every closed set of up to ten topics, the most valuable first, until one fits. */
function chooseExhaustively(
  topics: readonly RouteTopic[],
  musts: Kept,
  closureOf: (i: number) => ReadonlySet<number>,
  fits: (kept: Kept) => boolean,
): Kept {
  const sets: { kept: Set<number>; value: number; minutes: number }[] = [];
  for (let bits = 0; bits < 1 << topics.length; bits++) {
    const kept = new Set(topics.map((_, i) => i).filter((i) => (bits & (1 << i)) !== 0));
    if ([...musts].some((i) => !kept.has(i))) continue;
    if ([...kept].some((i) => [...closureOf(i)].some((j) => !kept.has(j)))) continue;
    sets.push({
      kept,
      value: sumValue(topics, kept),
      minutes: [...kept].reduce((sum, i) => sum + topics[i]!.minutes, 0),
    });
  }
  sets.sort((a, b) => b.value - a.value || b.kept.size - a.kept.size || a.minutes - b.minutes);
  return sets.find((set) => fits(set.kept))?.kept ?? musts;
}

/** Kept topics and a walk over them that is already known, told visit by visit. */
interface Draft {
  readonly kept: Kept;
  readonly totalMin: number;
  /** Stations in visiting order. */
  readonly stations: readonly string[];
  /** The visit each kept topic is told at. */
  readonly visitOf: ReadonlyMap<string, number>;
}

/**
 * Adds by value per minute, then swaps while that gains. A topic that can be told at a visit already made costs no search;
 * only for the others is the walk found anew, and that a fixed number of times.
 */
function chooseLocally(
  topics: readonly RouteTopic[],
  musts: Draft,
  budgetMin: number,
  closureOf: (i: number) => ReadonlySet<number>,
  redraft: (kept: Kept) => Draft,
): Kept {
  let searches = localSearches;
  const minutesOf = (list: readonly number[]) => list.reduce((sum, i) => sum + topics[i]!.minutes, 0);
  /** What adding topic i brings in, each after what it needs; closures hold a topic before what it comes after. */
  const newsOf = (kept: Kept, i: number) => [...closureOf(i)].filter((j) => !kept.has(j)).reverse();
  const add = (draft: Draft, i: number, maySearch: boolean): Draft | null => {
    const news = newsOf(draft.kept, i);
    const totalMin = draft.totalMin + minutesOf(news);
    // Keeping more never shortens a walk: what is too long without a further move is too long.
    if (totalMin > budgetMin + tolerance) return null;
    const kept = new Set([...draft.kept, ...news]);
    const visitOf = tellAtVisits(topics, news, draft);
    if (visitOf !== null) return { kept, totalMin, stations: draft.stations, visitOf };
    if (!maySearch || searches <= 0) return null;
    searches--;
    const found = redraft(kept);
    return found.totalMin <= budgetMin + tolerance ? found : null;
  };
  const worth = (kept: Kept, i: number) => {
    const news = newsOf(kept, i);
    return news.reduce((sum, j) => sum + topics[j]!.value, 0) / (minutesOf(news) + 0.5);
  };
  const fill = (from: Draft, maySearch: boolean): Draft => {
    let draft = from;
    const refused = new Set<number>();
    for (;;) {
      const open = topics.map((_, i) => i).filter((i) => !draft.kept.has(i) && !refused.has(i));
      if (open.length === 0) return draft;
      const worths = open.map((i) => worth(draft.kept, i));
      const best = open[worths.indexOf(Math.max(...worths))]!;
      const larger = add(draft, best, maySearch);
      if (larger === null) refused.add(best);
      else draft = larger;
    }
  };
  let best = fill(musts, true);
  for (let i = 0; i < topics.length; i++) {
    if (!best.kept.has(i) || musts.kept.has(i)) continue;
    const gone = [...best.kept].filter((j) => closureOf(j).has(i));
    if (gone.some((j) => musts.kept.has(j))) continue;
    const kept = new Set([...best.kept].filter((j) => !gone.includes(j)));
    const without: Draft = { ...best, kept, totalMin: best.totalMin - minutesOf(gone) };
    const lost = gone.reduce((sum, j) => sum + topics[j]!.value, 0);
    for (let j = 0; j < topics.length; j++) {
      if (best.kept.has(j) || closureOf(j).has(i)) continue;
      const gained = newsOf(kept, j).reduce((sum, k) => sum + topics[k]!.value, 0);
      if (gained <= lost) continue;
      const swapped = add(without, j, false);
      if (swapped === null) continue;
      best = fill(swapped, false);
      break;
    }
  }
  return best.kept;
}

/** Where the new topics (each after what it needs) can be told along the walk as it is; null when one of them cannot. */
function tellAtVisits(
  topics: readonly RouteTopic[],
  news: readonly number[],
  draft: Draft,
): Map<string, number> | null {
  const fresh = new Map<string, number>();
  const visitOf = (id: string) => fresh.get(id) ?? draft.visitOf.get(id);
  const waiting = new Set(news);
  while (waiting.size > 0) {
    const before = waiting.size;
    for (const i of waiting) {
      const topic = topics[i]!;
      if (topic.after.some((id) => visitOf(id) === undefined)) continue;
      const earliest = Math.max(0, ...topic.after.map((id) => visitOf(id)!));
      const visit = draft.stations.findIndex((station, v) => v >= earliest && station === topic.station);
      if (visit < 0) return null;
      fresh.set(topic.id, visit);
      waiting.delete(i);
    }
    if (waiting.size === before) return null;
  }
  return new Map([...draft.visitOf, ...fresh]);
}
