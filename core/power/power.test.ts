import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { rigTemplates } from "../../content/index.ts";
import { createRandom } from "../random.ts";
import { rigSchema } from "../rig/index.ts";
import {
  createWiring,
  explainPower,
  findFeed,
  type LiveInput,
  listNodes,
  listSwitches,
  live,
  liveInputSchema,
  toLiveInput,
  underWay,
} from "./index.ts";

const cases = readFileSync(new URL("./cases.ndjson", import.meta.url), "utf8")
  .trim()
  .split("\n")
  .map((line) => JSON.parse(line) as { input: unknown; output: ReturnType<typeof live> });

describe("live", () => {
  it.each(cases.map((each, i) => [i + 1, each] as const))("answers worked example %i", (_, { input, output }) => {
    const answer = live(liveInputSchema.parse(input));
    expect(answer.live).toEqual(output.live);
    expect(answer.dead).toEqual(output.dead);
    expect(Object.keys(answer.drawA)).toEqual(Object.keys(output.drawA));
    for (const [id, amps] of Object.entries(output.drawA)) expect(answer.drawA[id]).toBeCloseTo(amps, 9);
  });

  /** The slow way: walk from each load over conducting links until a charged battery is met. */
  function reaches(input: LiveInput, node: string): Set<string> {
    const seen = new Set([node]);
    for (let grew = true; grew; ) {
      grew = false;
      for (const link of input.links) {
        const position = input.switches.find(({ id }) => id === link.switch)?.position;
        const closed =
          link.kind === "wire" ||
          (link.kind === "switch" ? (link.closedIn ?? []).includes(position ?? "?") : link.tripped !== true);
        if (!closed || seen.has(link.a) === seen.has(link.b)) continue;
        seen.add(link.a).add(link.b);
        grew = true;
      }
    }
    return seen;
  }

  it("agrees with walking every wire, and every amp drawn comes from some battery", () => {
    const random = createRandom(31);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
    const nodes = ["a", "b", "c", "d", "e", "f"];
    for (let seed = 0; seed < 200; seed++) {
      const input: LiveInput = {
        batteries: ["x", "y"].map((id) => ({
          id,
          node: pick(nodes),
          capacityAh: 50 + random() * 100,
          chemistry: "agm",
          chargeShare: pick([0, 0.4, 1]),
        })),
        switches: [{ id: "s", positions: ["off", "on"], position: pick(["off", "on"]) }],
        links: Array.from({ length: 5 }, (_, i) => {
          const kind = pick(["wire", "fuse", "breaker", "switch"] as const);
          const of = kind === "switch" ? { switch: "s", closedIn: ["on"] } : { tripped: random() < 0.3 };
          return { id: `l${i}`, a: pick(nodes), b: pick(nodes), kind, ...of };
        }),
        loads: nodes.map((node, i) => ({ id: `u${i}`, node, amps: i + 1, on: random() < 0.7 })),
      };
      const answer = live(input);
      let drawnA = 0;
      for (const load of input.loads) {
        const near = reaches(input, load.node);
        const isLive = input.batteries.some(({ node, chargeShare }) => near.has(node) && chargeShare > 0);
        expect(answer.live.includes(load.id), `seed ${seed} ${load.id}`).toBe(isLive);
        if (isLive && load.on) drawnA += load.amps;
      }
      const sum = Object.values(answer.drawA).reduce((all, amps) => all + amps, 0);
      expect(sum, `seed ${seed}`).toBeCloseTo(drawnA, 9);
    }
  });
});

