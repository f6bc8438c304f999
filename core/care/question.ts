import type { BreakInPack, Fill, TraceOutput } from "../breakin/index.ts";
import type { LocalDate } from "../dates/index.ts";
import type { Fleet, Reading } from "../hours/index.ts";
import type { Rig } from "../rig/index.ts";
import type { Done, ServicePack } from "../service/index.ts";

/** Break-in and service packs of a store, what ships with its own laid over it. */
export interface Packs {
  readonly breakIn: readonly BreakInPack[];
  readonly service: readonly ServicePack[];
  readonly boatCare: ServicePack;
}

/** What of a rig its care depends on. */
export type CareRig = Pick<Rig, "engines" | "tanks" | "batteries" | "trailer" | "used" | "modelYear">;

/** What the care of one boat is worked out from. Lists by day, and of one day as they were entered. */
export interface CareQuestion {
  readonly rig: CareRig;
  /** The day of its handover; null before it. */
  readonly inService: LocalDate | null;
  readonly today: LocalDate;
  readonly packs: Packs;
  readonly fleet: Fleet;
  readonly readings: readonly (Reading & { readonly engine: string })[];
  readonly fills: readonly Fill[];
  readonly services: readonly (Done & { readonly engine: string })[];
  readonly runs: readonly { readonly engine: string; readonly verdict: Pick<TraceOutput, "bands"> }[];
}

/** The readings of one engine. */
export const readingsOf = ({ readings }: Pick<CareQuestion, "readings">, engine: string): Reading[] =>
  readings.filter((reading) => reading.engine === engine);

/** The pack of that id; for a rig that names one which is not here, the first that ships, and its title says so. */
export function findPack<P extends { id: string; title: string }>(packs: readonly P[], id: string): P {
  const usual = packs[0]!;
  return packs.find((pack) => pack.id === id) ?? { ...usual, title: `${usual.title} ("${id}" is not in the library)` };
}
