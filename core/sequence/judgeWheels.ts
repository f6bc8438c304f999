import type { Verdict } from "../measure/index.ts";

/** One reading to be taken at a wheel. */
export interface WheelRead {
  readonly id: string;
  readonly wheel: string;
  readonly label: string;
  readonly asks: "tyres" | "hubs" | "warm-tyres";
  /** Cold, as the plate says; null for hubs and where nobody has read it. */
  readonly plateKpa: number | null;
}

/** By the back of the hand, where there is no heat gun. */
export const feels = ["cool", "warm", "hot"] as const;
export type Feel = (typeof feels)[number];

/** °C of a hub or kPa of a tire, or how the hub felt. */
export interface WheelReading {
  readonly value?: number | undefined;
  readonly feel?: Feel | undefined;
}
export interface JudgedWheel {
  readonly verdict: Verdict;
  readonly says: string;
}

/**
 * Ours, on the safe side of what bearing makers write: a hand cannot stay on 60 °C, grease of a trailer bearing begins to
 * suffer well above that, and a bearing or brake in trouble shows first as the odd one out.
 */
const hubC = { watch: 60, hot: 75, watchApart: 12, hotApart: 25 } as const;
/** Tires gain about a tenth to a fifth on the road; one that gained nothing has lost air, one that gained more works too hard. */
const tyreShare = { cold: 0.05, coldMost: 0.15, least: 0, most: 0.25, apart: 0.1 } as const;

/** What the readings of all wheels mean, by the read's id: each by itself, and side against side. °C and kPa. */
export function judgeWheels(
  reads: readonly WheelRead[],
  taken: ReadonlyMap<string, WheelReading>,
): ReadonlyMap<string, JudgedWheel> {
  const judged = new Map<string, JudgedWheel>();
  for (const read of reads) {
    const reading = taken.get(read.id);
    if (reading === undefined) continue;
    const others = reads
      .filter(({ id }) => id !== read.id && !id.endsWith("-spare"))
      .flatMap(({ id }) => taken.get(id)?.value ?? []);
    judged.set(read.id, read.asks === "hubs" ? judgeHub(reading, others) : judgeTyre(read, reading, others));
  }
  return judged;
}

const stopNow = "Hot: do not drive on. Let it cool, look at bearing and brake, and call the yard.";
const watchIt = "Warmer than it should be: drive slowly, stop again in ten minutes, and have the bearing looked at.";

function judgeHub({ value, feel }: WheelReading, others: readonly number[]): JudgedWheel {
  if (value === undefined)
    return feel === "hot" ? { verdict: "over", says: stopNow } : { verdict: "fits", says: "As it should be." };
  const apart = others.length === 0 ? 0 : value - Math.min(...others);
  if (value >= hubC.hot || apart >= hubC.hotApart) return { verdict: "over", says: stopNow };
  if (value >= hubC.watch) return { verdict: "tight", says: watchIt };
  return apart >= hubC.watchApart
    ? { verdict: "tight", says: "Warmer than the other side: have it looked at, and feel it again at the next stop." }
    : { verdict: "fits", says: "Warm, as it should be." };
}

function judgeTyre({ asks, plateKpa }: WheelRead, { value }: WheelReading, others: readonly number[]): JudgedWheel {
  const kpa = value ?? 0;
  if (plateKpa === null)
    return {
      verdict: "unknown",
      says: "The plate's pressure is not on the boat sheet: read it on the tire or the plate.",
    };
  const share = kpa / plateKpa - 1;
  if (asks === "tyres") {
    if (Math.abs(share) <= tyreShare.cold) return { verdict: "fits", says: "As the plate says." };
    return {
      verdict: Math.abs(share) <= tyreShare.coldMost ? "tight" : "over",
      says: share < 0 ? "Too little: put it right before the road." : "Too much: put it right before the road.",
    };
  }
  if (share < tyreShare.least)
    return { verdict: "over", says: "Under the cold pressure although it is warm: it loses air. Change the wheel." };
  if (share > tyreShare.most)
    return {
      verdict: "over",
      says: "Far above the cold pressure: slow down and look for a dragging brake or too much load. Let no air out.",
    };
  return others.some((other) => Math.abs(kpa - other) > tyreShare.apart * plateKpa)
    ? { verdict: "tight", says: "The sides differ: look at tire, brake and bearing of the one that is higher." }
    : { verdict: "fits", says: "Risen a little, as it should." };
}