describe.each(Object.entries(rigTemplates))("the wiring of %s", (_, rig) => {
  const allOff = Object.fromEntries(rig.powerSwitches.map(({ id, positions }) => [id, positions[0]!.label]));
  const underWay = Object.fromEntries(rig.powerSwitches.map(({ id, positions }) => [id, positions[1]!.label]));

  it("is one that `live` takes, and that the rig can hold", () => {
    expect(liveInputSchema.safeParse(toLiveInput(rig, {})).error).toBeUndefined();
    expect(rigSchema.safeParse({ ...rig, wiring: createWiring(rig) }).error).toBeUndefined();
    expect(new Set(createWiring(rig).map(({ id }) => id)).size).toBe(createWiring(rig).length);
  });

  it("with every selector off leaves live what is always live, and nothing of the boat's own but that", () => {
    const panelOn = Object.fromEntries(
      rig.panel.flatMap(({ id, positions }) => (positions[0] ? [[id, positions[0].label]] : [])),
    );
    const { live: still } = live(toLiveInput(rig, { ...panelOn, ...allOff }));
    const bow = rig.batteries.filter(({ use }) => use === "bow-motor").map(({ id }) => id);
    const own = still.filter((id) => !bow.includes(rig.loads.find((load) => load.id === id)!.from ?? ""));
    const panelled = new Set(rig.panel.flatMap(({ positions }) => positions.flatMap(({ powers }) => powers)));
    for (const id of own) expect(rig.loads.find((load) => load.id === id)!.always, id).toBe(true);
    for (const { id, always } of rig.loads) if (always && !panelled.has(id)) expect(still, id).toContain(id);
  });

  it("under way can power everything that a switch or breaker serves", () => {
    const reachable = new Set<string>();
    const most = Math.max(...listSwitches(rig).map(({ positions }) => positions.length));
    for (let i = 0; i < most; i++) {
      const panel = Object.fromEntries(
        listSwitches(rig).map(({ id, positions }) => [id, positions[Math.min(i, positions.length - 1)]!]),
      );
      for (const id of live(toLiveInput(rig, { ...panel, ...underWay })).live) reachable.add(id);
    }
    const fed = rig.breakers.flatMap(({ feeds }) => feeds);
    expect(fed.filter((id) => !reachable.has(id))).toEqual([]);
  });

  it("names every node once", () => {
    const nodes = listNodes(rig);
    expect(new Set(nodes).size).toBe(nodes.length);
    for (const { id } of rig.batteries) expect(nodes).toContain(`battery:${id}`);
  });
});

it("an emergency parallel lets the house battery start an engine", () => {
  const rig = rigTemplates["wending-23"];
  const on = Object.fromEntries(rig.powerSwitches.map(({ id, positions }) => [id, positions[1]!.label]));
  const parallel = rig.powerSwitches.at(-1)!;
  const flat = { port: 0, starboard: 0 };
  const apart = live(toLiveInput(rig, { ...on, [parallel.id]: parallel.positions[0]!.label }, flat));
  const joined = live(toLiveInput(rig, on, flat));
  expect(apart.dead).toContain("engine-port");
  expect(joined.live).toContain("engine-port");
});

it("a breaker that trips takes no other with it whose name begins as its own does", () => {
  const whole = rigTemplates["wending-23"];
  const [moved] = whole.breakers.find(({ id }) => id === "br-water")!.feeds;
  const breakers = whole.breakers.flatMap((each) =>
    each.id === "br-water"
      ? [
          { ...each, feeds: each.feeds.slice(1) },
          { ...each, id: "br-water-2", label: "Pumps 2", feeds: [moved!] },
        ]
      : [each],
  );
  const rig = { ...whole, breakers };
  const setting = { ...underWay(rig), tripped: ["br-water"], loose: [], charge: {} };
  const reasonOf = (load: string) => explainPower(rig, setting).find((each) => each.load === load)!;
  const other = rig.breakers.find(({ id }) => id === "br-water")!.feeds[0]!;
  expect(reasonOf(other).missing.join()).toContain("Pumps, 20 A, tripped");
  expect(reasonOf(moved!).missing.join()).not.toContain("tripped");
  expect(findFeed(rig, moved!).breakers).toEqual(["br-water-2"]);
});
