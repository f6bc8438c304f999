import { conducts, joinNodes } from "./joinNodes.ts";
import type { LiveInput, LiveOutput } from "./liveContract.ts";

/**
 * What has power? Wires, untripped fuses and breakers, and switches in a closed position join nodes both ways; a load is live
 * where its node is joined to a battery with any charge left. `drawA` shares the amps of live loads that are on among the
 * batteries joined to them, by capacity × charge (contract `live`).
 *
 * @example one battery, a wire to a 2 A lamp that is on → {live: ["lamp"], dead: [], drawA: {battery: 2}}
 */
export function live({ batteries, switches, links, loads }: LiveInput): LiveOutput {
  const position = new Map(switches.map((each) => [each.id, each.position]));
  const groupOf = joinNodes(links.filter((link) => conducts(link, position)));
  const strength = new Map<string, number>();
  for (const battery of batteries) {
    const group = groupOf(battery.node);
    strength.set(group, (strength.get(group) ?? 0) + battery.capacityAh * battery.chargeShare);
  }
  const isLive = (node: string) => (strength.get(groupOf(node)) ?? 0) > 0;
  const amps = new Map<string, number>();
  for (const load of loads) {
    if (!load.on || !isLive(load.node)) continue;
    const group = groupOf(load.node);
    amps.set(group, (amps.get(group) ?? 0) + load.amps);
  }
  const drawA: Record<string, number> = {};
  for (const { id, node, capacityAh, chargeShare } of batteries) {
    const group = groupOf(node);
    const whole = strength.get(group)!;
    drawA[id] = whole === 0 ? 0 : ((amps.get(group) ?? 0) * capacityAh * chargeShare) / whole;
  }
  return {
    live: loads.filter(({ node }) => isLive(node)).map(({ id }) => id),
    dead: loads.filter(({ node }) => !isLive(node)).map(({ id }) => id),
    drawA,
  };
}
