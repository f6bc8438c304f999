import type { Rig } from "../rig/index.ts";
import type { LiveInput } from "./liveContract.ts";

export type Wiring = NonNullable<Rig["wiring"]>;
export type WiringLink = Wiring[number];

/** Names of the nodes of a rig's wiring. */
export const nodeOf = {
  battery: (id: string) => `battery:${id}`,
  load: (id: string) => `load:${id}`,
  bus: (id: string) => `bus:${id}`,
  feed: (breaker: string) => `feed:${breaker}`,
} as const;

/**
 * The wiring as the selector scheme has it, from battery to load: each bank through its switch to a bus, each breaker from
 * the bus of the battery its loads are fed from, panel switches between a breaker and what they power, and straight from the
 * battery what stays live with everything off. An isolator or charger joins nothing: current does not run back through it.
 */
export function createWiring(rig: Rig): Wiring {
  const links: WiringLink[] = [...wireSelectors(rig), ...wireBowMotor(rig)];
  const loads = new Map(rig.loads.map((load) => [load.id, load]));
  for (const breaker of rig.breakers) {
    const fed = breaker.feeds.flatMap((id) => loads.get(id) ?? []);
    for (const battery of new Set(fed.filter(isStraight(rig)).map((load) => feederOf(rig, load)))) {
      if (battery === null) continue;
      const feed = nodeOf.feed(`${breaker.id}-${battery}`);
      const kind = "breaker" as const;
      links.push({ id: `${breaker.id}-${battery}`, kind, a: nodeOf.battery(battery), b: feed });
      for (const load of fed)
        if (isStraight(rig)(load) && feederOf(rig, load) === battery) links.push(...wireLoad(rig, load.id, feed));
    }
    const switched = fed.filter((load) => !isStraight(rig)(load));
    const first = switched[0];
    if (first === undefined) continue;
    const feed = nodeOf.feed(breaker.id);
    links.push({ id: breaker.id, kind: "breaker", a: busOf(rig, first), b: feed });
    for (const load of switched) links.push(...wireLoad(rig, load.id, feed));
  }
  return links;
}

/** The question `live` asks, of a rig with its switches where `positions` has them (first position where it says nothing). */
export function toLiveInput(
  rig: Rig,
  positions: Readonly<Record<string, string>>,
  charge: Readonly<Record<string, number>> = {},
  on: (loadId: string) => boolean = () => true,
): LiveInput {
  const switches = listSwitches(rig);
  return {
    batteries: rig.batteries.map(({ id, capacityAh, chemistry }) => ({
      id,
      node: nodeOf.battery(id),
      capacityAh,
      chemistry,
      chargeShare: charge[id] ?? 1,
    })),
    switches: switches.map(({ id, positions: all, springsBack }) => ({
      id,
      positions: springsBack ? [...all, atRest] : all,
      position: positions[id] ?? (springsBack ? atRest : all[0]!),
    })),
    links: [...(rig.wiring ?? createWiring(rig))],
    loads: rig.loads.map(({ id, amps }) => ({ id, node: nodeOf.load(id), amps, on: on(id) })),
  };
}

/** Where a switch stands that powers something in each of its positions: nobody's hand is on it. */
export const atRest = "at rest";

/** Which breaker or fuse a link of the wiring is: one that also feeds past a switch has a link for each battery (`createWiring`). */
export const findBreaker = (rig: Rig, link: string): Rig["breakers"][number] | undefined =>
  rig.breakers.find(({ id }) => link === id) ??
  rig.breakers.find(({ id }) => rig.batteries.some((battery) => link === `${id}-${battery.id}`));

/** Every switch that the wiring can name: selectors and panel switches, with their positions' names. */
export function listSwitches(rig: Rig): { id: string; label: string; positions: string[]; springsBack: boolean }[] {
  return [
    ...rig.powerSwitches.map(({ id, label, positions }) => ({
      id,
      label,
      positions: positions.map((position) => position.label),
      springsBack: false,
    })),
    ...rig.panel.flatMap(({ id, label, positions }, i) =>
      positions.length === 0
        ? []
        : [
            {
              id,
              label: label ?? `Switch ${i + 1}`,
              positions: positions.map((position) => position.label),
              springsBack: positions.every(({ powers }) => powers.length > 0),
            },
          ],
    ),
  ];
}

