import { type Idiom, spellText } from "../region/index.ts";
import { sayAmount } from "../units/index.ts";
import { isReachDoubtful } from "./editRig.ts";
import { findLeftBehind, type LeftBehind } from "./leftBehind.ts";
import { namePart, partsHanging } from "./partGroups.ts";
import type { PartKind, Rig } from "./rig.ts";
import { listUsual } from "./usualPlaces.ts";

export const sheetSections = [
  "boat",
  "places",
  "power",
  "panel",
  "breakers",
  "engines",
  "tanks",
  "trailer",
  "gear",
] as const;
export type SheetSection = (typeof sheetSections)[number];

/** Something a rig leaves open: in plain words, with the section of the sheet and the item where it is mended. */
export interface Finding {
  readonly kind: FindingKind;
  readonly section: SheetSection;
  readonly text: string;
  /** The item it is about, by id; null where something is missing altogether. */
  readonly item: string | null;
  /** What to put on the plan, where that mends it. */
  readonly place?: PartKind;
}

export const findingKinds = [
  "usual-not-looked-at",
  "reach-of-old-place",
  "brakes-need-another-plug",
  "lock-out-without-surge-brakes",
  "switch-without-breaker",
  "breaker-feeds-nothing",
  "breaker-too-small",
  "option-without-supply",
  "option-without-switch",
  "switch-without-option",
  "load-without-feed",
  "batteries-too-few",
  "battery-not-described",
  "power-switch-missing",
  "parallel-missing",
  "no-plug",
  "no-extinguisher",
  "no-selector",
  "no-jackets",
  "no-horn",
  "no-lanyard",
  "no-blower",
  "no-helm",
  "no-flush",
  "no-capacity-plate",
  "no-panel-place",
  "no-breaker-place",
  "raw-water-without-valve",
  "through-hull-not-named",
  "waste-without-tank",
  "names-what-is-gone",
  "unlabelled-switch",
  "positions-wrong",
  "engine-without-care-pack",
  "rated-band-upside-down",
  "no-fuel-tank",
  "tank-without-fill",
  "trailer-overloaded",
  "surge-brakes-cannot-reverse",
  "tow-numbers-missing",
  "ramp-numbers-missing",
  "weights-missing",
  "part-off-boat",
  "part-far-from-place",
  "same-name-twice",
  "keys-not-counted",
  "bow-motor-without-bank",
  "charger-without-socket",
  "wiring-reaches-not",
] as const;
export type FindingKind = (typeof findingKinds)[number];

/** What a check needs to know beside the rig: the care packs there are, whether a place lies on the hull, what has power. */
export interface CheckAids {
  readonly breakInPacks: ReadonlySet<string>;
  readonly servicePacks: ReadonlySet<string>;
  /** How the store says lengths and spells. */
  readonly idiom: Idiom;
  readonly isWithinHull: (rig: Rig, at: { xM: number; yM: number }) => boolean;
  /** Loads that no position of any switch can power. */
  readonly unreachable: (rig: Rig) => readonly string[];
}

type Find = Omit<Finding, "section">;

/**
 * What is left to do on a rig sheet: findings in the order of the sheet, empty when nothing is. Rules are the trade's common
 * checks, our own list; what local law asks for aboard is the contract `gear`, not this.
 */
export function checkRig(rig: Rig, aids: CheckAids): Finding[] {
  const sections: Record<SheetSection, Find[]> = {
    boat: checkBoat(rig),
    places: checkPlaces(rig, aids),
    power: checkPower(rig, aids),
    panel: checkPanel(rig),
    breakers: checkBreakers(rig),
    engines: checkEngines(rig, aids),
    tanks: checkTanks(rig),
    trailer: checkTrailer(rig),
    gear: checkGear(rig),
  };
  return sheetSections.flatMap((section) =>
    sections[section].map((find) => ({ ...find, text: spellText(find.text, aids.idiom.spelling), section })),
  );
}

const has = (rig: Rig, ...kinds: readonly PartKind[]) => rig.parts.some(({ kind }) => kinds.includes(kind));
const isEnclosed = (rig: Rig) => rig.engines.some(({ kind }) => kind === "inboard" || kind === "sterndrive");

const weightNames = ["dryKg", "enginesKg", "gearKg", "ballastL", "sternDraftM"] as const;

function checkBoat(rig: Rig): Find[] {
  const missing = weightNames.filter((name) => rig.weights?.[name] === undefined).length;
  if (missing === 0) return [];
  const text = `${missing} of weights and draft are not entered; the tow and ramp cards stay empty without them`;
  return [{ kind: "weights-missing", text, item: null }];
}

