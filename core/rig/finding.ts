import type { Idiom } from "../region/index.ts";
import type { PartKind, Rig } from "./rig.ts";

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
  "figure-not-read",
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

/** A finding before the section it stands in is known. */
export type Find = Omit<Finding, "section">;

export const hasKind = (rig: Rig, ...kinds: readonly PartKind[]): boolean =>
  rig.parts.some(({ kind }) => kinds.includes(kind));
/** Whether an engine stands below deck. */
export const isEnclosed = (rig: Rig): boolean =>
  rig.engines.some(({ kind }) => kind === "inboard" || kind === "sterndrive");