/** Nodes that the wiring may join: batteries, buses, feeds and loads, those of the links first made. */
export function listNodes(rig: Rig): string[] {
  const named = (rig.wiring ?? createWiring(rig)).flatMap(({ a, b }) => [a, b]);
  const own = [
    ...rig.batteries.map(({ id }) => nodeOf.battery(id)),
    ...rig.loads.map(({ id }) => nodeOf.load(id)),
    nodeOf.bus("main"),
  ];
  return [...new Set([...own, ...named])].sort();
}

function wireSelectors(rig: Rig): WiringLink[] {
  const banks = rig.batteries.filter(({ use }) => use !== "bow-motor");
  const link = (id: string, a: string, b: string, of: Rig["powerSwitches"][number], closed: readonly number[]) => ({
    id,
    kind: "switch" as const,
    a,
    b,
    switch: of.id,
    closedIn: closed.flatMap((i) => of.positions[i]?.label ?? []),
  });
  if (rig.powerScheme === "one-two-both") {
    const selector = rig.powerSwitches[0];
    if (selector === undefined) return [];
    const { alone, both } = readSelector(selector);
    return banks
      .slice(0, 2)
      .map(({ id }, i) =>
        link(`${selector.id}-${i + 1}`, nodeOf.battery(id), nodeOf.bus("main"), selector, [alone[i] ?? i + 1, both]),
      );
  }
  const hasParallel = rig.powerScheme !== "single" && rig.powerSwitches.length > 1;
  const parallel = hasParallel ? rig.powerSwitches.at(-1) : undefined;
  const banked = rig.powerSwitches.filter((each) => each !== parallel);
  const links = banked.flatMap((each, i) => {
    const bank = banks[i];
    return bank === undefined ? [] : [link(each.id, nodeOf.battery(bank.id), nodeOf.bus(bank.id), each, [1])];
  });
  if (parallel === undefined) return links;
  const joined = banks
    .slice(1)
    .map(({ id }, i) =>
      link(`${parallel.id}-${i + 1}`, nodeOf.battery(banks[0]!.id), nodeOf.battery(id), parallel, [1]),
    );
  return [...links, ...joined];
}

/** Which positions of a selector are one battery alone, and which is both: by their names, for the order round it differs. */
function readSelector({ positions }: Rig["powerSwitches"][number]): { alone: number[]; both: number } {
  const named = positions.findIndex(({ label }) => /both|all|1\s*[+&]\s*2/i.test(label));
  const both = named < 0 ? positions.length - 1 : named;
  const alone = positions.map((_, i) => i).filter((i) => i !== both && !/off/i.test(positions[i]!.label));
  return { alone, both };
}

/** Batteries of a bow motor stand in a row, apart from the boat's own. */
function wireBowMotor(rig: Rig): WiringLink[] {
  const bank = rig.batteries.filter(({ use }) => use === "bow-motor");
  return bank.slice(1).map(({ id }, i) => ({
    id: `bow-row-${i + 1}`,
    kind: "wire" as const,
    a: nodeOf.battery(bank[i]!.id),
    b: nodeOf.battery(id),
  }));
}

function wireLoad(rig: Rig, load: string, feed: string): WiringLink[] {
  const switches = rig.panel.filter(({ positions }) => positions.some(({ powers }) => powers.includes(load)));
  if (switches.length === 0) return [{ id: `${feed}-${load}`, kind: "wire", a: feed, b: nodeOf.load(load) }];
  return switches.map(({ id, positions }) => ({
    id: `${id}-${load}`,
    kind: "switch",
    a: feed,
    b: nodeOf.load(load),
    switch: id,
    closedIn: positions.filter(({ powers }) => powers.includes(load)).map(({ label }) => label),
  }));
}

type Load = Rig["loads"][number];

/** Fed straight from a battery, past its switch: what is always live, and a bow motor. */
const isStraight =
  (rig: Rig) =>
  (load: Load): boolean =>
    load.always || rig.batteries.some(({ id, use }) => id === load.from && use === "bow-motor");

/** The battery a load is fed from: as the rig says, else the house battery, else the first. */
function feederOf(rig: Rig, load: Load): string | null {
  const named = rig.batteries.find(({ id }) => id === load.from);
  const house = rig.batteries.find(({ use }) => use === "house");
  return (named ?? house ?? rig.batteries[0])?.id ?? null;
}

function busOf(rig: Rig, load: Load): string {
  if (rig.powerScheme === "one-two-both") return nodeOf.bus("main");
  const feeder = feederOf(rig, load);
  const banks = rig.batteries.filter(({ use }) => use !== "bow-motor");
  // With one switch there is one bus, whatever the load says.
  if (rig.powerScheme === "single") return nodeOf.bus(banks[0]?.id ?? "main");
  return nodeOf.bus(feeder ?? "main");
}
