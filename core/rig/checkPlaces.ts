import { sayAmount } from "../units/index.ts";
import { isReachDoubtful } from "./editRig.ts";
import { type CheckAids, type Find, type FindingKind, hasKind, isEnclosed } from "./finding.ts";
import { partsHanging } from "./partGroups.ts";
import type { PartKind, Rig } from "./rig.ts";
import { listUsual } from "./usualPlaces.ts";

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

/** Whether what every boat has is on the plan, lies on the boat and is found from where it is told. */
export function checkPlaces(rig: Rig, { isWithinHull, idiom }: CheckAids): Find[] {
  const finds: Find[] = [];
  if (!rig.stations.some(({ kind }) => kind === "helm"))
    finds.push({ kind: "no-helm", text: "No place to stand is the helm; the walk needs one", item: null });
  for (const [kind, place, applies, text] of wanted)
    if (applies(rig) && !hasKind(rig, place, ...(place === "breakers" ? (["fuse-block"] as const) : [])))
      finds.push({ kind, text, item: null, place });
  if (isEnclosed(rig) && rig.engines.some(({ fuel }) => fuel !== "diesel") && !hasKind(rig, "blower"))
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
