import type { PartKind, Place, Rig, SheetSection } from "../../../core/rig/index.ts";

export const sectionNames: Record<SheetSection, string> = {
  boat: "Boat",
  places: "Places",
  power: "Power",
  panel: "Panel",
  breakers: "Breakers",
  engines: "Engines",
  tanks: "Tanks",
  trailer: "Trailer",
  gear: "Gear",
};

/** What every section of the sheet is given. */
export interface SectionProps {
  readonly rig: Rig;
  readonly edit: (change: (rig: Rig) => Rig) => void;
  /** The item whose fields are open, by id. */
  readonly open: string | null;
  readonly onOpen: (id: string | null) => void;
}

export interface PlacesProps extends SectionProps {
  readonly armed: PartKind | null;
  readonly onArm: (kind: PartKind | null) => void;
  readonly onPut: (at: Place) => void;
}

/** Parts of the given kinds as options of a field, with where they are. */
export function partOptions(rig: Rig, kinds: readonly PartKind[]): (readonly [string, string])[] {
  const stations = new Map(rig.stations.map(({ id, label }) => [id, label]));
  return rig.parts
    .filter(({ kind }) => kinds.includes(kind))
    .map(({ id, label, station }) => [id, `${label} (${stations.get(station)})`] as const);
}
