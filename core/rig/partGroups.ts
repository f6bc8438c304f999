import { capitalize } from "../text/index.ts";
import type { PartKind } from "./rig.ts";

/** Kinds of parts by what a person looks for, in the order in which one meets them when describing a boat. */
export const partGroups: readonly { readonly name: string; readonly kinds: readonly PartKind[] }[] = [
  {
    name: "Safety",
    kinds: [
      "plug",
      "extinguisher",
      "fire-system",
      "detector",
      "jackets",
      "first-aid",
      "lanyard",
      "horn",
      "capacity-plate",
    ],
  },
  {
    name: "Power",
    kinds: [
      "battery",
      "selector",
      "panel",
      "breakers",
      "fuse-block",
      "isolator",
      "charger",
      "charger-socket",
      "generator",
    ],
  },
  {
    name: "Helm",
    kinds: [
      "throttle",
      "gauges",
      "steering",
      "plotter",
      "vhf",
      "stereo",
      "tabs",
      "blower",
      "wiper",
      "docking-light",
      "speed-control",
    ],
  },
  {
    name: "Engine and fuel",
    kinds: ["flush-port", "primer-bulb", "fuel-filter", "portable-tank", "travel-support", "transducer"],
  },
  {
    name: "Water",
    kinds: ["fill", "pump-out", "through-hull", "pump", "tap", "sink", "head", "livewell", "fish-box", "ballast"],
  },
  {
    name: "Deck",
    kinds: [
      "hatch",
      "seat",
      "table",
      "door",
      "ladder",
      "swim-platform",
      "cleat",
      "cover",
      "bimini",
      "hard-top",
      "enclosure",
      "tower",
      "light-pole",
      "galley",
      "fridge",
      "air-conditioner",
      "berth",
    ],
  },
  {
    name: "Anchor and gear",
    kinds: [
      "anchor",
      "windlass",
      "bow-motor",
      "rod-holder",
      "outrigger",
      "downrigger",
      "tow-point",
      "board-rack",
      "surf-tabs",
    ],
  },
];

/** Kinds that may hang outside the hull line, at the transom or over the bow. */
export const partsHanging: ReadonlySet<PartKind> = new Set<PartKind>([
  "plug",
  "flush-port",
  "ladder",
  "swim-platform",
  "transducer",
  "steering",
  "travel-support",
  "surf-tabs",
  "tabs",
  "primer-bulb",
  "anchor",
  "bow-motor",
]);

/** What a kind of part is called, where its id does not say it as people would. */
const partNames: Partial<Record<PartKind, string>> = {
  selector: "battery switch",
  breakers: "breaker panel",
  panel: "switch panel",
  "through-hull": "through-hull valve",
  plug: "drain plug",
  fill: "fill cap",
  "pump-out": "pump-out fitting",
  extinguisher: "fire extinguisher",
  jackets: "life jackets",
  "first-aid": "first aid kit",
  "light-pole": "light pole",
  tap: "fresh water tap",
  head: "head (toilet)",
  pump: "bilge pump",
  tabs: "trim tabs",
  vhf: "VHF radio",
  plotter: "chartplotter",
  "charger-socket": "shore power inlet",
  lanyard: "kill switch lanyard",
  isolator: "battery isolator",
  charger: "battery charger",
  galley: "stove",
  transducer: "depth transducer",
  "fire-system": "fixed fire system",
  detector: "gas detector",
  enclosure: "canvas enclosure",
};

/** "windlass", "VHF radio": what a kind of part is called, without an article. */
export const namePart = (kind: PartKind): string => partNames[kind] ?? kind.replaceAll("-", " ");

/** "light-pole" → "Light pole". */
export function formatPartKind(kind: PartKind): string {
  return capitalize(namePart(kind));
}
