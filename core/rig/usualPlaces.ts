import { addItem, changeItem, createItemId, createPart } from "./editRig.ts";
import type { Part, PartKind, Place, Rig } from "./rig.ts";
import { readPower, setPower } from "./setPower.ts";

/** Where boats usually have a thing: forward in shares of the length, to starboard in shares of half the beam. */
const usualShares: Partial<Record<PartKind, readonly [forward: number, side: number]>> = {
  plug: [0.01, 0.1],
  "flush-port": [-0.03, 0],
  "through-hull": [0.06, -0.3],
  fill: [0.16, 0.8],
  blower: [0.1, -0.5],
  "charger-socket": [0.14, -0.8],
  selector: [0.12, -0.4],
  extinguisher: [0.38, 0.55],
  breakers: [0.45, 0.5],
  panel: [0.5, 0.35],
  horn: [0.52, 0.2],
  lanyard: [0.47, 0.25],
  "capacity-plate": [0.42, -0.5],
  jackets: [0.7, 0.3],
};
const middle = [0.5, 0] as const;

/**
 * The rig with these things put where such boats usually have them, and with the battery and switch of its scheme and a fuel
 * tank where it has none. Each place is a guess and marked as one (`usual`) until somebody has looked.
 */
export function putUsual(rig: Rig, kinds: readonly PartKind[]): Rig {
  const known = new Set(rig.parts.map(({ id }) => id));
  const powered = rig.powerSwitches.length === 0 ? setPower(rig, readPower(rig)) : rig;
  // A selector comes with the scheme.
  const missing = [...new Set(kinds)].filter((kind) => kind !== "selector" || !has(powered, kind));
  const placed = missing.reduce((now, kind) => put(now, kind).rig, powered);
  const filled = addFills(addTank(placed));
  const mark = (part: Part): Part => (known.has(part.id) ? part : { ...part, usual: true });
  return { ...filled, parts: filled.parts.map(mark) };
}

const has = (rig: Rig, kind: PartKind) => rig.parts.some((part) => part.kind === kind);

function put(rig: Rig, kind: PartKind): { readonly rig: Rig; readonly id: string } {
  const part = createPart(rig, kind, usualPlace(rig, kind));
  return { rig: addItem(rig, "parts", part), id: part.id };
}

/** The rig with one thing more where such boats usually have it, to be looked at. */
export function putOneUsual(rig: Rig, kind: PartKind): Rig {
  const { rig: next, id } = put(rig, kind);
  return changeItem(next, "parts", id, { usual: true });
}

function usualPlace({ loaM, beamM }: Rig, kind: PartKind): Place {
  const [forward, side] = usualShares[kind] ?? middle;
  return { xM: round(loaM * forward), yM: round((beamM / 2) * side * 0.85) };
}
const round = (metres: number) => Math.round(metres * 100) / 100;

/** What a tank holds of which nobody has read the plate yet, litres. */
const usualL = 100;

function addTank(rig: Rig): Rig {
  const [fuel] = rig.engines.map((engine) => engine.fuel ?? ("petrol" as const));
  const isThere = rig.tanks.some(({ kind }) => kind === "petrol" || kind === "diesel") || has(rig, "portable-tank");
  if (isThere || fuel === undefined) return rig;
  const id = createItemId(rig, "tanks", "Fuel");
  return addItem(rig, "tanks", { id, kind: fuel, label: "Fuel", litres: usualL, usual: true });
}

function addFills(rig: Rig): Rig {
  return rig.tanks.reduce((now, tank) => {
    if (tank.fill !== undefined || has(now, "portable-tank")) return now;
    const free = now.parts.find(({ id, kind }) => kind === "fill" && !now.tanks.some(({ fill }) => fill === id));
    const { rig: next, id } = free === undefined ? put(now, "fill") : { rig: now, id: free.id };
    return changeItem(next, "tanks", tank.id, { fill: id });
  }, rig);
}

/** Things of which nobody has said yet whether they stand where such boats usually have them. */
export const listUsual = (rig: Rig): Part[] => rig.parts.filter(({ usual }) => usual === true);

/** The rig whose things all stand where they are drawn: somebody has looked. */
export const confirmUsual = (rig: Rig): Rig => ({
  ...rig,
  parts: rig.parts.map(({ usual: _, ...part }) => part),
});