/** What every boat has somewhere, and what is said when it has no place yet. */
const wanted: readonly [FindingKind, PartKind, (rig: Rig) => boolean, string][] = [
  [
    "no-plug",
    "plug",
    ({ family }) => family !== "pontoon",
    "Where is the drain plug? It is the first thing a buyer must find",
  ],
  ["no-extinguisher", "extinguisher", () => true, "Where is the extinguisher?"],
  ["no-jackets", "jackets", () => true, "Where are the life jackets kept?"],
  ["no-horn", "horn", () => true, "Where is the horn, or the whistle that stands in for it?"],
  ["no-selector", "selector", ({ powerSwitches }) => powerSwitches.length > 0, "Where is the battery switch?"],
  ["no-panel-place", "panel", ({ panel }) => panel.length > 0, "The panel has switches but no place on the plan"],
  [
    "no-breaker-place",
    "breakers",
    ({ breakers }) => breakers.length > 0,
    "Breakers are listed but no breaker panel is on the plan",
  ],
  [
    "no-lanyard",
    "lanyard",
    ({ engines }) => engines.some(({ start }) => start !== "pull"),
    "Where does the kill lanyard clip in?",
  ],
  [
    "no-capacity-plate",
    "capacity-plate",
    ({ loaM }) => loaM < 6.1,
    "Where is the capacity plate? The buyer reads people and weight there",
  ],
  [
    "no-flush",
    "flush-port",
    ({ engines }) => engines.some(({ kind }) => kind === "outboard"),
    "Where does the flush hose go on? If muffs are the only way, place them here and say so",
  ],
];

function checkPlaces(rig: Rig, { isWithinHull, idiom }: CheckAids): Find[] {
  const finds: Find[] = [];
  if (!rig.stations.some(({ kind }) => kind === "helm"))
    finds.push({ kind: "no-helm", text: "No place to stand is the helm; the walk needs one", item: null });
  for (const [kind, place, applies, text] of wanted)
    if (applies(rig) && !has(rig, place, ...(place === "breakers" ? (["fuse-block"] as const) : [])))
      finds.push({ kind, text, item: null, place });
  if (isEnclosed(rig) && rig.engines.some(({ fuel }) => fuel !== "diesel") && !has(rig, "blower"))
    finds.push({
      kind: "no-blower",
      text: "A gasoline engine below deck has a blower; where is its outlet and switch?",
      item: null,
      place: "blower",
    });
  const guessed = listUsual(rig);
  if (guessed.length > 0)
    finds.push({
      kind: "usual-not-looked-at",
      text: `${guessed.length === 1 ? `${guessed[0]!.label} stands` : `${guessed.length} things stand`} where such boats usually have ${guessed.length === 1 ? "it" : "them"}. Look on the plan, and move what this boat has elsewhere`,
      item: guessed[0]!.id,
    });
  const names = new Map<string, number>();
  for (const { label } of rig.parts) names.set(label, (names.get(label) ?? 0) + 1);
  for (const part of rig.parts) {
    const { id, label, at } = part;
    if (!isWithinHull(rig, at) && !(partsHanging.has(part.kind) && at.xM > -1.2 && at.xM < rig.loaM + 0.4))
      finds.push({ kind: "part-off-boat", text: `${label} lies outside the boat`, item: id });
    const station = rig.stations.find((each) => each.id === part.station);
    if (station !== undefined && station.level === "aboard" && distanceM(station.at, at) > farM)
      finds.push({
        kind: "part-far-from-place",
        text: `${label} is ${sayAmount(distanceM(station.at, at), "length", idiom.units)} from ${station.label.toLowerCase()}, where it is told; is there a nearer place?`,
        item: id,
      });
    if (isReachDoubtful(part))
      finds.push({
        kind: "reach-of-old-place",
        text: `${label} was moved: does “${part.reach}” still say how to reach it?`,
        item: id,
      });
    if ((names.get(label) ?? 0) > 1)
      finds.push({ kind: "same-name-twice", text: `Two things are called "${label}"; say which is which`, item: id });
  }
  return finds;
}

const farM = 4;
const distanceM = (a: { xM: number; yM: number }, b: { xM: number; yM: number }) =>
  Math.hypot(a.xM - b.xM, a.yM - b.yM);

const needed = {
  single: { batteries: 1, switches: 1, says: "one battery" },
  "one-two-both": { batteries: 2, switches: 1, says: "two banks" },
  "engine-house-parallel": { batteries: 2, switches: 3, says: "an engine and a house battery" },
  "twin-engine-house-parallel": { batteries: 3, switches: 4, says: "two engine batteries and a house battery" },
} as const;

