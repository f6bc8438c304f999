import { createTell, type Tell } from "../language/index.ts";
import type { Rig } from "../rig/index.ts";
import { conducts, joinNodes } from "./joinNodes.ts";
import { live } from "./live.ts";
import type { LiveInput } from "./liveContract.ts";
import { atRest, createWiring, findBreaker, listSwitches, nodeOf, toLiveInput } from "./wireRig.ts";

/** How a boat's power stands: where its switches are, and what is wrong with it. */
export interface PowerSetting {
  /** Position of each switch, by its id; the first where it says nothing. */
  readonly positions: Readonly<Record<string, string>>;
  /** Breakers that tripped and fuses that are out, by the breaker's id. */
  readonly tripped: readonly string[];
  /** Batteries with a clamp off. */
  readonly loose: readonly string[];
  /** Loads whose wire is off or loose, by id; none where it says nothing. */
  readonly wiresOff?: readonly string[];
  /** Charge of each battery, 0 to 1; full where it says nothing. */
  readonly charge: Readonly<Record<string, number>>;
}

/** Why a load has power, or has none. */
export interface PowerReason {
  readonly load: string;
  readonly isLive: boolean;
  /** The batteries that carry it. */
  readonly batteries: readonly string[];
  /** What the current passes from the battery on: breakers and switches in their positions, in words. */
  readonly through: readonly string[];
  /** What stands in the way, nearest to the battery first; in words. Of a dead load alone. */
  readonly missing: readonly string[];
  /** Live with every switch of the boat off. */
  readonly staysLive: boolean;
}

type Link = LiveInput["links"][number];

/** The question of `live` for a boat as it stands: tripped breakers pass nothing, what has a loose clamp or its wire off joins nothing. */
export function askLive(rig: Rig, setting: PowerSetting, on: (load: string) => boolean = () => true): LiveInput {
  const input = toLiveInput(rig, setting.positions, setting.charge, on);
  const loose = new Set([...setting.loose.map(nodeOf.battery), ...(setting.wiresOff ?? []).map(nodeOf.load)]);
  return {
    ...input,
    links: input.links
      .filter(({ a, b }) => !loose.has(a) && !loose.has(b))
      .map((link) => (isTripped(rig, link, setting) ? { ...link, tripped: true } : link)),
  };
}

/** A breaker that also feeds past a switch has a wire for each: they trip together. */
const isTripped = (rig: Rig, { id, kind }: Link, { tripped }: PowerSetting): boolean =>
  (kind === "breaker" || kind === "fuse") && tripped.includes(findBreaker(rig, id)?.id ?? id);

/** The setting of a boat that is left: every switch off, but those of what must stay live (a float pump at Auto). */
export function turnAllOff(rig: Rig, setting: PowerSetting): PowerSetting {
  const always = new Set(rig.loads.filter((load) => load.always).map(({ id }) => id));
  const off = [
    ...rig.powerSwitches.map(({ id, positions }) => [id, positions[0]!.label] as const),
    ...rig.panel.flatMap(({ id, positions }) => {
      const stays = positions.find(({ powers }) => powers.length > 0 && powers.every((load) => always.has(load)));
      const dead = positions.filter(({ powers }) => powers.length === 0);
      const least = stays ?? dead.find(({ label }) => /off/i.test(label)) ?? dead[0];
      return least === undefined ? [] : [[id, least.label] as const];
    }),
  ];
  return { ...setting, positions: Object.fromEntries(off) };
}

/** Every load of a boat with why it has power or has none, in the order of the rig and in the words of `tell`. */
export function explainPower(rig: Rig, setting: PowerSetting, tell: Tell = createTell(null)): PowerReason[] {
  const input = askLive(rig, setting);
  const position = new Map(input.switches.map((each) => [each.id, each.position]));
  const closed = input.links.filter((link) => conducts(link, position));
  const groupOf = joinNodes(closed);
  const charged = input.batteries.filter(({ chargeShare }) => chargeShare > 0);
  const always = new Set(live(askLive(rig, turnAllOff(rig, setting))).live);
  const say = createSayer(rig, setting, tell);
  return rig.loads.map(({ id }) => {
    const node = nodeOf.load(id);
    const batteries = charged.filter((battery) => groupOf(battery.node) === groupOf(node)).map((each) => each.id);
    const isLive = batteries.length > 0;
    const way = findWay(rig, setting, node, isLive ? closed : (rig.wiring ?? createWiring(rig)), position);
    const said = (link: Link) => say(link) ?? [];
    return {
      load: id,
      isLive,
      batteries,
      through: isLive && way !== null ? way.links.flatMap(said) : [],
      missing: isLive
        ? []
        : way === null
          ? [tell("no wire leads to it")]
          : listMissing(way, setting, position, rig, id).flatMap(said),
      staysLive: always.has(id),
    };
  });
}

/** The links with current on them: those that pass it, on the side of a charged battery. By id. */
export function listLiveLinks(rig: Rig, setting: PowerSetting): ReadonlySet<string> {
  const input = askLive(rig, setting);
  const position = new Map(input.switches.map((each) => [each.id, each.position]));
  const closed = input.links.filter((link) => conducts(link, position));
  const groupOf = joinNodes(closed);
  const charged = new Set(
    input.batteries.filter(({ chargeShare }) => chargeShare > 0).map(({ node }) => groupOf(node)),
  );
  return new Set(closed.filter(({ a }) => charged.has(groupOf(a))).map(({ id }) => id));
}

