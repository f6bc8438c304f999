import { addItem, createItemId, createPart, removeItem } from "./editRig.ts";
import type { PartKind, Rig } from "./rig.ts";

/** The power of a boat as a person picks it: the selector scheme and what comes with it. */
export interface PowerChoice {
  readonly scheme: Rig["powerScheme"];
  /** Batteries of a bow motor's own. */
  readonly bowMotorBatteries: 0 | 1 | 2 | 3;
  /** How banks are charged together. */
  readonly join: "none" | "isolator" | "combiner";
  readonly hasShoreCharger: boolean;
}

const twoWay = (on: string) => [
  { label: "Off", does: "Nothing on this switch runs" },
  { label: "On", does: on },
];

const schemes: Record<
  Rig["powerScheme"],
  {
    readonly batteries: readonly { label: string; use: "start" | "house" }[];
    readonly switches: readonly { label: string; positions: { label: string; does: string }[] }[];
  }
> = {
  single: {
    batteries: [{ label: "Battery", use: "start" }],
    switches: [{ label: "Battery switch", positions: twoWay("Engine and boat have power") }],
  },
  "one-two-both": {
    batteries: [
      { label: "Battery 1", use: "start" },
      { label: "Battery 2", use: "house" },
    ],
    switches: [
      {
        label: "Battery selector",
        positions: [
          { label: "Off", does: "Nothing runs but what is always live; never turn here with the engine running" },
          { label: "1", does: "Battery 1 starts and feeds; the engine charges it" },
          { label: "2", does: "Battery 2 starts and feeds; the engine charges it" },
          { label: "Both", does: "Both start, feed and are charged together" },
        ],
      },
    ],
  },
  "engine-house-parallel": {
    batteries: [
      { label: "Engine battery", use: "start" },
      { label: "House battery", use: "house" },
    ],
    switches: [
      { label: "Engine switch", positions: twoWay("The engine can be started") },
      { label: "House switch", positions: twoWay("Lights, pumps and electronics have power") },
      { label: "Emergency parallel", positions: parallel() },
    ],
  },
  "twin-engine-house-parallel": {
    batteries: [
      { label: "Port engine battery", use: "start" },
      { label: "Starboard engine battery", use: "start" },
      { label: "House battery", use: "house" },
    ],
    switches: [
      { label: "Port engine switch", positions: twoWay("The port engine can be started") },
      { label: "Starboard engine switch", positions: twoWay("The starboard engine can be started") },
      { label: "House switch", positions: twoWay("Lights, pumps and electronics have power") },
      { label: "Emergency parallel", positions: parallel() },
    ],
  },
};

function parallel() {
  return [
    { label: "Normal", does: "The banks stay apart" },
    { label: "Combine", does: "The banks are joined to start an engine; back to normal once it runs" },
  ];
}

const usualAh = 100;

/** What a rig's power is, as it would be picked. */
export function readPower(rig: Rig): PowerChoice {
  const count = rig.batteries.filter(({ use }) => use === "bow-motor").length;
  const isolator = rig.parts.find(({ kind }) => kind === "isolator");
  return {
    scheme: rig.powerScheme,
    bowMotorBatteries: Math.min(3, count) as PowerChoice["bowMotorBatteries"],
    join: isolator === undefined ? "none" : /combiner/i.test(isolator.label) ? "combiner" : "isolator",
    hasShoreCharger: rig.parts.some(({ kind }) => kind === "charger"),
  };
}

/**
 * The rig with its power as picked. Batteries and switches that are there are kept in their order, what is missing is put in
 * the stern, what is too much is taken out; wiring edited by hand is dropped, for it belonged to the scheme before.
 */
export function setPower(rig: Rig, choice: PowerChoice): Rig {
  const { batteries, switches } = schemes[choice.scheme];
  const { wiring: _, wiringChecked: __, ...bare } = rig;
  let next: Rig = { ...bare, powerScheme: choice.scheme };
  next = matchBatteries(next, batteries, ({ use }) => use !== "bow-motor");
  const bow = Array.from({ length: choice.bowMotorBatteries }, (_, i) => ({
    label: `Bow motor battery ${i + 1}`,
    use: "bow-motor" as const,
  }));
  next = matchBatteries(next, bow, ({ use }) => use === "bow-motor");
  if (choice.scheme !== rig.powerScheme || rig.powerSwitches.length !== switches.length)
    next = setSwitches(next, switches);
  const join = readPower(rig).join;
  if (choice.join !== join) {
    next = removeKind(next, "isolator");
    if (choice.join !== "none") next = putKind(next, "isolator", choice.join === "combiner" ? "Combiner" : "Isolator");
  }
  if (choice.hasShoreCharger !== readPower(rig).hasShoreCharger)
    next = choice.hasShoreCharger ? putKind(next, "charger", "Shore charger") : removeKind(next, "charger");
  return next;
}

type Battery = Rig["batteries"][number];

function matchBatteries(
  rig: Rig,
  wanted: readonly { label: string; use: Battery["use"] & string }[],
  isOfKind: (battery: Battery) => boolean,
): Rig {
  const there = rig.batteries.filter(isOfKind);
  let next = rig;
  for (const { part } of there.slice(wanted.length)) next = removeItem(next, "parts", part);
  for (const { label, use } of wanted.slice(there.length)) {
    const part = { ...createPart(next, "battery", spot(next)), label };
    next = addItem(next, "parts", { ...part, id: createItemId(next, "parts", label) });
    const id = createItemId(next, "batteries", label);
    next = addItem(next, "batteries", {
      id,
      label,
      part: next.parts.at(-1)!.id,
      capacityAh: usualAh,
      chemistry: "flooded",
      use,
      usual: true,
    });
  }
  const order = new Map(wanted.map((each, i) => [i, each.use]));
  let i = 0;
  const used = next.batteries.map((battery) =>
    isOfKind(battery) ? { ...battery, use: order.get(i++) ?? battery.use } : battery,
  );
  return { ...next, batteries: used as Rig["batteries"] };
}

function setSwitches(rig: Rig, wanted: (typeof schemes)["single"]["switches"]): Rig {
  let next = rig;
  if (!next.parts.some(({ kind }) => kind === "selector")) next = putKind(next, "selector", "Battery switches");
  const places = next.parts.filter(({ kind }) => kind === "selector").map(({ id }) => id);
  const fresh: Rig["powerSwitches"] = [];
  for (const { label, positions } of wanted) {
    const id = createItemId({ ...next, powerSwitches: fresh }, "powerSwitches", label);
    fresh.push({ id, label, part: places[Math.min(fresh.length, places.length - 1)]!, positions });
  }
  return { ...next, powerSwitches: fresh };
}

/** Batteries and their switches begin in the stern, side by side, until they are put where they are. */
function spot(rig: Rig) {
  const count = rig.parts.filter(({ at }) => at.xM < rig.loaM * 0.2).length;
  const side = ((count % 4) - 1.5) * rig.beamM * 0.15;
  return { xM: Math.round(rig.loaM * 12) / 100, yM: Math.round(side * 100) / 100 };
}

function putKind(rig: Rig, kind: PartKind, label: string): Rig {
  const part = createPart(rig, kind, spot(rig));
  return addItem(rig, "parts", { ...part, id: createItemId(rig, "parts", label), label });
}

function removeKind(rig: Rig, kind: PartKind): Rig {
  return rig.parts.filter((part) => part.kind === kind).reduce((next, { id }) => removeItem(next, "parts", id), rig);
}
