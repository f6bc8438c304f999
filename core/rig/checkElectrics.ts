import { type CheckAids, type Find, hasKind } from "./finding.ts";
import { namePart } from "./partGroups.ts";
import type { Rig } from "./rig.ts";
import { askedSupply, isSwitchedOnPanel } from "./worksBy.ts";

const needed = {
  single: { batteries: 1, switches: 1, says: "one battery" },
  "one-two-both": { batteries: 2, switches: 1, says: "two banks" },
  "engine-house-parallel": { batteries: 2, switches: 3, says: "an engine and a house battery" },
  "twin-engine-house-parallel": { batteries: 3, switches: 4, says: "two engine batteries and a house battery" },
} as const;

/** Batteries, their switches, charger and wiring. */
export function checkPower(rig: Rig, { unreachable }: CheckAids): Find[] {
  const finds: Find[] = [];
  const scheme = needed[rig.powerScheme];
  const own = rig.batteries.filter(({ use }) => use !== "bow-motor").length;
  if (own < scheme.batteries)
    finds.push({
      kind: "batteries-too-few",
      text: `This selector scheme has ${scheme.says}; ${own === 0 ? "none is" : `only ${own} ${own === 1 ? "is" : "are"}`} described`,
      item: null,
    });
  if (rig.powerSwitches.length === 0)
    finds.push({ kind: "power-switch-missing", text: "No battery switch is described", item: null });
  else if (scheme.switches > 1 && rig.powerSwitches.length < scheme.switches)
    finds.push({
      kind: "parallel-missing",
      text: `This scheme has ${scheme.switches} switches, the last one the emergency parallel; ${rig.powerSwitches.length} are described`,
      item: null,
    });
  const described = new Set(rig.batteries.map(({ part }) => part));
  for (const { id, kind, label } of rig.parts)
    if (kind === "battery" && !described.has(id))
      finds.push({
        kind: "battery-not-described",
        text: `${label} is on the plan without capacity and chemistry`,
        item: id,
      });
  for (const { id, label, usual } of rig.batteries)
    if (usual === true)
      finds.push({
        kind: "figure-not-read",
        text: `${label}: how many ampere-hours? Read them on its label, with its kind`,
        item: id,
      });
  const motor = rig.parts.find(({ kind }) => kind === "bow-motor");
  if (motor !== undefined && !rig.batteries.some(({ use }) => use === "bow-motor"))
    finds.push({
      kind: "bow-motor-without-bank",
      text: `${motor.label} has no batteries of its own here; if it runs off the house battery, say so there`,
      item: motor.id,
    });
  const charger = rig.parts.find(({ kind }) => kind === "charger");
  if (charger !== undefined && !hasKind(rig, "charger-socket"))
    finds.push({
      kind: "charger-without-socket",
      text: "The shore charger has no socket on the plan; where does the cord go in?",
      item: charger.id,
      place: "charger-socket",
    });
  const dead = new Set(unreachable(rig));
  for (const { id, label } of rig.loads)
    if (dead.has(id) && rig.breakers.some(({ feeds }) => feeds.includes(id)))
      finds.push({
        kind: "wiring-reaches-not",
        text: `As wired, no switch position brings power to ${label.toLowerCase()}`,
        item: id,
      });
  return finds;
}

/** The panel, and whether what draws power has a way to it. */
export function checkPanel(rig: Rig): Find[] {
  const finds: Find[] = [];
  const fed = new Set(rig.breakers.flatMap(({ feeds }) => feeds));
  const loads = new Map(rig.loads.map((load) => [load.id, load]));
  const switched = new Set(rig.panel.flatMap(({ positions }) => positions.flatMap(({ powers }) => powers)));
  rig.panel.forEach((item, i) => {
    const name = item.label ?? `Switch ${i + 1}`;
    if (item.label === null && item.note === undefined)
      finds.push({
        kind: "unlabelled-switch",
        text: `Switch ${i + 1} has no label; note what it does, so that nobody guesses`,
        item: item.id,
      });
    const wrong = findPositionFault(item);
    if (wrong !== null) finds.push({ kind: "positions-wrong", text: `${name}: ${wrong}`, item: item.id });
    const powers = new Set(item.positions.flatMap((position) => position.powers));
    for (const id of powers) {
      if (!fed.has(id))
        finds.push({
          kind: "switch-without-breaker",
          text: `${name} powers ${formatLoad(loads.get(id))}, which no breaker or fuse feeds`,
          item: item.id,
        });
      const serves = loads.get(id)?.serves ?? [];
      if (serves.length > 0 && !hasKind(rig, ...serves))
        finds.push({
          kind: "switch-without-option",
          text: `${name} runs ${serves.map(namePart).join(" or ")}, and none is on the plan`,
          item: item.id,
          place: serves[0]!,
        });
    }
  });
  for (const kind of askedSupply) {
    const part = rig.parts.find((each) => each.kind === kind);
    if (part === undefined) continue;
    const serving = rig.loads.filter(({ serves }) => serves?.includes(kind));
    if (serving.length === 0)
      finds.push({
        kind: "option-without-supply",
        text: `${part.label}: what feeds it is not described`,
        item: part.id,
      });
    else if (isSwitchedOnPanel(part) && !serving.some(({ id, always }) => switched.has(id) || always))
      finds.push({ kind: "option-without-switch", text: `${part.label}: which switch runs it?`, item: part.id });
  }
  return finds;
}

const formatLoad = (load: { label: string } | undefined) => load?.label.toLowerCase() ?? "something";

function findPositionFault({ kind, positions }: Rig["panel"][number]): string | null {
  const count = positions.length;
  if (kind === "lamp") return count === 0 ? null : "a lamp has no positions";
  if (kind === "two-position" && count !== 2) return `a two-position switch has two positions, not ${count}`;
  if (kind === "three-position" && count !== 3) return `a three-position switch has three positions, not ${count}`;
  if (kind === "three-position" && positions[1]!.powers.length > 0)
    return "the middle of a three-position switch is off; something is powered there";
  if (kind === "push-to-cycle" && count < 2) return "pushing goes through at least two states";
  return null;
}

/** Breakers and fuses, and what hangs on none. */
export function checkBreakers(rig: Rig): Find[] {
  const finds: Find[] = [];
  const loads = new Map(rig.loads.map((load) => [load.id, load]));
  const fed = new Set(rig.breakers.flatMap(({ feeds }) => feeds));
  const switched = new Set(rig.panel.flatMap(({ positions }) => positions.flatMap(({ powers }) => powers)));
  for (const { id, label, feeds, ratingA } of rig.breakers) {
    if (feeds.length === 0)
      finds.push({
        kind: "breaker-feeds-nothing",
        text: `${label} feeds nothing; what goes dead when it trips?`,
        item: id,
      });
    const biggest = Math.max(0, ...feeds.map((load) => loads.get(load)?.amps ?? 0));
    if (biggest > ratingA)
      finds.push({
        kind: "breaker-too-small",
        text: `${label} is ${ratingA} A and feeds something that draws ${biggest} A`,
        item: id,
      });
  }
  for (const { id, label } of rig.loads)
    if (!fed.has(id) && !switched.has(id))
      finds.push({ kind: "load-without-feed", text: `${label}: neither a breaker nor a switch leads to it`, item: id });
  return finds;
}
