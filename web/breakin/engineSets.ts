import type { EngineCare } from "../../api/index.ts";

/** Engines that follow one list of legs: a pair whose levers are moved together, or a single engine. */
export interface Lane {
  readonly label: string;
  readonly care: readonly EngineCare[];
}

/** A way of running a boat's engines: each lane has its own legs, side by side. */
export interface EngineSet {
  readonly key: string;
  readonly label: string;
  readonly lanes: readonly Lane[];
}

/** The ways there are, the usual one first: a pair together, then each by its own plan; a kicker always by itself. */
export function listSets(care: readonly EngineCare[]): EngineSet[] {
  const laneOf = (one: EngineCare): Lane => ({ label: one.label, care: [one] });
  const alone = (one: EngineCare): EngineSet => ({ key: one.engine, label: one.label, lanes: [laneOf(one)] });
  const mains = care.filter(({ kind }) => kind !== "kicker");
  const kickers = care.filter(({ kind }) => kind === "kicker");
  if (mains.length < 2) return [...mains, ...kickers].map(alone);
  const together = mains.length === 2 ? "Both engines" : "All engines";
  return [
    { key: "together", label: `${together} together`, lanes: [{ label: together, care: mains }] },
    { key: "apart", label: "Each by its own plan", lanes: mains.map(laneOf) },
    ...kickers.map(alone),
  ];
}
