import type { Place, Rig, Station, StationKind } from "./rig.ts";

/** What is known of a boat before anyone has stood on it. */
export interface BoatFacts {
  readonly family: Rig["family"];
  readonly maker: string;
  readonly model: string;
  readonly modelYear: number;
  readonly loaM: number;
  readonly beamM: number;
  readonly hasTrailer: boolean;
}

/** Where people stand, forward in shares of the length and to starboard in shares of half the beam. */
const aboard: readonly [StationKind, string, forwardShare: number, sideShare: number][] = [
  ["bilge", "Stern locker", 0.12, 0],
  ["cockpit", "Cockpit", 0.28, -0.35],
  ["helm", "Helm", 0.46, 0.35],
  ["bow", "Bow", 0.72, 0],
  ["anchor", "Anchor locker", 0.88, 0],
];

const hitchAheadM = 1.45;
const beltM = 0.7;

/**
 * A rig to begin with: its family's places to stand, one battery and a switch to it not yet placed, one engine, no options.
 * Everything else is for the sheet. Places scale with length and beam.
 */
export function createRig({ hasTrailer, ...facts }: BoatFacts): Rig {
  const { loaM, beamM, family } = facts;
  const isInside = family === "tow-sport" || family === "bowrider" || family === "cuddy";
  const kind = family === "tow-sport" ? "inboard" : isInside ? "sterndrive" : "outboard";
  const care = isInside ? ["drive-20", "drive-20-100"] : ["stepped-10", "outboard-20-100"];
  return {
    format: "ravik.rig/1",
    ...facts,
    ...(family === "pontoon" ? { tubes: 2 as const } : {}),
    enclosedFuel: isInside,
    boarding: { xM: round(loaM * 0.06), yM: round(beamM * 0.32) },
    stations: listStations(loaM, beamM, hasTrailer),
    parts: [],
    batteries: [],
    powerScheme: "single",
    powerSwitches: [],
    loads: [],
    panel: [],
    breakers: [],
    engines: [
      {
        id: "main",
        label: "Engine",
        kind,
        fuel: "petrol",
        start: "electric",
        // Equal ends: not read from the manual yet. The sheet asks for it (checkRig, rated-band-upside-down).
        ratedRpm: { from: 5000, to: 5000 },
        breakInPack: care[0]!,
        servicePack: care[1]!,
      },
    ],
    tanks: [],
    throughHulls: [],
    trailer: hasTrailer ? createTrailer(loaM) : null,
    gear: [
      { id: "keys", label: "Ignition keys", group: "keys", count: 2, must: true },
      { id: "papers", label: "Registration and insurance papers", group: "papers", count: 1, must: true },
      { id: "manuals", label: "Owner's manuals", group: "papers", count: 1, must: true },
    ],
  };
}

/** A trailer to begin with; every number is to be read from its plate. */
export function createTrailer(loaM: number): NonNullable<Rig["trailer"]> {
  return {
    axles: 1,
    brakes: "none",
    lockOut: "none",
    pins: 4,
    hitchToTransomM: round(loaM + hitchAheadM),
  };
}

function listStations(loaM: number, beamM: number, hasTrailer: boolean): Station[] {
  const half = beamM / 2;
  const ground = (kind: StationKind, label: string, xM: number, yM: number): Station => ({
    id: kind,
    kind,
    label,
    at: at(xM, yM),
    level: "ground",
  });
  return [
    ...(hasTrailer
      ? [
          ground("coupler", "Coupler", loaM + hitchAheadM, 0),
          ground("winch", "Winch post", loaM + 0.1, -beltM),
          ground("wheels", "Wheels, port side", loaM * 0.32, -half - beltM),
        ]
      : []),
    ground("transom", "Transom, from behind", -1.15, -beltM),
    ground("engines", "Engine, from behind", -1.15, beltM),
    ...aboard.map(
      ([kind, label, forward, side]): Station => ({
        id: kind,
        kind,
        label,
        at: at(loaM * forward, half * side * 0.8),
        level: "aboard",
      }),
    ),
  ];
}

const round = (metres: number) => Math.round(metres * 100) / 100;
const at = (xM: number, yM: number): Place => ({ xM: round(xM), yM: round(yM) });
