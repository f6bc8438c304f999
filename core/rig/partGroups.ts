import type { PartKind } from "./rig.ts";

/** Kinds of parts by what a person looks for, in the order in which one meets them when describing a boat. */
export const partGroups: readonly { readonly name: string; readonly kinds: readonly PartKind[] }[] = [
  {
    name: "Safety",
    kinds: ["plug", "extinguisher", "jackets", "first-aid", "lanyard", "horn", "capacity-plate"],
  },
  {
    name: "Power",
    kinds: ["battery", "selector", "panel", "breakers", "fuse-block", "isolator", "charger", "charger-socket"],
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
      "tower",
      "light-pole",
      "galley",
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

/** "light-pole" → "Light pole". */
export function formatPartKind(kind: PartKind): string {
  if (kind === "vhf") return "VHF radio";
  const words = kind.replaceAll("-", " ");
  return words[0]!.toUpperCase() + words.slice(1);
}
