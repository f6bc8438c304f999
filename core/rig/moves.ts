import { closeMoves } from "../paths/closeMoves.ts";
import type { Place, Rig, Station } from "./rig.ts";

/** How people move about a boat on a handover: our own estimates, to be timed and corrected by the store. */
export const movePace = { settleMin: 0.3, walkMPerMin: 25, climbMin: 1 } as const;

export interface MoveMap {
  /** Minutes from row to column, in the order of `rig.stations`; 0 on the diagonal. */
  readonly moveMin: number[][];
  /** The way people take between two stations, both ends included, in metres. */
  course(from: number, to: number): Place[];
}

interface Spot {
  readonly at: Place;
  readonly level: "ground" | "aboard";
}

/**
 * Minutes and ways between all stations of a rig. On the ground people go round the hull, aboard they go straight, and
 * between the two they climb at the boarding place. Minutes: a settling time, the way at walking pace, the climb.
 */
export function createMoveMap(rig: Rig): MoveMap {
  const spots: Spot[] = [
    ...rig.stations,
    { at: rig.boarding, level: "aboard" },
    { at: besideBoarding(rig), level: "ground" },
    ...cornersOf(rig).map((at): Spot => ({ at, level: "ground" })),
  ];
  const boardAboard = rig.stations.length;
  const boardGround = boardAboard + 1;
  const direct = spots.map((from, i) =>
    spots.map((to, j) => {
      if (i === j) return 0;
      const isClimb = (i === boardAboard && j === boardGround) || (i === boardGround && j === boardAboard);
      if (isClimb) return movePace.climbMin * movePace.walkMPerMin;
      if (from.level !== to.level) return Number.POSITIVE_INFINITY;
      if (from.level === "ground" && crossesHull(from.at, to.at, rig)) return Number.POSITIVE_INFINITY;
      return Math.hypot(from.at.xM - to.at.xM, from.at.yM - to.at.yM);
    }),
  );
  const far = closeMoves(direct);
  return {
    moveMin: rig.stations.map((_, i) =>
      rig.stations.map((_, j) => (i === j ? 0 : movePace.settleMin + far[i]![j]! / movePace.walkMPerMin)),
    ),
    course(from, to) {
      const way = [from];
      let at = from;
      while (at !== to) {
        const next = spots
          .map((_, k) => k)
          .filter((k) => k !== at && !way.includes(k) && Number.isFinite(direct[at]![k]!))
          .reduce((a, b) => (direct[at]![b]! + far[b]![to]! < direct[at]![a]! + far[a]![to]! ? b : a));
        way.push(next);
        at = next;
      }
      return way.map((k) => spots[k]!.at);
    },
  };
}

const clearanceM = 0.6;

/** Where one stands on the ground before climbing aboard: behind the transom, or beside a gate in the side. */
function besideBoarding({ boarding: { xM, yM }, beamM }: Rig): Place {
  return xM < 1 ? { xM: -0.55, yM } : { xM, yM: Math.sign(yM) * (beamM / 2 + 0.45) };
}

/** The points on the ground at which people turn when they go round the hull. */
export function cornersOf(rig: Rig): Place[] {
  const side = rig.beamM / 2 + clearanceM;
  const ahead = rig.loaM + 0.3;
  const behind = -1.1;
  return [
    { xM: ahead, yM: -side * 0.45 },
    { xM: ahead, yM: side * 0.45 },
    { xM: rig.loaM * 0.55, yM: -side },
    { xM: rig.loaM * 0.55, yM: side },
    { xM: behind, yM: -side },
    { xM: behind, yM: side },
  ];
}

/** Whether the straight way between two spots on the ground cuts the hull, seen as its middle line and beam lines. */
function crossesHull(a: Place, b: Place, rig: Rig): boolean {
  const steps = 24;
  for (let s = 1; s < steps; s++) {
    const t = s / steps;
    const xM = a.xM + (b.xM - a.xM) * t;
    const yM = a.yM + (b.yM - a.yM) * t;
    const along = xM / rig.loaM;
    const half = (rig.beamM / 2) * (along < 0.6 ? 1 : Math.max(0, 1 - ((along - 0.6) / 0.4) ** 2));
    if (xM > -0.4 && along < 1 && Math.abs(yM) < half) return true;
  }
  return false;
}

/** The station a topic is told at: the first of the wanted kinds that this boat has. */
export function findStation(rig: Rig, kinds: readonly Station["kind"][]): Station | null {
  for (const kind of kinds) {
    const station = rig.stations.find((candidate) => candidate.kind === kind);
    if (station) return station;
  }
  return null;
}
