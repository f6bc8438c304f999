import { useMemo, useState } from "react";
import { findChargeShare } from "../../core/measure/index.ts";
import {
  askEndurance,
  type ChargeSources,
  compareSelectors,
  type Drain,
  explainPower,
  listCharging,
  listDrawing,
  listSwitches,
  type PowerSetting,
  turnAllOff,
  underWay,
} from "../../core/power/index.ts";
import type { Rig } from "../../core/rig/index.ts";
import { useTell } from "../ui/tell.ts";

/** What a buyer most often leaves on: battery switches as under way, anchor light, stereo, plotter. */
function asLeft(rig: Rig, setting: PowerSetting): PowerSetting {
  const loads = new Map(rig.loads.map((load) => [load.id, load]));
  const isLeft = (id: string) => /anchor light|stereo|plotter|sounder/i.test(loads.get(id)?.label ?? "");
  const left = rig.panel.flatMap(({ id, positions }) => {
    const on = positions.find(({ powers }) => powers.length > 0 && powers.some(isLeft));
    return on === undefined ? [] : [[id, on.label] as const];
  });
  return { ...setting, positions: { ...underWay(rig, setting).positions, ...Object.fromEntries(left) } };
}

/** How full batteries are by volts at rest. */
const chargeOf = (rig: Rig, volts: Readonly<Record<string, number>>): Record<string, number> =>
  Object.fromEntries(
    rig.batteries.flatMap(({ id, chemistry }) =>
      volts[id] === undefined ? [] : [[id, findChargeShare(volts[id], chemistry)]],
    ),
  );

/** How a boat's power stands on this screen, what follows from it, and how to change it. */
export function usePower(rig: Rig, read: Readonly<Record<string, number>>) {
  const tell = useTell();
  const [setting, setSetting] = useState<PowerSetting>(() => ({ ...underWay(rig), charge: chargeOf(rig, read) }));
  const [volts, setVolts] = useState<Readonly<Record<string, number | undefined>>>(read);
  const [sources, setSources] = useState<ChargeSources>({ engines: [], shore: false });
  const [drain, setDrain] = useState<Omit<Drain, "setting">>({ buttons: {}, pumpEveryMin: null, airC: 20, years: 0 });
  const reasons = useMemo(() => explainPower(rig, setting, tell), [rig, setting, tell]);
  const charging = useMemo(() => listCharging(rig, setting, sources, tell), [rig, setting, sources, tell]);
  const whole: Drain = useMemo(() => ({ ...drain, setting }), [drain, setting]);
  const lasts = useMemo(() => askEndurance(rig, whole), [rig, whole]);
  const drawing = useMemo(() => listDrawing(rig, whole), [rig, whole]);
  const others = useMemo(() => compareSelectors(rig, whole), [rig, whole]);
  const toggle = (name: "tripped" | "loose" | "wiresOff", id: string) =>
    setSetting((now) => {
      const list = now[name] ?? [];
      return { ...now, [name]: list.includes(id) ? list.filter((each) => each !== id) : [...list, id] };
    });
  return {
    setting,
    sources,
    drain,
    reasons,
    charging,
    lasts,
    drawing,
    others,
    switches: useMemo(() => listSwitches(rig), [rig]),
    turn: (id: string, position: string | undefined) =>
      setSetting((now) => {
        const { [id]: _, ...rest } = now.positions;
        return { ...now, positions: position === undefined ? rest : { ...rest, [id]: position } };
      }),
    trip: (breaker: string) => toggle("tripped", breaker),
    loosen: (battery: string) => toggle("loose", battery),
    unwire: (load: string) => toggle("wiresOff", load),
    /** Volts at rest, as they were read; undefined is full. */
    volts,
    readVolts: (battery: string, value: number | undefined) => {
      setVolts((now) => ({ ...now, [battery]: value }));
      const share = value === undefined ? 1 : chargeOf(rig, { [battery]: value })[battery]!;
      setSetting((now) => ({ ...now, charge: { ...now.charge, [battery]: share } }));
    },
    setSources,
    setDrain: (change: Partial<Omit<Drain, "setting">>) => setDrain((now) => ({ ...now, ...change })),
    allOff: () => setSetting((now) => turnAllOff(rig, now)),
    leave: () => {
      setSetting((now) => asLeft(rig, now));
      const own = rig.loads.filter(({ label }) => /stereo|plotter|sounder/i.test(label));
      setDrain((now) => ({ ...now, buttons: Object.fromEntries(own.map(({ id }) => [id, true])) }));
    },
    mend: () => {
      setVolts({});
      setSetting((now) => ({ ...now, tripped: [], loose: [], wiresOff: [], charge: {} }));
    },
  };
}
export type Power = ReturnType<typeof usePower>;
