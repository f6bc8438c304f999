import type { Place, Rig } from "./rig.ts";

/**
 * The rig at another length and beam: everything aboard keeps its share of both, what is ahead of the boat moves with the
 * stem, what is behind the transom or beside the hull keeps its distance.
 *
 * @example from 6 m to 7.2 m, a seat 3 m forward of the transom → 3.6 m.
 */
export function resizeRig(rig: Rig, loaM: number, beamM: number): Rig {
  if (loaM === rig.loaM && beamM === rig.beamM) return rig;
  const along = loaM / rig.loaM;
  const across = beamM / rig.beamM;
  const longerM = loaM - rig.loaM;
  const widerM = (beamM - rig.beamM) / 2;
  const move = ({ xM, yM }: Place): Place => {
    const isBeside = Math.abs(yM) > rig.beamM / 2;
    const x = xM > rig.loaM ? xM + longerM : xM > 0 ? xM * along : xM;
    return { xM: round(x), yM: round(isBeside ? yM + Math.sign(yM) * widerM : yM * across) };
  };
  const trailer =
    rig.trailer === null ? null : { ...rig.trailer, hitchToTransomM: round(rig.trailer.hitchToTransomM + longerM) };
  return {
    ...rig,
    loaM,
    beamM,
    trailer,
    boarding: move(rig.boarding),
    stations: rig.stations.map((station) => ({ ...station, at: move(station.at) })),
    parts: rig.parts.map((part) => ({ ...part, at: move(part.at) })),
  };
}

const round = (metres: number) => Math.round(metres * 100) / 100;
