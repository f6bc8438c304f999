import type { Rig } from "../rig/index.ts";
import { askEndurance, type Drain, hasOwnButton, listDrawing } from "./drain.ts";
import { type PowerSetting, turnAllOff } from "./powerState.ts";
import { listSwitches } from "./wireRig.ts";

const nothingWrong: PowerSetting = { positions: {}, tripped: [], loose: [], charge: {} };

/** Everything off but the battery switches, which stand as under way: the first position that is not off; an emergency switch rests. */
export function underWay(rig: Rig, setting: PowerSetting = nothingWrong): PowerSetting {
  const run = rig.powerSwitches.map(({ id, positions }) => [
    id,
    (positions.find(({ label }) => !/^off$/i.test(label)) ?? positions[0]!).label,
  ]);
  return { ...setting, positions: { ...turnAllOff(rig, setting).positions, ...Object.fromEntries(run) } };
}

/** The panel switch that turns a load off, and where to; null of what has none. */
export function findOffSwitch(
  rig: Rig,
  load: string,
): { id: string; label: string; position: string | undefined } | null {
  const item = rig.panel.find(({ positions }) => positions.some(({ powers }) => powers.includes(load)));
  if (item === undefined) return null;
  const label = listSwitches(rig).find(({ id }) => id === item.id)!.label;
  return { id: item.id, label, position: item.positions.find(({ powers }) => powers.length === 0)?.label };
}

export interface LeftOn {
  readonly load: string;
  readonly label: string;
  readonly off: ReturnType<typeof findOffSwitch>;
  /** From full, alone, until the battery that carries it is too low. */
  readonly hours: number;
}

/** Mild weather and new batteries. */
const usual: Omit<Drain, "setting" | "buttons"> = { pumpEveryMin: null, airC: 20, years: 0 };
/** Who leaves a boat for longer than that leaves it laid up. */
const mostHours = 24 * 14;

/** What runs on by itself until somebody turns it off. A horn or a windlass is let go of, a pump stops when the tap is closed. */
const runsOn = /light|stereo|plotter|sounder|screen|blower|live.?well|heater|fridge|fan/i;

/** What drains a battery when it alone is forgotten, the quickest first: whatever runs on and can be turned off. */
export function listLeftOn(rig: Rig): LeftOn[] {
  const before = underWay(rig);
  const stays = new Set(listDrawing(rig, { ...usual, setting: before, buttons: {} }).map(({ load }) => load));
  return rig.loads
    .flatMap((load): LeftOn[] => {
      if (load.always || stays.has(load.id) || !runsOn.test(load.label)) return [];
      const item = rig.panel.find(({ positions }) => positions.some(({ powers }) => powers.includes(load.id)));
      const on = item?.positions.find(({ powers }) => powers.includes(load.id));
      if (on === undefined && !hasOwnButton(rig, load)) return [];
      const positions = on === undefined ? before.positions : { ...before.positions, [item!.id]: on.label };
      const drain = { ...usual, setting: { ...before, positions }, buttons: { [load.id]: true } };
      if (!listDrawing(rig, drain).some((each) => each.load === load.id)) return [];
      const hours = Math.min(
        ...askEndurance(rig, drain).groups.flatMap(({ hoursToFloor }) => hoursToFloor ?? Number.POSITIVE_INFINITY),
      );
      return hours > mostHours ? [] : [{ load: load.id, label: load.label, off: findOffSwitch(rig, load.id), hours }];
    })
    .sort((a, b) => a.hours - b.hours);
}
