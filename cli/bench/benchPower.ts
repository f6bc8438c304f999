import { faultContent, rigTemplates } from "../../content/index.ts";
import { buildFaultModel, diagnose, findFault } from "../../core/faults/index.ts";
import { explainPower, type LiveInput, live, turnAllOff } from "../../core/power/index.ts";
import { createRandom } from "../../core/random.ts";
import { regions } from "../../core/region/index.ts";
import { type Figure, figureMs } from "./figures.ts";

const time = (work: () => unknown) => {
  const startMs = performance.now();
  work();
  return performance.now() - startMs;
};
const repeat = (runs: number, work: (i: number) => unknown) =>
  Array.from({ length: runs }, (_, i) => time(() => work(i)));

/** What has power, what is at fault: the contracts at the size the issue names, and a boat's own. */
export async function benchPower(): Promise<Figure[]> {
  const graphs = Array.from({ length: 40 }, (_, seed) => createGraph(seed + 1));
  const questions = Array.from({ length: 20 }, (_, seed) => createQuestion(seed + 1));
  const rig = rigTemplates["wending-23"];
  const model = buildFaultModel(rig, faultContent, regions.us);
  const off = turnAllOff(rig, { positions: {}, tripped: [], loose: [], charge: {} });
  for (let i = 0; i < 20; i++) live(graphs[i]!);
  return [
    figureMs(
      "live, 200 links and 60 loads",
      repeat(200, (i) => live(graphs[i % graphs.length]!)),
      1,
      "compute",
    ),
    figureMs(
      "why each load of the largest boat has power",
      repeat(60, () => explainPower(rig, off)),
      50,
      "compute",
    ),
    figureMs(
      "diagnose, 120 components, 60 functions, up to 3 faults",
      repeat(20, (i) => diagnose(questions[i]!)),
      200,
      "compute",
    ),
    figureMs(
      "the finder's answer on the largest boat",
      repeat(40, (i) =>
        findFault(model, { functions: { [model.functions[i % model.functions.length]!.id]: false }, components: {} }),
      ),
      50,
      "compute",
    ),
  ];
}

function createGraph(seed: number): LiveInput {
  const random = createRandom(seed);
  const node = () => `n${Math.floor(random() * 120)}`;
  return {
    batteries: Array.from({ length: 4 }, (_, i) => ({
      id: `b${i}`,
      node: node(),
      capacityAh: 100,
      chemistry: "agm",
      chargeShare: random(),
    })),
    switches: Array.from({ length: 20 }, (_, i) => ({
      id: `s${i}`,
      positions: ["off", "on"],
      position: random() < 0.5 ? "on" : "off",
    })),
    links: Array.from({ length: 200 }, (_, i) => ({
      id: `l${i}`,
      a: node(),
      b: node(),
      ...(i % 3 === 0
        ? { kind: "switch" as const, switch: `s${i % 20}`, closedIn: ["on"] }
        : { kind: "wire" as const }),
    })),
    loads: Array.from({ length: 60 }, (_, i) => ({
      id: `x${i}`,
      node: node(),
      amps: random() * 10,
      on: random() < 0.5,
    })),
  };
}

function createQuestion(seed: number): Parameters<typeof diagnose>[0] {
  const random = createRandom(seed);
  const components = Array.from({ length: 120 }, (_, i) => ({
    id: `c${i}`,
    prior: 0.01 + random() * 0.2,
    minutesToCheck: 1 + random() * 9,
  }));
  const functions = Array.from({ length: 60 }, (_, i) => ({
    id: `f${i}`,
    needs: components.filter(() => random() < 0.15).map(({ id }) => id),
  })).filter(({ needs }) => needs.length > 0);
  // Three parts are broken; what needs none of them works, and half of it is known to.
  const broken = new Set(["c3", "c40", "c99"]);
  const observed = functions
    .map(({ id, needs }) => ({ function: id, works: !needs.some((need) => broken.has(need)) }))
    .filter(({ works }, i) => !works || i % 2 === 0);
  return { components, functions, observed, maxFaults: 3 };
}
