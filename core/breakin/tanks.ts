import type { LocalDate } from "../dates/index.ts";
import type { BreakInPack } from "./breakIn.ts";

/** Fuel put into a boat's tanks on a day; `isFull` when they were full then. */
export interface Fill {
  readonly date: LocalDate;
  readonly litres: number;
  readonly isFull: boolean;
}

/** What one engine has burnt by its hours since the first full tanks, reported at each time they were full again. */
export interface FuelUse {
  readonly fromH: number;
  readonly points: readonly { readonly hours: number; readonly litres: number }[];
}

/** The fuel a break-in by tanks is counted in: litres of a tank, litres an hour, and what of that was measured. */
export interface TankBurn {
  readonly tankL: number;
  readonly burnLph: number;
  readonly used: FuelUse | null;
}

/** How far a burn may be off in hours that are still to come, by what is usual between slow and fast running. */
const burnSpread = 0.3;
/** Over fewer hours a brim that is not quite one says more than the engine does. */
const leastMeasuredH = 1;

/**
 * What an engine burnt, from full tanks to full tanks: what goes in at the second was burnt since the first, whatever else
 * was put in between. A fill on a day of which no hours are known only adds its litres. `fills` by date, of engines that
 * share their tanks; `sharing` how many these are; `hoursOn` the engine's hours reported on a day. Null where not enough is known.
 *
 * @example full at 2 h; 30 L, not full; 42 L, full at 6 h → 72 L in 4 h: 18 L/h.
 */
export function measureFuel(
  fills: readonly Fill[],
  sharing: number,
  hoursOn: (date: LocalDate) => number | null,
): FuelUse | null {
  let fromH: number | null = null;
  let litres = 0;
  const points: { hours: number; litres: number }[] = [];
  for (const fill of fills) {
    const hours = fill.isFull ? hoursOn(fill.date) : null;
    if (fromH !== null) litres += fill.litres / sharing;
    if (hours === null) continue;
    if (fromH === null) fromH = hours;
    else if (hours > (points.at(-1)?.hours ?? fromH)) points.push({ hours, litres });
    // Topped up again before it ran: burnt before that hour, too.
    else if (points.length > 0) points[points.length - 1] = { hours, litres };
    else litres = 0;
  }
  const last = points.at(-1);
  return fromH === null || last === undefined || last.hours - fromH < leastMeasuredH ? null : { fromH, points };
}

/** Litres an hour that were measured, over all of it. */
export const burnOf = ({ fromH, points }: FuelUse): number => points.at(-1)!.litres / (points.at(-1)!.hours - fromH);

type Line = readonly (readonly [x: number, y: number])[];

/** Litres burnt by the hours, from a new engine on, as far as it is known; what was not measured burnt `lph`. */
const lineOf = (used: FuelUse | null, lph: number): Line =>
  used === null
    ? [[0, 0]]
    : [
        [0, 0],
        [used.fromH, used.fromH * lph],
        ...used.points.map(({ hours, litres }) => [hours, used.fromH * lph + litres] as const),
      ];

/** The y of a rising line at x, straight between its points, and on by `slope` after the last. */
function follow(line: Line, x: number, slope: number): number {
  const i = line.findIndex(([end]) => x <= end);
  if (i === 0) return line[0]![1];
  const [fromX, fromY] = i === -1 ? line.at(-1)! : line[i - 1]!;
  const rise = i === -1 ? slope : (line[i]![1] - fromY) / (line[i]![0] - fromX);
  return fromY + (x - fromX) * rise;
}

/** The engine hours at which so many litres are burnt, where what was not measured burns `factor` times the usual. */
function hoursAt(litres: number, { burnLph, used }: TankBurn, factor: number): number {
  const lph = burnLph * factor;
  const turned = lineOf(used, lph).map(([hours, burnt]) => [burnt, hours] as const);
  return follow(turned, litres, 1 / lph);
}

/** How many tanks are burnt at so many engine hours, as far as is known. */
export const tanksBurnt = (hours: number, { tankL, burnLph, used }: TankBurn): number =>
  follow(lineOf(used, burnLph), hours, burnLph) / tankL;

/**
 * Hours at which `tanks` are burnt, with the spread of the burn: less where more is burnt. What was measured is spread no more.
 * (3 tanks of 60 L at 18 L/h) → 10 h, 7.7 to 14.3.
 */
export function turnTanks(tanks: number, fuel: TankBurn): { lowH: number; likelyH: number; highH: number } {
  const at = (factor: number) => hoursAt(tanks * fuel.tankL, fuel, factor);
  return { lowH: at(1 + burnSpread), likelyH: at(1), highH: at(1 - burnSpread) };
}

/** The pack with its stages in engine hours; null for one by tanks where tank or burn is not known. */
export function toHours(pack: BreakInPack, fuel: TankBurn | null): BreakInPack | null {
  if (pack.per !== "tank") return pack;
  if (fuel === null) return null;
  const hours = (tanks: number) => turnTanks(tanks, fuel).likelyH;
  return {
    ...pack,
    per: "hour",
    totalH: hours(pack.totalH),
    phases: pack.phases.map((phase) => ({ ...phase, fromH: hours(phase.fromH), toH: hours(phase.toH) })),
  };
}
