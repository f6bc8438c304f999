import type { EnduranceOutput } from "../../core/power/index.ts";
import { nameBattery as nameOf, type Rig } from "../../core/rig/index.ts";
import { joinWords, lowerFirst } from "../../core/text/index.ts";
import { formatMinuteOfDay } from "../ui/words.ts";

const minutesPerHour = 60;
const minutesPerDay = 24 * minutesPerHour;

/** When it is so many hours from now, as people say it: "02:10", "02:10 tomorrow", "in 4 days". */
export function sayWhen(hours: number, nowMin: number): string {
  const at = nowMin + hours * minutesPerHour;
  const days = Math.floor(at / minutesPerDay);
  const clock = formatMinuteOfDay(Math.floor(at % minutesPerDay));
  if (days === 0) return `${clock} today`;
  if (days === 1) return `${clock} tomorrow`;
  return `in ${Math.round(hours / 24)} days`;
}

/** A battery of this boat as it is said. */
export const nameBattery = (rig: Rig, id: string): string => nameOf(rig.batteries.find((each) => each.id === id)!);

export interface Verdict {
  readonly says: string;
  /** Something should be turned off. */
  readonly isBad: boolean;
  /** What to do about it. */
  readonly next: string;
}

type Other = EnduranceOutput & { readonly switch: string; readonly label: string; readonly position: string };

/**
 * What the boat's power comes to, in one sentence, and what to do about it in the next: which battery is down by when, whether an
 * engine still starts then, and which other position of a battery switch would spare one.
 */
export function sayVerdict(
  rig: Rig,
  lasts: EnduranceOutput,
  others: readonly Other[],
  biggest: string | null,
  nowMin: number,
): Verdict {
  const down = lasts.groups
    .filter(({ hoursToFloor }) => hoursToFloor !== null)
    .sort((a, b) => a.hoursToFloor! - b.hoursToFloor!);
  const [first] = down;
  if (first === undefined)
    return {
      says: "Nothing draws: every battery keeps what it has.",
      isBad: false,
      next: "Check again before you leave.",
    };
  const names = joinWords(first.batteries.map((id) => nameBattery(rig, id)));
  const usesOf = first.batteries.map((id) => rig.batteries.find((each) => each.id === id)!.use);
  // Of a boat whose sheet does not say, the bank may be the one it starts from.
  const starts = usesOf.some((use) => use === "start" || use === undefined);
  const hours = first.hoursToFloor!;
  const when = sayWhen(hours, nowMin);
  const isBad = hours < 72;
  const what =
    hours === 0 ? `${names}: too low already` : `${names}: too low ${when.startsWith("in") ? when : `by ${when}`}`;
  const start = starts ? (hours === 0 ? "; do not count on a start." : "; do not count on a start after that.") : ".";
  const spared = isBad ? findSparing(rig, first, others) : null;
  const off = biggest === null ? "" : `${biggest} draws the most: turn it off.`;
  return { says: what + start, isBad, next: [off, spared].filter(Boolean).join(" ") };
}

/** A position of a battery switch at which one of these batteries lasts at least four times as long. */
function findSparing(rig: Rig, first: EnduranceOutput["groups"][number], others: readonly Other[]): string | null {
  const { batteries, hoursToFloor: now } = first;
  if (batteries.length < 2) return null;
  for (const { label, position, hoursToFloor } of others) {
    const saved = batteries.filter((id) => (hoursToFloor[id] ?? Number.POSITIVE_INFINITY) > 4 * Math.max(now ?? 1, 1));
    const loses = batteries.some((id) => !saved.includes(id));
    if (saved.length > 0 && loses && !/^off$/i.test(position)) {
      return `With ${label} at ${position}, the ${joinWords(saved.map((id) => lowerFirst(nameBattery(rig, id))))} lasts.`;
    }
  }
  return null;
}
