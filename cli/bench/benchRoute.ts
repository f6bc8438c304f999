import { createRandom } from "../../core/random.ts";
import { type RouteInput, route } from "../../core/route/index.ts";
import { type Figure, figureMs } from "./figures.ts";

const stations = 12;
const topicCount = 120;
const precedences = 35;
/** The contract asks for 50 ms where five returns are forced at most. */
const mostReturns = 5;

/** Twelve stations on a deck of 8 × 2.5 m, 120 topics, 35 precedences between stations; up to five go against the rest. */
function createKnot(seed: number): RouteInput {
  const random = createRandom(seed * 7919);
  const places = Array.from({ length: stations }, () => [random() * 8, random() * 2.5] as const);
  const moveMin = places.map((a) =>
    places.map((b) => Math.round((0.2 + Math.hypot(a[0] - b[0], a[1] - b[1]) / 2) * 10) / 10),
  );
  const all = Array.from({ length: topicCount }, (_, i) => ({
    id: `t${i}`,
    station: `s${i < stations ? i : Math.floor(random() * stations)}`,
    minutes: 1 + Math.floor(random() * 4),
    after: [] as string[],
    must: random() < 0.3,
    value: 1 + Math.floor(random() * 9),
  }));
  const rank = Array.from({ length: stations }, (_, i) => i).sort(() => random() - 0.5);
  const rankOf = (i: number) => rank[Number(all[i]!.station.slice(1))]!;
  const isNeeded = new Set<number>();
  let backs = 0;
  for (let made = 0; made < precedences; ) {
    const a = Math.floor(random() * topicCount);
    const b = Math.floor(random() * topicCount);
    if (rankOf(a) === rankOf(b)) continue;
    const [early, late] = rankOf(a) < rankOf(b) ? [a, b] : [b, a];
    const goesBack = backs < 5 && early >= stations && !isNeeded.has(early);
    if (goesBack) {
      all[early]!.after.push(`t${late}`);
      isNeeded.add(late);
      backs++;
    } else if (all[early]!.after.length === 0) {
      all[late]!.after.push(`t${early}`);
      isNeeded.add(early);
    } else continue;
    made++;
  }
  return { stations: places.map((_, i) => ({ id: `s${i}` })), moveMin, topics: all };
}

export function benchRoute(): Figure[] {
  const time = (work: () => unknown) => {
    const startMs = performance.now();
    work();
    return performance.now() - startMs;
  };
  for (let seed = 200; seed < 210; seed++) route(createKnot(seed));
  const knots = Array.from({ length: 100 }, (_, seed) => createKnot(seed + 1));
  const timed = knots.map((knot) => {
    let returns = 0;
    let isProven = false;
    const ms = time(() => {
      const answer = route(knot);
      if (!answer.ok) return;
      isProven = answer.value.optimal;
      returns = answer.value.visits.length - stations;
    });
    return { ms, returns, isProven };
  });
  const usual = timed.filter(({ returns }) => returns <= mostReturns);
  const usualMs = usual.map(({ ms }) => ms);
  const knotFigure = figureMs(
    "route, 12 stations, 120 topics, 35 precedences, at most 5 returns",
    usualMs,
    50,
    "compute",
  );
  const note = `${usual.filter(({ isProven }) => isProven).length} of ${usual.length} proven`;
  const budgetMs = knots.slice(0, 30).map((knot) => time(() => route({ ...knot, budgetMin: 150 })));
  return [{ ...knotFigure, note }, figureMs("the same with a budget of 150 min, best found", budgetMs, 200, "compute")];
}
