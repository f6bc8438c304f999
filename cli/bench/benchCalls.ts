import { faultContent, rigTemplates, topics } from "../../content/index.ts";
import { buildFaultModel, findTaught } from "../../core/faults/index.ts";
import { createRandom } from "../../core/random.ts";
import { regions } from "../../core/region/index.ts";
import { defaultPlanOptions, listRaises, listTopicsFor, prepareWalk, type Raise } from "../../core/route/index.ts";
import type { Topic } from "../../core/topic/index.ts";
import type { Figure } from "./figures.ts";

/*
 * Repeat calls with and without what calls teach the walk. What is assumed, and measured nowhere:
 * - a boat whose buyer was taught nothing rings two and a half times in its first season about what its owner can mend;
 * - which of it fails is as likely as what ships says, times a factor of the store's own waters and boats (log-normal, sigma 1);
 * - of what was told 60 % of those calls still come, of what was shown 35 %, of what the buyer's hands did 12 %;
 * - every walk has one first-time buyer and ninety minutes; what has no room in them is not taught;
 * - calls of one delivery have all come before the next twenty-five are planned.
 */
const deliveries = 500;
const atOnce = 25;
const untaughtCalls = 2.5;
const stillRings: Record<Topic["level"], number> = { told: 0.6, shown: 0.35, done: 0.12 };
const notTaught = 1;
const models = Object.keys(rigTemplates) as (keyof typeof rigTemplates)[];

interface Cause {
  readonly topic: string;
  readonly rate: number;
}

/** What owners ring about on each kind of boat, by the topic that teaches it; the same with feedback and without. */
function createCauses(seed: number): ReadonlyMap<string, readonly Cause[]> {
  const random = createRandom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const factorOf = new Map(faultContent.kinds.map(({ id }) => [id, Math.exp(normal())]));
  return new Map(
    models.map((name) => {
      const rig = rigTemplates[name];
      const here = new Set(listTopicsFor(rig, topics).map(({ id }) => id));
      const own = buildFaultModel(rig, faultContent, regions.us).components.filter(({ who }) => who === "owner");
      const weights = own.flatMap(({ kind, prior }) => {
        const topic = findTaught(faultContent, kind, here);
        return topic === null ? [] : [{ topic, weight: prior * factorOf.get(kind)! }];
      });
      const sum = weights.reduce((total, { weight }) => total + weight, 0);
      return [name, weights.map(({ topic, weight }) => ({ topic, rate: (untaughtCalls * weight) / sum }))];
    }),
  );
}

const drawPoisson = (mean: number, random: () => number): number => {
  let n = 0;
  for (let p = random(); p > Math.exp(-mean); p *= random()) n++;
  return n;
};

/** How far each topic is taken in a walk on each kind of boat with these raises. */
function createTeacher() {
  const known = new Map<string, ReadonlyMap<string, Topic["level"]>>();
  return (name: (typeof models)[number], raised: Readonly<Record<string, Raise>>) => {
    const key = `${name} ${JSON.stringify(Object.entries(raised).map(([id, { level, value }]) => [id, level, value]))}`;
    const found = known.get(key);
    if (found !== undefined) return found;
    const teaching = { topics, schools: {}, ownStyles: [], minutesOf: {}, raised, idiom: regions.us };
    const options = { ...defaultPlanOptions, style: "power-first" as const, budgetMin: 90 };
    const walk = prepareWalk(rigTemplates[name], teaching, options);
    if (!walk.ok) throw new Error(`benchCalls: no plan for ${name}: ${walk.error.code}`);
    const told = new Set(walk.value.plan.visits.flatMap((visit) => visit.topics));
    const levels = new Map(walk.value.topics.filter(({ id }) => told.has(id)).map(({ id, level }) => [id, level]));
    known.set(key, levels);
    return levels;
  };
}

/** Calls about topics that buyers of this store had rung about before, in the second half, when there was something to learn from. */
function simulate(seed: number, isLearning: boolean, teach: ReturnType<typeof createTeacher>): number {
  const causesOf = createCauses(seed);
  const random = createRandom(seed * 7919);
  const history: (readonly string[])[] = [];
  const rungBefore = new Set<string>();
  let repeats = 0;
  let raised: Readonly<Record<string, Raise>> = {};
  for (let i = 0; i < deliveries; i++) {
    if (isLearning && i % atOnce === 0) {
      const calls = history.flatMap((rung, atMs) => rung.map((topic) => ({ topic, atMs })));
      raised = listRaises(topics, { calls, handoversMs: history.map((_, atMs) => atMs) });
    }
    const name = models[i % models.length]!;
    const levels = teach(name, raised);
    const rung = causesOf.get(name)!.flatMap(({ topic, rate }) => {
      const level = levels.get(topic);
      const n = drawPoisson(rate * (level === undefined ? notTaught : stillRings[level]), random);
      return Array.from({ length: n }, () => topic);
    });
    if (i >= deliveries / 2) repeats += rung.filter((topic) => rungBefore.has(topic)).length;
    for (const topic of rung) rungBefore.add(topic);
    history.push(rung);
  }
  return repeats;
}

/** 500 simulated deliveries, as the walks are and with topics taken further that buyers ring about. */
export async function benchCalls(): Promise<Figure[]> {
  const teach = createTeacher();
  const seeds = [1, 2, 3];
  const sum = (isLearning: boolean) => seeds.reduce((total, seed) => total + simulate(seed, isLearning, teach), 0);
  const [without, withIt] = [sum(false), sum(true)];
  const per100 = (calls: number) => ((calls / seeds.length / (deliveries / 2)) * 100).toFixed(0);
  const share = withIt / without;
  return [
    {
      what: "repeat calls per 100 deliveries, the latter 250 of 500 simulated, 3 stores: calls teach the walk (without)",
      value: `${per100(withIt)} (${per100(without)}), ${Math.round(share * 100)} %`,
      goal: "half",
      isMet: share <= 0.5,
    },
  ];
}
