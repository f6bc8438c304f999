import type { Rig } from "../rig/index.ts";
import type { TowRules } from "./rulePack.ts";
import type { TowInput, TowOutput } from "./tow.ts";
import { densities, tow } from "./tow.ts";
import type { Vehicle } from "./vehicle.ts";

type Check = TowOutput["checks"][number];
type CheckId = Check["id"];

/** What rides along: shares of full tanks, gear in kg. */
export interface TowLoad {
  readonly fuelShare: number;
  readonly waterShare: number;
  readonly ballastShare: number;
  readonly gearKg: number;
}

export interface TowCheckSheet {
  readonly ask: TowInput;
  /** By the contract, over all that was read; null where what is towed is not known at all. */
  readonly answer: TowOutput | null;
  /** What can be said, the weakest first. */
  readonly checks: readonly Check[];
  /** Checks whose limit nobody has read. */
  readonly unread: readonly CheckId[];
  /** Masses nobody knows: without them nothing is said. */
  readonly missing: readonly ("boat" | "trailer" | "tongue")[];
}

/** Stands for a limit that was not read: nothing comes near it, and its check is left out. */
const noLimitKg = 1e6;

/**
 * The contract `tow` for a boat, its trailer and a car as far as their plates were read. A limit that nobody has read is no
 * limit in the answer and is named in `unread`; no figure is made up.
 */
export function askTow(rig: Rig, vehicle: Vehicle | null, load: TowLoad, rules: TowRules): TowCheckSheet {
  const { trailer, weights } = rig;
  const litresOf = (...kinds: string[]) =>
    rig.tanks.filter(({ kind }) => kinds.includes(kind)).reduce((sum, { litres }) => sum + litres, 0);
  const petrolL = litresOf("petrol") * load.fuelShare;
  const dieselL = litresOf("diesel") * load.fuelShare;
  const unread = new Set<CheckId>();
  const read = (value: number | undefined, check: CheckId, other: number = noLimitKg): number => {
    if (value === undefined) unread.add(check);
    return value ?? other;
  };
  const ask: TowInput = {
    boat: {
      dryKg: weights?.dryKg ?? 0,
      enginesKg: weights?.enginesKg ?? 0,
      fuelL: Math.max(dieselL, petrolL),
      fuelKind: dieselL > petrolL ? "diesel" : "petrol",
      waterL: litresOf("fresh-water") * load.waterShare,
      ballastL: (weights?.ballastL ?? 0) * load.ballastShare,
      gearKg: load.gearKg,
    },
    trailer: {
      kg: trailer?.kg ?? 0,
      grossLimitKg: read(trailer?.grossLimitKg, "trailer-gross"),
      axleLimitKg: read(trailer?.axleLimitKg, "axles"),
      tyres: trailer?.tyres ?? (trailer?.axles ?? 1) * 2,
      tyreLimitKg: read(trailer?.tyreLimitKg, "tyres"),
      couplerLimitKg: read(trailer?.couplerLimitKg, "coupler"),
      couplerBallMm: read(trailer?.ballMm, "ball-size", 50),
      tongueLimitKg: read(trailer?.tongueLimitKg, "tongue-trailer"),
      brakes: trailer?.brakes ?? "none",
      pins: trailer?.pins ?? 4,
    },
    vehicle: {
      kg: read(vehicle?.kg, "combined", 0),
      loadKg: vehicle?.loadKg ?? 0,
      payloadKg: read(vehicle?.payloadKg, "payload"),
      towLimitKg: trailer?.brakes === "none" ? 0 : read(vehicle?.towLimitKg, "vehicle-tow"),
      brakelessLimitKg: trailer?.brakes === "none" ? read(vehicle?.brakelessLimitKg, "vehicle-tow") : 0,
      tongueLimitKg: read(vehicle?.tongueLimitKg, "tongue-vehicle"),
      combinedLimitKg: read(vehicle?.combinedLimitKg, "combined"),
      hitchLimitKg: read(vehicle?.hitchLimitKg, "hitch"),
      ballMm: sameSize(read(vehicle?.ballMm, "ball-size", 50), trailer?.ballMm),
      ballLimitKg: read(vehicle?.ballLimitKg, "ball"),
      pins: read(vehicle?.pins, "plug", 20),
    },
    tongueKg: trailer?.tongueKg ?? 0,
    rules: {
      tongueShareMin: rules.tongueShareMin,
      tongueShareMax: rules.tongueShareMax,
      brakesAboveKg: rules.brakesAboveKg,
    },
  };
  const missing = [
    ...(weights?.dryKg === undefined ? (["boat"] as const) : []),
    ...(trailer?.kg === undefined ? (["trailer"] as const) : []),
    ...(trailer?.tongueKg === undefined ? (["tongue"] as const) : []),
  ];
  const answer = tow(ask);
  // Whatever it weighs, a ball that is too small lets go and a plug without its pins brakes nothing.
  if (missing.some((what) => what !== "tongue")) {
    const checks = answer.checks.filter(({ id }) => (id === "ball-size" || id === "plug") && !unread.has(id));
    return { ask, answer: null, checks, unread: [...unread], missing };
  }
  // An unknown tongue weight says nothing of what it would be held against.
  if (missing.includes("tongue"))
    for (const check of ["payload", "tongue-vehicle", "tongue-trailer", "tongue-share"] as const) unread.add(check);
  // What does not fit at all is a stop, whatever else is too heavy.
  const weight = ({ verdict, ratio, limit }: Check) => (verdict !== "over" ? ratio : limit === 0 ? 1e9 : 1e6 + ratio);
  const checks = answer.checks.filter(({ id }) => !unread.has(id)).sort((a, b) => weight(b) - weight(a));
  return { ask, answer, checks, unread: [...unread], missing };
}

