import { sayPhrase } from "../language/index.ts";
import { findFeed } from "../power/index.ts";
import { type Idiom, tellLabel, tellText } from "../region/index.ts";
import { isMet, nameBattery, type Rig, sayPlace } from "../rig/index.ts";
import type { FaultContent, FaultKind, FaultMender } from "./faultContent.ts";

/** One component of one boat, with the words to look at it and to mend it. */
export interface FaultComponent {
  readonly id: string;
  readonly kind: string;
  readonly label: string;
  /** The part it is at, to be shown on the plan; null where none is described. */
  readonly part: string | null;
  readonly prior: number;
  readonly minutes: number;
  readonly check: string;
  readonly mend: string;
  readonly caution: string | null;
  readonly who: FaultMender;
  /** Only the yard looks at it. */
  readonly isForYard: boolean;
}
export interface FaultFunction {
  readonly id: string;
  readonly label: string;
  readonly asks: string;
  /** Said before it is tried. */
  readonly caution: string | null;
  readonly needs: readonly string[];
  readonly words: readonly string[];
  /** Stations it is thought of at: where what it runs is, or as the content says. */
  readonly stations: readonly string[];
  /** Functions that some words say something of as well. */
  readonly clues: readonly { readonly says: string; readonly function: string; readonly works: boolean }[];
}
/** What a boat does and what each of it needs. */
export interface FaultModel {
  readonly components: readonly FaultComponent[];
  readonly functions: readonly FaultFunction[];
}

/** What a load needs beside its feed. */
const loadKinds = ["device-dead", "plug-corroded"] as const;

/**
 * The functions of a boat and the components each needs, made from its rig and the kinds that ship (`content/faults.json`).
 * What the boat does not have is in nobody's way; loads that no function speaks of get one of their own.
 */
export function buildFaultModel(rig: Rig, content: FaultContent, idiom: Idiom): FaultModel {
  const components = new Map<string, FaultComponent>();
  const kinds = new Map(content.kinds.map((kind) => [kind.id, kind]));
  const tell = (text: string) => tellText(text, idiom);
  const add = (kindId: string, of: Thing | null): string[] => {
    const kind = kinds.get(kindId);
    if (kind === undefined || (kind.when !== undefined && !isMet(kind.when, rig))) return [];
    const id = of === null ? kindId : `${kindId}:${of.id}`;
    if (!components.has(id)) components.set(id, createComponent(rig, kind, id, of, idiom));
    return [id];
  };
  const needsOfLoad = (load: string): string[] => {
    const { battery, switches, breakers, panel } = findFeed(rig, load);
    const thing = rig.loads.find(({ id }) => id === load)!;
    return [
      ...switches.flatMap((id) => add("battery-switch", thingOf(rig.powerSwitches, id))),
      ...(battery === null
        ? []
        : [
            ...add("bank-low", thingOf(rig.batteries, battery)),
            ...add("clamp-loose", thingOf(rig.batteries, battery)),
          ]),
      ...breakers.flatMap((id) => add("breaker-out", thingOf(rig.breakers, id))),
      ...panel.flatMap((id) => add("switch-off", thingOf(rig.panel, id))),
      ...loadKinds.flatMap((kind) => add(kind, thing)),
    ];
  };
  const covered = new Set<string>();
  const functions: FaultFunction[] = [];
  for (const each of content.functions) {
    if (each.when !== undefined && !isMet(each.when, rig)) continue;
    const loads = each.load === undefined ? [] : findLoads(rig, each.load, each.named);
    if (each.load !== undefined && loads.length === 0) continue;
    for (const load of loads) covered.add(load);
    const engines = each.per === "engine" ? rig.engines.filter((engine) => suits(each, engine)) : [null];
    for (const engine of engines) {
      const needs = each.needs.flatMap((kind) => resolve(rig, kinds.get(kind)!, engine, add));
      const name = engine === null ? "" : tellLabel(engine.label, idiom);
      const asks = tell(each.asks);
      functions.push({
        id: engine === null ? each.id : `${each.id}:${engine.id}`,
        label: tell(each.label).replace("{label}", name),
        asks: engine !== null && rig.engines.length > 1 ? `${name}: ${asks}` : asks,
        caution: each.caution === undefined ? null : tell(each.caution),
        needs: [...new Set([...needs, ...loads.flatMap(needsOfLoad)])],
        words: each.words ?? [],
        stations: rig.stations.filter((station) => isAt(rig, each, station)).map(({ id }) => id),
        clues: (each.clues ?? []).map((clue) => ({
          ...clue,
          function: engine === null ? clue.function : `${clue.function}:${engine.id}`,
        })),
      });
    }
  }
  for (const { id, label } of rig.loads) {
    if (covered.has(id) || /harness|memory|feed$/i.test(label)) continue;
    functions.push({
      id: `load:${id}`,
      label: sayPhrase(idiom.book, label.endsWith("s") ? "{0} work" : "{0} works", tellLabel(label, idiom)),
      asks: sayPhrase(idiom.book, "Does this work: {0}?", tellLabel(label, idiom)),
      caution: null,
      needs: needsOfLoad(id),
      words: [],
      stations: [],
      clues: [],
    });
  }
  const used = new Set(functions.flatMap(({ needs }) => needs));
  return {
    components: [...components.values()].filter(({ id }) => used.has(id)),
    functions: functions.filter(({ needs }) => needs.length > 0),
  };
}

