import { createTell, type Tell } from "../language/index.ts";
import { nameBattery, type Rig } from "../rig/index.ts";
import type { Quantity } from "../units/index.ts";

/** What is read off the boat in a walk or its make-ready. Engine hours are entries of their own. */
export const measureKinds = ["tyre", "battery", "fuel", "oil", "bilge"] as const;
export type MeasureKind = (typeof measureKinds)[number];

/** One reading to be taken. */
export interface Measure {
  /** Unique on the boat; the `item` of a `measure` entry. */
  readonly id: string;
  readonly kind: MeasureKind;
  readonly label: string;
  /** What is measured where stores have their own units for it (`unit` is then the core's); null where all have one. */
  readonly quantity: Quantity | null;
  /** Empty where the reading is one of `choices`. */
  readonly unit: "kPa" | "V" | "%" | "";
  /** What can be read at all; outside it is a slip of the finger. */
  readonly least: number;
  readonly most: number;
  /** What the plate or the manual says, as far as the rig knows it. */
  readonly wanted: number | null;
  /** Readings by eye, the value of each being its index. */
  readonly choices: readonly string[] | null;
  readonly chemistry: Rig["batteries"][number]["chemistry"] | null;
}

const axleNames = ["front", "rear", "third"] as const;
export const tyreNames = {
  only: { port: "Tire, port", starboard: "Tire, starboard" },
  front: { port: "Tire, port front", starboard: "Tire, starboard front" },
  rear: { port: "Tire, port rear", starboard: "Tire, starboard rear" },
  third: { port: "Tire, port third", starboard: "Tire, starboard third" },
} as const;
const plain = { quantity: null, wanted: null, choices: null, chemistry: null } as const;

/**
 * What can be read on this boat: each tyre, each battery, each fuel tank, the oil of each engine with a stick, the bilge;
 * named in the words of `tell`.
 */
export function listMeasures(rig: Rig, tell: Tell = createTell(null)): Measure[] {
  return [
    ...listTyres(rig, tell),
    ...rig.batteries.map(
      ({ id, label, chemistry }): Measure => ({
        ...plain,
        id: `battery-${id}`,
        kind: "battery",
        label: tell.label(nameBattery({ label })),
        unit: "V",
        least: 4,
        most: 60,
        chemistry,
      }),
    ),
    ...rig.tanks
      .filter(({ kind }) => kind === "petrol" || kind === "diesel")
      .map(
        ({ id, label }): Measure => ({
          ...plain,
          id: `fuel-${id}`,
          kind: "fuel",
          label: tell.label(label),
          unit: "%",
          least: 0,
          most: 100,
        }),
      ),
    ...rig.engines.map(
      ({ id, label }): Measure => ({
        ...plain,
        id: `oil-${id}`,
        kind: "oil",
        label: tell("Oil, {0}", tell.label(label).toLowerCase()),
        unit: "",
        least: 0,
        most: oilChoices.length - 1,
        choices: oilChoices.map((choice) => tell(choice)),
      }),
    ),
    {
      ...plain,
      id: "bilge",
      kind: "bilge",
      label: tell("Bilge"),
      unit: "",
      least: 0,
      most: bilgeChoices.length - 1,
      choices: bilgeChoices.map((choice) => tell(choice)),
    },
  ];
}

export const oilChoices = ["below the band", "in the band", "above the band"] as const;
export const bilgeChoices = ["dry", "damp", "standing water, a hand deep", "more than that"] as const;

function listTyres({ trailer }: Rig, tell: Tell): Measure[] {
  if (trailer === null) return [];
  const axles = trailer.axles === 1 ? (["only"] as const) : axleNames.slice(0, trailer.axles);
  const wheels = axles.flatMap((axle, i) =>
    (["port", "starboard"] as const).map((side) => ({
      id: `tyre-${side}-${i + 1}`,
      label: tell(tyreNames[axle][side]),
    })),
  );
  return [...wheels, { id: "tyre-spare", label: tell("Spare tire") }].map(
    ({ id, label }): Measure => ({
      ...plain,
      id,
      kind: "tyre",
      label,
      quantity: "pressure",
      unit: "kPa",
      least: 20,
      most: 1000,
      wanted: trailer.tyreKpa ?? null,
    }),
  );
}
