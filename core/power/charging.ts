import { createTell, type Tell } from "../language/index.ts";
import type { Rig } from "../rig/index.ts";
import { conducts, joinNodes } from "./joinNodes.ts";
import { askLive, type PowerSetting } from "./powerState.ts";
import { nodeOf } from "./wireRig.ts";

/** What charges now: engines that run, by id, and whether shore power is in. */
export interface ChargeSources {
  readonly engines: readonly string[];
  readonly shore: boolean;
}

export interface Charging {
  readonly battery: string;
  /** What charges it, in words; empty: nothing does. */
  readonly by: readonly string[];
}

/**
 * Which banks are charged, as the scheme has it. A graph of its own, for current goes one way here: from an alternator to the
 * bus of its engine and what the switches join to it, through an isolator to every bank but a bow motor's, and from the shore
 * charger to every bank. An isolator lets nothing back, so it is never a link of `live`. Engines without a starter charge
 * nothing that is counted on.
 */
export function listCharging(
  rig: Rig,
  setting: PowerSetting,
  sources: ChargeSources,
  tell: Tell = createTell(null),
): Charging[] {
  const input = askLive(rig, setting);
  const position = new Map(input.switches.map((each) => [each.id, each.position]));
  const groupOf = joinNodes(input.links.filter((link) => conducts(link, position)));
  const has = (kind: "isolator" | "charger") => rig.parts.find((part) => part.kind === kind);
  const [isolator, charger] = [has("isolator"), has("charger")];
  const running = rig.engines.filter(({ id, start }) => sources.engines.includes(id) && start !== "pull");
  return rig.batteries.map(({ id, use }) => {
    const isLoose = setting.loose.includes(id);
    const by: string[] = [];
    for (const engine of isLoose ? [] : running) {
      const isJoined = groupOf(nodeOf.battery(id)) === groupOf(busOfEngine(rig, engine.id));
      if (isJoined) by.push(tell.label(engine.label));
      else if (isolator !== undefined && use !== "bow-motor")
        by.push(tell("{0}, through the isolator", tell.label(engine.label)));
    }
    if (sources.shore && charger !== undefined && !isLoose) by.push(tell.label(charger.label));
    return { battery: id, by };
  });
}

/** The node an engine's alternator feeds: the bus of the battery it starts from. */
function busOfEngine(rig: Rig, engine: string): string {
  if (rig.powerScheme === "one-two-both") return nodeOf.bus("main");
  const banks = rig.batteries.filter(({ use }) => use !== "bow-motor");
  const place = rig.engines.filter(({ kind }) => kind !== "kicker").findIndex(({ id }) => id === engine);
  const starts = banks.filter(({ use }) => use === "start");
  const own = banks.find(({ id }) => id === engine) ?? starts[Math.max(0, place)] ?? starts[0] ?? banks[0];
  return nodeOf.bus(own?.id ?? "main");
}
