import type { RouteInput, RouteOutput, RouteTopic } from "../contract.ts";
import { chooseByKnapsack, isKnapsackExact } from "./chooseByKnapsack.ts";
import { orderWalk, type Walk } from "./orderWalk.ts";

const tolerance = 1e-9;
const exhaustiveTopics = 10;
/** Walks tried by the local search: about 200 ms of an ordinary laptop core for a boat-sized problem. */
const localTries = 240;
const localStates = 3000;

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
  const allWalk = walkOf(all, maxStates);
  if (fits(allWalk)) return answer(all, allWalk, true);
  if (topics.length <= exhaustiveTopics) {
    const kept = chooseExhaustively(topics, musts, closureOf, (set) => fits(walkOf(set, maxStates)));
    return answer(kept, walkOf(kept, maxStates), true);
  }
  const exact = isKnapsackExact(input) ? chooseByKnapsack(input, budgetMin + tolerance, moves, musts) : null;
  if (exact !== null) return answer(exact, walkOf(exact, maxStates), true);
  const kept = chooseLocally(topics, musts, closureOf, (set) => fits(walkOf(set, localStates)));
  return answer(kept, walkOf(kept, maxStates), false);
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

/** Adds by value per minute, then swaps while that gains, within a fixed number of tries. */
function chooseLocally(
  topics: readonly RouteTopic[],
  musts: Kept,
  closureOf: (i: number) => ReadonlySet<number>,
  fits: (kept: Kept) => boolean,
): Kept {
  let tries = localTries;
  const add = (kept: Kept, i: number) => new Set([...kept, ...closureOf(i)]);
  const worth = (kept: Kept, i: number) => {
    const news = [...closureOf(i)].filter((j) => !kept.has(j));
    const minutes = news.reduce((sum, j) => sum + topics[j]!.minutes, 0);
    return news.reduce((sum, j) => sum + topics[j]!.value, 0) / (minutes + 0.5);
  };
  const fill = (from: Kept): Kept => {
    let kept = from;
    const refused = new Set<number>();
    for (;;) {
      const open = topics.map((_, i) => i).filter((i) => !kept.has(i) && !refused.has(i));
      if (open.length === 0 || tries <= 0) return kept;
      const best = open.reduce((a, b) => (worth(kept, b) > worth(kept, a) ? b : a));
      const larger = add(kept, best);
      tries--;
      if (fits(larger)) kept = larger;
      else refused.add(best);
    }
  };
  let best = fill(musts);
  for (let i = 0; i < topics.length && tries > 0; i++) {
    if (!best.has(i) || musts.has(i)) continue;
    const without = new Set([...best].filter((j) => !closureOf(j).has(i)));
    for (let j = 0; j < topics.length && tries > 0; j++) {
      if (best.has(j) || closureOf(j).has(i)) continue;
      const swapped = add(without, j);
      if (sumValue(topics, swapped) <= sumValue(topics, best)) continue;
      tries--;
      if (fits(swapped)) {
        best = fill(swapped);
        break;
      }
    }
  }
  return best;
}
