import { readFigure } from "./figures.ts";
import type { Rig } from "./rig.ts";

/** Figures read off one plate, or measured in one go. */
export interface Unread {
  readonly section: "boat" | "trailer" | "engines" | "tanks" | "power";
  /** Paths, as `readFigure` takes them: "trailer.tyreKpa", "tanks.fuel.litres". */
  readonly paths: readonly string[];
}

const weightPaths = ["dryKg", "enginesKg", "gearKg", "ballastL", "sternDraftM"].map((name) => `weights.${name}`);
const ofTrailer = (names: readonly string[]) => names.map((name) => `trailer.${name}`);
const towPaths = ofTrailer([
  ...["ballMm", "tyreKpa", "grossLimitKg", "kg", "axleLimitKg", "tyreLimitKg", "couplerLimitKg", "tongueLimitKg"],
  ...["tongueKg", "tyres"],
]);
const rampPaths = ofTrailer(["bunkHeightM", "fenderFromTransomM", "fenderHeightM"]);
const missing = (rig: Rig, paths: readonly string[]) => paths.filter((path) => readFigure(rig, path) === undefined);

/** Weights and draft that nobody has entered. */
export const listUnreadWeights = (rig: Rig): string[] => missing(rig, weightPaths);
/** Figures for the tow card, then for the ramp card, that nobody has read or measured; none without a trailer. */
export const listUnreadTrailer = (rig: Rig): { tow: string[]; ramp: string[] } =>
  rig.trailer === null ? { tow: [], ramp: [] } : { tow: missing(rig, towPaths), ramp: missing(rig, rampPaths) };

/**
 * Every figure of a rig that somebody has to read on the boat, by where one stands to read it, places with none left out:
 * missing ones, and those put in as such boats usually have them (`usual`).
 */
export function listUnread(rig: Rig): Unread[] {
  const { tow, ramp } = listUnreadTrailer(rig);
  const rated = rig.engines.filter(({ ratedRpm: { from, to } }) => from >= to);
  const groups: Unread[] = [
    { section: "boat", paths: listUnreadWeights(rig) },
    {
      section: "engines",
      paths: rated.flatMap(({ id }) => ["from", "to"].map((end) => `engines.${id}.ratedRpm.${end}`)),
    },
    { section: "tanks", paths: rig.tanks.filter(isUsual).map(({ id }) => `tanks.${id}.litres`) },
    { section: "power", paths: rig.batteries.filter(isUsual).map(({ id }) => `batteries.${id}.capacityAh`) },
    { section: "trailer", paths: [...tow, ...ramp] },
  ];
  return groups.filter(({ paths }) => paths.length > 0);
}

const isUsual = ({ usual }: { usual?: boolean | undefined }) => usual === true;

/** Whether a figure stands in for one that nobody has read: it is shown as none. */
export function isStandIn(rig: Rig, path: string): boolean {
  const [list, id, figure] = path.split(".");
  if (list === "tanks" && figure === "litres") return rig.tanks.some((tank) => tank.id === id && isUsual(tank));
  return (
    list === "batteries" && figure === "capacityAh" && rig.batteries.some((each) => each.id === id && isUsual(each))
  );
}

/** What the tanks of these kinds hold, litres, as far as somebody has read it; 0 where nobody has. */
export const sumTankL = (rig: Pick<Rig, "tanks">, kinds: readonly Rig["tanks"][number]["kind"][]): number =>
  rig.tanks.reduce((sum, tank) => (kinds.includes(tank.kind) && !isUsual(tank) ? sum + tank.litres : sum), 0);