/** What feeds a load, whether it passes current now or not: its battery, battery switches, breakers and panel switches, by id. */
export function findFeed(rig: Rig, load: string | null) {
  const plain: PowerSetting = { positions: {}, tripped: [], loose: [], charge: {} };
  const links = rig.wiring ?? createWiring(rig);
  const way = load === null ? null : findWay(rig, plain, nodeOf.load(load), links, new Map());
  const has = (list: readonly { id: string }[], id: string | undefined) => list.some((each) => each.id === id);
  const passed = way?.links ?? [];
  const ids = new Set(passed.map((link) => findBreaker(rig, link.id)?.id));
  const breakers = rig.breakers.filter(({ id }) => ids.has(id));
  const switches = passed.flatMap((link) => (link.kind === "switch" && link.switch !== undefined ? [link.switch] : []));
  return {
    battery: way?.battery ?? null,
    switches: switches.filter((id) => has(rig.powerSwitches, id)),
    panel: switches.filter((id) => has(rig.panel, id)),
    breakers: breakers.map(({ id }) => id),
  };
}

interface Way {
  /** From the battery to the load. */
  readonly links: readonly Link[];
  readonly battery: string;
}

/** The way from a battery to a node on which the least stands in the way; of several, the shortest. */
function findWay(
  rig: Rig,
  setting: PowerSetting,
  node: string,
  links: readonly Link[],
  position: ReadonlyMap<string, string>,
): Way | null {
  const near = new Map<string, Link[]>();
  for (const link of links) for (const end of [link.a, link.b]) near.set(end, [...(near.get(end) ?? []), link]);
  const isOpen = (link: Link) => isTripped(rig, link, setting) || !conducts(link, position);
  // An open link weighs more than any number of closed ones.
  const open = links.length + 1;
  const best = new Map<string, { cost: number; link: Link | null }>([[node, { cost: 0, link: null }]]);
  const waiting = [node];
  for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
    const { cost } = best.get(at)!;
    for (const link of near.get(at) ?? []) {
      const next = link.a === at ? link.b : link.a;
      const total = cost + 1 + (isOpen(link) ? open : 0);
      if (total >= (best.get(next)?.cost ?? Number.POSITIVE_INFINITY)) continue;
      best.set(next, { cost: total, link });
      waiting.push(next);
    }
  }
  const ends = rig.batteries
    .flatMap(({ id }) => {
      const found = best.get(nodeOf.battery(id));
      const isEmpty = (setting.charge[id] ?? 1) <= 0 || setting.loose.includes(id);
      return found === undefined ? [] : [{ id, cost: found.cost + (isEmpty ? open : 0) }];
    })
    .sort((a, b) => a.cost - b.cost);
  const [end] = ends;
  if (end === undefined) return null;
  const way: Link[] = [];
  for (let at = nodeOf.battery(end.id); at !== node; ) {
    const link = best.get(at)!.link!;
    way.push(link);
    at = link.a === at ? link.b : link.a;
  }
  return { links: way, battery: end.id };
}

/** What is open on a way, as links; a loose or empty battery as a link of its own name. */
function listMissing(
  { links, battery }: Way,
  setting: PowerSetting,
  position: ReadonlyMap<string, string>,
  rig: Rig,
  load: string,
): Link[] {
  const isDown = setting.loose.includes(battery) || (setting.charge[battery] ?? 1) <= 0;
  const node = nodeOf.battery(battery);
  const own: Link[] = isDown ? [{ id: node, kind: "wire", a: node, b: node }] : [];
  // A load with no battery aboard has nothing to be fed from.
  if (rig.batteries.length === 0) return [];
  const end = nodeOf.load(load);
  const off: Link[] = setting.wiresOff?.includes(load) === true ? [{ id: end, kind: "wire", a: end, b: end }] : [];
  return [...own, ...links.filter((link) => isTripped(rig, link, setting) || !conducts(link, position)), ...off];
}

/** A link in words, for this setting: "Lights breaker, 15 A"; "Nav / anchor at Off". Plain wires say nothing. */
function createSayer(rig: Rig, setting: PowerSetting, tell: Tell): (link: Link) => string | null {
  const switches = new Map(listSwitches(rig).map((each) => [each.id, each]));
  const batteries = new Map(rig.batteries.map((each) => [nodeOf.battery(each.id), each]));
  const loads = new Map(rig.loads.map((each) => [nodeOf.load(each.id), each]));
  return (link) => {
    const battery = link.a === link.b ? batteries.get(link.a) : undefined;
    if (battery !== undefined)
      return setting.loose.includes(battery.id)
        ? tell("a clamp of {0} is off", tell.label(battery.label))
        : tell("{0} is empty", tell.label(battery.label));
    const load = link.a === link.b ? loads.get(link.a) : undefined;
    if (load !== undefined) return tell("the wire at {0} is off", tell.label(load.label));
    if (link.kind === "switch") {
      const found = switches.get(link.switch ?? "");
      if (found === undefined) return null;
      const position = setting.positions[found.id] ?? (found.springsBack ? atRest : found.positions[0]!);
      // What stands on a switch is found by what stands on it.
      return position === atRest ? `${found.label} ${tell(atRest)}` : tell("{0} at {1}", found.label, position);
    }
    if (link.kind === "wire") return null;
    const breaker = findBreaker(rig, link.id);
    const says = breaker === undefined ? link.id : `${tell.label(breaker.label)}, ${breaker.ratingA} A`;
    return isTripped(rig, link, setting) ? tell("{0}, tripped", says) : says;
  };
}
