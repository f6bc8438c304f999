import type { Rig } from "../rig/index.ts";
import { type EnduranceOutput, endurance, usualFloor } from "./endurance.ts";
import { live } from "./live.ts";
import { askLive, type PowerReason, type PowerSetting } from "./powerState.ts";

/** What is left on, and what the batteries are like: all of it changes what the contract is asked, not the contract. */
export interface Drain {
  readonly setting: PowerSetting;
  /** Loads with a button of their own that are on; those with a switch follow their switch. */
  readonly buttons: Readonly<Record<string, boolean>>;
  /** A float pump runs a minute in so many; null where the bilge is dry. */
  readonly pumpEveryMin: number | null;
  /** Air temperature, °C. */
  readonly airC: number;
  /** Years since the batteries were new. */
  readonly years: number;
}

/** How long a float pump runs when it runs. Ours: a bilge is shallow. */
export const pumpRunMin = 1;
/**
 * Share of its capacity a battery gives in the cold: about a hundredth less for each degree below 25 °C, as makers' curves of lead
 * batteries have it, and never less than two fifths. Lithium, with its own heater or none, is not corrected.
 */
const perDegree = 0.01;
const ratedC = 25;
const leastCold = 0.4;
/** Capacity lost a year by a lead battery in seasonal use. Ours, cautious; five years leave two thirds. */
const perYear = 0.07;
const leastAged = 0.4;

/** What of its rated capacity a battery gives at this temperature and age, 0 to 1. (0 °C, new) → 0.75. */
export function derate(chemistry: Rig["batteries"][number]["chemistry"], airC: number, years: number): number {
  if (chemistry === "lifepo4") return 1;
  const cold = Math.max(leastCold, Math.min(1, 1 - (ratedC - airC) * perDegree));
  return cold * Math.max(leastAged, 1 - years * perYear);
}

type Load = Rig["loads"][number];

/** A pump that its float starts: what keeps a boat afloat that nobody is aboard of. */
const isFloatPump = ({ always, serves = [] }: Load) => always && serves.includes("pump");
/** Pumps started by their float that have no power as the boat stands, with what stands in the way. */
export function findDeadPumps(
  rig: Rig,
  reasons: readonly PowerReason[],
): { label: string; missing: readonly string[] }[] {
  const reasonOf = new Map(reasons.map((reason) => [reason.load, reason]));
  return rig.loads.filter(isFloatPump).flatMap(({ id, label }) => {
    const { isLive, missing } = reasonOf.get(id)!;
    return isLive ? [] : [{ label, missing }];
  });
}

/** The pumps that keep the boat afloat: each with the switch position in which its float starts it, none where no switch is in its way, and its breakers. */
export const listFloatPumps = (rig: Rig) =>
  rig.loads.filter(isFloatPump).map((load) => {
    const item = rig.panel.find(({ positions }) => positions.some(({ powers }) => powers.includes(load.id)));
    const position = item?.positions.find(({ powers }) => powers.includes(load.id));
    return {
      load,
      stays: item === undefined ? null : { id: item.id, label: item.label, position: position!.label },
      breakers: rig.breakers.filter(({ feeds }) => feeds.includes(load.id)),
    };
  });

/** Fed whenever its bank is, with a button of its own. */
export const hasOwnButton = (rig: Rig, load: Load): boolean =>
  !load.always && !rig.panel.some(({ positions }) => positions.some(({ powers }) => powers.includes(load.id)));

export interface Drawing {
  readonly load: string;
  /** On average. */
  readonly amps: number;
}

/** What draws now, the most first. */
export function listDrawing(rig: Rig, drain: Drain): Drawing[] {
  const isLive = new Set(live(askLive(rig, drain.setting)).live);
  return rig.loads
    .filter(({ id }) => isLive.has(id))
    .map((load) => ({ load: load.id, amps: ampsOf(rig, load, drain) }))
    .filter(({ amps }) => amps > 0)
    .sort((a, b) => b.amps - a.amps);
}

function ampsOf(rig: Rig, load: Load, { buttons, pumpEveryMin }: Drain): number {
  if (isFloatPump(load)) return pumpEveryMin === null ? 0 : load.amps * Math.min(1, pumpRunMin / pumpEveryMin);
  if (load.always) return load.amps;
  return hasOwnButton(rig, load) && buttons[load.id] !== true ? 0 : load.amps;
}

/** How long each bank lasts as the boat stands (`endurance`), with what cold, age and cycling do to it put into the question. */
export function askEndurance(rig: Rig, drain: Drain): EnduranceOutput {
  const input = askLive(rig, drain.setting);
  return endurance({
    ...input,
    batteries: input.batteries.map((battery) => ({
      ...battery,
      capacityAh: battery.capacityAh * derate(battery.chemistry, drain.airC, drain.years),
    })),
    loads: rig.loads.map((load, i) => ({ ...input.loads[i]!, amps: ampsOf(rig, load, drain), on: true })),
    floorShare: usualFloor,
  });
}

/** The same with a selector in each of its positions: what would last longer. */
export function compareSelectors(rig: Rig, drain: Drain) {
  return rig.powerSwitches.flatMap(({ id, label, positions }) =>
    positions.map((position) => ({
      switch: id,
      label,
      position: position.label,
      ...askEndurance(rig, {
        ...drain,
        setting: { ...drain.setting, positions: { ...drain.setting.positions, [id]: position.label } },
      }),
    })),
  );
}