/** Balls are stamped to a tenth: 2 5/16 in is 58.7 mm on one and 58.7375 on another. A real difference is ten times that. */
const sameSizeMm = 0.1;
const sameSize = (ballMm: number, couplerMm: number | undefined): number =>
  couplerMm !== undefined && Math.abs(ballMm - couplerMm) <= sameSizeMm ? couplerMm : ballMm;

/** What fuel, water, ballast and gear weigh together: all that can be taken out on the road. Kilograms. */
export const looseKgOf = ({ boat }: TowInput): number =>
  boat.fuelL * densities[boat.fuelKind] + (boat.waterL + boat.ballastL) * densities.water + boat.gearKg;

/**
 * Tongue weight by a bathroom scale and a beam: the coupler bears on a beam that rests on a support on one side and on the scale on
 * the other. (Law of the lever: scale × (coupler to support + coupler to scale) / coupler to support.)
 *
 * @param supportM from the coupler to the support. @param scaleM from the coupler to the scale, on the other side. @returns kg
 * @example 60 kg on the scale, 0.3 m to the support, 0.9 m to the scale → 240 kg.
 */
export const tongueByLever = (scaleKg: number, supportM: number, scaleM: number): number =>
  (scaleKg * (supportM + scaleM)) / supportM;

/**
 * How tongue weight changes when something is moved forward (backward: negative), by moments about the axle.
 *
 * @param axleToHitchM from the middle of the axles to the ball. @returns kg more on the ball
 * @example 40 kg moved 2 m forward on a trailer with 5 m from axle to ball → 16 kg.
 */
export const tongueByMoving = (kg: number, forwardM: number, axleToHitchM: number): number =>
  (kg * forwardM) / axleToHitchM;

/** As boats are towed home from the yard: tanks full, ballast empty, the gear of the sheet. */
export const usualLoad = (rig: Rig): TowLoad => ({
  fuelShare: 1,
  waterShare: rig.tanks.some(({ kind }) => kind === "fresh-water") ? 1 : 0,
  ballastShare: 0,
  gearKg: Math.round(rig.weights?.gearKg ?? 0),
});

/** What of a car is known not to fit, the worst first: nothing for what nobody has read. */
export const listMisfits = (rig: Rig, vehicle: Vehicle, rules: TowRules): CheckId[] =>
  rig.trailer === null
    ? []
    : askTow(rig, vehicle, usualLoad(rig), rules).checks.flatMap(({ id, verdict }) => (verdict === "over" ? [id] : []));
