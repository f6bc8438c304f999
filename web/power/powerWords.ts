import { type Tell, tellJoined } from "../../core/language/index.ts";
import type { EnduranceOutput } from "../../core/power/index.ts";
import { nameBattery as nameOf, type Rig } from "../../core/rig/index.ts";
import { lowerFirst } from "../../core/text/index.ts";
import { plainReader, type Reader } from "../ui/tell.ts";
import { formatTime } from "../ui/words.ts";

const minutesPerHour = 60;
const minutesPerDay = 24 * minutesPerHour;

/** When it is so many hours from now, as people say it: "02:10", "02:10 tomorrow", "in 4 days". */
export function sayWhen(hours: number, nowMin: number, reader: Reader = plainReader): string {
  const { tell } = reader;
  const at = nowMin + hours * minutesPerHour;
  const days = Math.floor(at / minutesPerDay);
  const clock = formatTime(Math.floor(at % minutesPerDay), reader);
  if (days === 0) return tell("{0} today", clock);
  if (days === 1) return tell("{0} tomorrow", clock);
  return tell("in {0} days", Math.round(hours / 24));
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
  reader: Reader = plainReader,
): Verdict {
  const { tell } = reader;
  const down = lasts.groups
    .filter(({ hoursToFloor }) => hoursToFloor !== null)
    .sort((a, b) => a.hoursToFloor! - b.hoursToFloor!);
  const [first] = down;
  if (first === undefined)
    return {
      says: tell("Nothing draws: every battery keeps what it has."),
      isBad: false,
      next: tell("Check again before you leave."),
    };
  const names = tellJoined(
    tell,
    first.batteries.map((id) => tell.label(nameBattery(rig, id))),
  );
  const usesOf = first.batteries.map((id) => rig.batteries.find((each) => each.id === id)!.use);
  // Of a boat whose sheet does not say, the bank may be the one it starts from.
  const starts = usesOf.some((use) => use === "start" || use === undefined);
  const hours = first.hoursToFloor!;
  const isBad = hours < 72;
  const when = sayWhen(hours, nowMin, reader);
  const says = verdicts[hours === 0 ? "already" : isInDays(hours, nowMin) ? "in-days" : "by-clock"][starts ? 1 : 0];
  const spared = isBad ? findSparing(rig, first, others, tell) : null;
  const off = biggest === null ? "" : tell("{0} draws the most: turn it off.", tell(biggest));
  return { says: tell(says, names, when), isBad, next: [off, spared].filter(Boolean).join(" ") };
}

/** When a bank is too low; the second of each where an engine starts from it. */
const verdicts = {
  already: ["{0}: too low already.", "{0}: too low already; do not count on a start."],
  "in-days": ["{0}: too low {1}.", "{0}: too low {1}; do not count on a start after that."],
  "by-clock": ["{0}: too low by {1}.", "{0}: too low by {1}; do not count on a start after that."],
} as const;

const isInDays = (hours: number, nowMin: number) => nowMin + hours * minutesPerHour >= 2 * minutesPerDay;

/** A position of a battery switch at which one of these batteries lasts at least four times as long. */
function findSparing(
  rig: Rig,
  first: EnduranceOutput["groups"][number],
  others: readonly Other[],
  tell: Tell,
): string | null {
  const { batteries, hoursToFloor: now } = first;
  if (batteries.length < 2) return null;
  for (const { label, position, hoursToFloor } of others) {
    const saved = batteries.filter((id) => (hoursToFloor[id] ?? Number.POSITIVE_INFINITY) > 4 * Math.max(now ?? 1, 1));
    const loses = batteries.some((id) => !saved.includes(id));
    if (saved.length > 0 && loses && !/^off$/i.test(position)) {
      const lasting = saved.map((id) => lowerFirst(tell.label(nameBattery(rig, id))));
      return tell("With {0} at {1}, the {2} lasts.", label, position, tellJoined(tell, lasting));
    }
  }
  return null;
}