const isAt = (rig: Rig, { at = [], load }: FaultContent["functions"][number], { id, kind }: Rig["stations"][number]) =>
  at.includes(kind) || rig.parts.some((part) => part.station === id && part.kind === load);

const suits = ({ electric }: { electric?: boolean | undefined }, engine: Rig["engines"][number]): boolean =>
  electric !== true || engine.start !== "pull";

interface Thing {
  readonly id: string;
  readonly label: string | null;
  readonly part?: string | undefined;
}
const thingOf = (list: readonly Thing[], id: string): Thing => {
  const found = list.find((each) => each.id === id)!;
  return { ...found, label: found.label ?? `Switch ${list.indexOf(found) + 1}` };
};

const findLoads = (rig: Rig, serves: string, named: string | undefined): string[] =>
  rig.loads
    .filter((load) => load.serves?.some((kind) => kind === serves))
    .filter(({ label }) => named === undefined || new RegExp(named, "i").test(label))
    .map(({ id }) => id);

/** A kind that a function needs, as the components of this boat: of its engine where it is of one. */
function resolve(
  rig: Rig,
  kind: FaultKind,
  engine: Rig["engines"][number] | null,
  add: (kind: string, of: Thing | null) => string[],
): string[] {
  // Nobody turns a key to start an engine by its cord.
  if (engine !== null && !suits(kind, engine)) return [];
  if (kind.per === "boat") return add(kind.id, null);
  if (kind.per === "engine") {
    const engines = engine === null ? rig.engines.filter((each) => suits(kind, each)) : [engine];
    return engines.flatMap((each) => add(kind.id, each));
  }
  if (engine?.start === "pull") return [];
  const feed = findFeed(rig, harnessOf(rig, engine));
  if (kind.per === "battery-switch") return feed.switches.flatMap((id) => add(kind.id, thingOf(rig.powerSwitches, id)));
  if (kind.per === "breaker") return feed.breakers.flatMap((id) => add(kind.id, thingOf(rig.breakers, id)));
  if (kind.per === "battery") {
    const house = rig.batteries.find(({ use }) => use === "house") ?? rig.batteries[0];
    const battery = engine === null ? (house?.id ?? null) : (feed.battery ?? house?.id ?? null);
    return battery === null ? [] : add(kind.id, thingOf(rig.batteries, battery));
  }
  return [];
}

/** The load that stands for an engine's key and starter. */
function harnessOf(rig: Rig, engine: Rig["engines"][number] | null): string | null {
  const harnesses = rig.loads.filter(({ id, label }) => /harness/i.test(label) || id.startsWith("engine"));
  const own = harnesses.find(({ id }) => engine !== null && id.endsWith(engine.id));
  return (own ?? harnesses[0])?.id ?? null;
}

const engraved: ReadonlySet<FaultKind["per"]> = new Set(["panel", "battery-switch"]);

function createComponent(rig: Rig, kind: FaultKind, id: string, of: Thing | null, idiom: Idiom): FaultComponent {
  const atKind = rig.parts.find((part) => part.kind === kind.of);
  const part = rig.parts.find((each) => each.id === of?.part) ?? atKind ?? null;
  const tell = (text: string) => tellText(text, idiom);
  const place = part === null ? tell("where you were shown") : tell(sayPlace(rig, part, idiom.book));
  const label = of?.label ?? "";
  // What stands on a switch is found by what stands on it.
  const named = engraved.has(kind.per)
    ? label
    : tellLabel(kind.per === "battery" ? nameBattery({ label }) : label, idiom);
  const fill = (text: string) => tell(text).replaceAll("{label}", named).replaceAll("{place}", place);
  const isOneOfMany = kind.per === "engine" && rig.engines.length > 1;
  const name = fill(kind.label);
  return {
    id,
    kind: kind.id,
    label: isOneOfMany ? `${name}, ${named.toLowerCase()}` : name,
    part: part?.id ?? null,
    prior: kind.prior,
    minutes: kind.minutes,
    check: fill(kind.check),
    mend: fill(kind.mend),
    caution: kind.caution === undefined ? null : fill(kind.caution),
    who: kind.who,
    isForYard: kind.lookBy === "yard",
  };
}