function checkPower(rig: Rig, { unreachable }: CheckAids): Find[] {
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
  const motor = rig.parts.find(({ kind }) => kind === "bow-motor");
  if (motor !== undefined && !rig.batteries.some(({ use }) => use === "bow-motor"))
    finds.push({
      kind: "bow-motor-without-bank",
      text: `${motor.label} has no batteries of its own here; if it runs off the house battery, say so there`,
      item: motor.id,
    });
  const charger = rig.parts.find(({ kind }) => kind === "charger");
  if (charger !== undefined && !has(rig, "charger-socket"))
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

/** Options that draw power; of those, the ones that are switched on the panel rather than where they are. */
const electric = [
  "horn",
  "blower",
  "windlass",
  "livewell",
  "docking-light",
  "wiper",
  "ballast",
  "surf-tabs",
  "bow-motor",
  "tabs",
  "stereo",
  "plotter",
] as const;
const onPanel: readonly PartKind[] = ["horn", "blower", "livewell", "docking-light", "wiper", "ballast"];

function checkPanel(rig: Rig): Find[] {
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
      if (serves.length > 0 && !has(rig, ...serves))
        finds.push({
          kind: "switch-without-option",
          text: `${name} runs ${serves.map(namePart).join(" or ")}, and none is on the plan`,
          item: item.id,
          place: serves[0]!,
        });
    }
  });
  for (const kind of electric) {
    const part = rig.parts.find((each) => each.kind === kind);
    if (part === undefined) continue;
    const serving = rig.loads.filter(({ serves }) => serves?.includes(kind));
    if (serving.length === 0)
      finds.push({
        kind: "option-without-supply",
        text: `${part.label}: what feeds it is not described`,
        item: part.id,
      });
    else if (onPanel.includes(kind) && !serving.some(({ id, always }) => switched.has(id) || always))
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

function checkBreakers(rig: Rig): Find[] {
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

function checkEngines(rig: Rig, { breakInPacks, servicePacks }: CheckAids): Find[] {
  const finds: Find[] = [];
  for (const { id, label, breakInPack, servicePack, ratedRpm } of rig.engines) {
    if (!breakInPacks.has(breakInPack) || !servicePacks.has(servicePack))
      finds.push({
        kind: "engine-without-care-pack",
        text: `${label}: pick its break-in and service pack, or nobody is told when to come back`,
        item: id,
      });
    if (ratedRpm.from >= ratedRpm.to)
      finds.push({
        kind: "rated-band-upside-down",
        text: `${label}: read its rated band, from the lower rpm to the higher, in its manual`,
        item: id,
      });
  }
  const fuels = new Set(rig.engines.map(({ fuel }) => fuel ?? "petrol"));
  for (const fuel of fuels)
    if (!rig.tanks.some(({ kind }) => kind === fuel) && !has(rig, "portable-tank"))
      finds.push({ kind: "no-fuel-tank", text: `No ${fuel} tank is described`, item: null });
  return finds;
}

function checkTanks(rig: Rig): Find[] {
  const finds: Find[] = [];
  for (const { id, label, fill } of rig.tanks)
    if (fill === undefined && !(has(rig, "portable-tank") && /petrol|diesel/.test(kindOfTank(rig, id))))
      finds.push({
        kind: "tank-without-fill",
        text: `${label}: where is it filled or emptied?`,
        item: id,
        place: "fill",
      });
  const named = new Set(rig.throughHulls.map(({ part }) => part));
  for (const { id, kind, label } of rig.parts)
    if (kind === "through-hull" && !named.has(id))
      finds.push({ kind: "through-hull-not-named", text: `${label}: what does it serve?`, item: id });
  const drinks = isEnclosed(rig) || has(rig, "livewell");
  if (drinks && !has(rig, "through-hull") && !rig.engines.every(({ kind }) => kind === "sterndrive"))
    finds.push({
      kind: "raw-water-without-valve",
      text: "Something aboard draws water from outside, and no through-hull valve is placed",
      item: null,
      place: "through-hull",
    });
  if (
    has(rig, "head") &&
    !rig.tanks.some(({ kind }) => kind === "waste") &&
    !rig.throughHulls.some(({ serves }) => /head/i.test(serves))
  )
    finds.push({ kind: "waste-without-tank", text: "The head has neither a waste tank nor a way out", item: null });
  return [...finds, ...listLeftBehind(rig, "throughHulls")];
}

/** What speaks of something that is no longer aboard. */
const listLeftBehind = (rig: Rig, of: LeftBehind["list"]): Find[] =>
  findLeftBehind(rig)
    .filter(({ list }) => list === of)
    .map(({ item, text, says }) => ({
      kind: "names-what-is-gone",
      text: `“${text}” is on the sheet, and this boat has no ${says}. Change it, or put the ${says} on`,
      item,
    }));

const kindOfTank = (rig: Rig, id: string) => rig.tanks.find((tank) => tank.id === id)!.kind;

const towNumbers = [
  "ballMm",
  "grossLimitKg",
  "tyreKpa",
  "kg",
  "axleLimitKg",
  "tyres",
  "tyreLimitKg",
  "couplerLimitKg",
  "tongueLimitKg",
  "tongueKg",
] as const;
const rampNumbers = ["bunkHeightM", "fenderFromTransomM", "fenderHeightM"] as const;
const fivePins = 5;
/** Lights, ground and a wire for the brakes: what a six-pin plug has and a five-pin one has not. */
const electricPins = 6;

/** Whether boat and trailer, with nothing in them, weigh more than the trailer's own plates allow; as far as all was read. */
function isOverloadedEmpty({ trailer, weights }: Rig): boolean {
  if (trailer?.kg === undefined || weights?.dryKg === undefined) return false;
  const { grossLimitKg, couplerLimitKg, axleLimitKg, tyreLimitKg, tyres = trailer.axles * 2, tongueKg = 0 } = trailer;
  const emptyKg = trailer.kg + weights.dryKg + (weights.enginesKg ?? 0);
  const isOver = (kg: number, limitKg: number | undefined) => limitKg !== undefined && kg > limitKg;
  return (
    isOver(emptyKg, grossLimitKg) ||
    isOver(emptyKg, couplerLimitKg) ||
    // What bears on the ball does not bear on the wheels.
    isOver(emptyKg - tongueKg, axleLimitKg) ||
    isOver(emptyKg - tongueKg, tyreLimitKg === undefined ? undefined : tyreLimitKg * tyres)
  );
}

function checkTrailer(rig: Rig): Find[] {
  const { trailer } = rig;
  if (trailer === null) return [];
  const finds: Find[] = [];
  if (isOverloadedEmpty(rig))
    finds.push({
      kind: "trailer-overloaded",
      text: "Even with nothing in it, this boat with its trailer weighs more than the trailer's plates allow. Read the figures again; if they hold, another trailer has to carry it",
      item: null,
    });
  if (trailer.brakes === "surge" && trailer.lockOut === "none")
    finds.push({
      kind: "surge-brakes-cannot-reverse",
      text: `Surge brakes hold when backing uphill: the ${trailer.pins}-pin plug has no reverse wire noted and there is no lock-out pin. Note which it has`,
      item: null,
    });
  else if (trailer.lockOut === "reverse-wire" && trailer.pins < fivePins)
    finds.push({
      kind: "surge-brakes-cannot-reverse",
      text: `A ${trailer.pins}-pin plug has no reverse wire; it takes five pins, or a lock-out pin`,
      item: null,
    });
  if (trailer.brakes === "electric" && trailer.pins < electricPins)
    finds.push({
      kind: "brakes-need-another-plug",
      text: `Electric brakes need a wire of their own: a ${trailer.pins}-pin plug has none. Note the plug it really has`,
      item: null,
    });
  if (trailer.brakes !== "surge" && trailer.lockOut !== "none")
    finds.push({
      kind: "lock-out-without-surge-brakes",
      text: `A reverse ${trailer.lockOut === "pin" ? "pin" : "wire"} belongs to surge brakes, and this trailer has ${trailer.brakes === "none" ? "no" : trailer.brakes} brakes. Take it off the sheet`,
      item: null,
    });
  const left = (names: readonly (keyof typeof trailer)[]) => names.filter((name) => trailer[name] === undefined).length;
  const tow = left(towNumbers);
  if (tow > 0)
    finds.push({
      kind: "tow-numbers-missing",
      text: `${tow} of the numbers for the tow card are not read from the plate yet`,
      item: null,
    });
  const ramp = left(rampNumbers);
  if (ramp > 0)
    finds.push({
      kind: "ramp-numbers-missing",
      text: `${ramp} of the measures for the ramp card are not taken yet`,
      item: null,
    });
  return finds;
}

function checkGear(rig: Rig): Find[] {
  const { gear, engines } = rig;
  const left = listLeftBehind(rig, "gear");
  if (engines.every(({ start }) => start === "pull") || gear.some(({ group }) => group === "keys")) return left;
  return [{ kind: "keys-not-counted", text: "Keys are not on the list of what is handed over", item: null }, ...left];
}
