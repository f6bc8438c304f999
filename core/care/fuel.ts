import {
  burnOf,
  createLimits,
  type Fill,
  measureFuel,
  type TankBurn,
  tanksBurnt,
  toHours,
  turnTanks,
} from "../breakin/index.ts";
import type { Resolved } from "../hours/index.ts";
import { type Engine, type Rig, sumTankL } from "../rig/index.ts";
import { findPack, type Packs } from "./question.ts";

/** The engines that burn what is noted as fuel: those of the main engines' fuel, kickers aside. */
const sharing = (rig: Pick<Rig, "engines">, fuel: "petrol" | "diesel") =>
  Math.max(1, rig.engines.filter((each) => fuelKind(each) === fuel && each.kind !== "kicker").length);
const fuelKind = (engine: Engine) => engine.fuel ?? "petrol";

/** What the tanks hold of the fuel of the main engines, L; 0 where it is not on the rig sheet, or nobody has read it. */
export function sumTanks(rig: Pick<Rig, "engines" | "tanks">): number {
  const main = rig.engines.find(({ kind }) => kind !== "kicker") ?? rig.engines[0];
  return main === undefined ? 0 : sumTankL(rig, [fuelKind(main)]);
}

/**
 * What a tank holds for each engine that burns it, and how fast: as measured from full tanks to full tanks, else as entered on
 * the rig sheet; null where neither is known. A kicker burns too little of what is put in to be told from it.
 */
export function fuelOf(
  rig: Pick<Rig, "engines" | "tanks">,
  engine: Engine,
  fills: readonly Fill[],
  resolved: readonly Resolved[],
): TankBurn | null {
  const fuel = fuelKind(engine);
  const litres = sumTankL(rig, [fuel]);
  if (litres === 0) return null;
  const engines = sharing(rig, fuel);
  const used =
    engine.kind === "kicker" || fuel !== fuelKind(rig.engines.find(({ kind }) => kind !== "kicker")!)
      ? null
      : measureFuel(fills, engines, (day) => resolved.findLast(({ date }) => date === day)?.engineH ?? null);
  const burnLph = used === null ? engine.burnLph : burnOf(used);
  return burnLph === undefined || burnLph <= 0 ? null : { tankL: litres / engines, burnLph, used };
}

/** What tanks of fuel come to in hours: at the lowest, likely and highest burn, and what was burnt of them. */
export function describeTanks(tanks: number, fuel: TankBurn, hours: number) {
  const last = fuel.used?.points.at(-1);
  const measured = last === undefined ? null : { litres: last.litres, hours: last.hours - fuel.used!.fromH };
  const burnt = tanksBurnt(hours, fuel);
  return { tanks, burnt, ...turnTanks(tanks, fuel), burnLph: fuel.burnLph, measured };
}

/** The limits that hold for an engine, for its runs to be judged by; empty where its tanks are not known. */
export function limitsOf(engine: Engine, packs: Packs, fuel: TankBurn | null) {
  const pack = toHours(findPack(packs.breakIn, engine.breakInPack), fuel);
  return pack === null ? [] : createLimits(pack, engine.ratedRpm.to);
}
