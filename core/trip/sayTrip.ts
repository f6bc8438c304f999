import { fromClock } from "../dates/index.ts";
import type { GearPack } from "../gear/index.ts";
import { createTell, tellJoined } from "../language/index.ts";
import { formatTime, type Idiom, type Region, tellText } from "../region/index.ts";
import { joinWords, lowerFirst } from "../text/index.ts";
import { sayAmount } from "../units/index.ts";
import type { JudgedTrip, TripReason } from "./judgeTrip.ts";
import type { TripPlan } from "./tripPlan.ts";

/** So long after the boat should be back, whoever is ashore begins to ring. Ours: long enough for a queue at the ramp. */
export const overdueAfterMin = 60;

/** Whose clock it is: the store's, and the book of whoever reads. */
export type ClockIdiom = Pick<Region, "clock"> & Pick<Idiom, "book">;

/** 902 → "15:02" or "3:02 pm"; past midnight "00:30 the next day", in the words of the idiom's book where it has one. */
export function sayClock(minutes: number, { clock: kind, book }: ClockIdiom): string {
  const tell = createTell(book ?? null);
  const whole = Math.round(minutes);
  const days = Math.floor(whole / 1440);
  const clock = formatTime(whole - days * 1440, kind, book?.language);
  if (days < 0) return tell("{0} the day before", clock);
  if (days === 0) return clock;
  return days === 1 ? tell("{0} the next day", clock) : tell("{0}, {1} days later", clock, days);
}

/** "HH:MM" of the contract, past midnight 24:30 and before it with a minus, in words. */
export const sayContractClock = (clock: string, idiom: ClockIdiom): string => sayClock(fromContractClock(clock), idiom);

/** Minutes after midnight of the contract's "HH:MM": below 0 the day before. */
export const fromContractClock = (clock: string): number =>
  (clock.startsWith("-") ? -1 : 1) * fromClock(clock.replace("-", ""));

const knots = (kn: number) => `${Math.round(kn)} kn`;

/** How a day out is said: in whose measures, spelling, clock and language. */
export type TripIdiom = Idiom & ClockIdiom;

/** Each reason in a sentence, with its figures and what to do, in the words of the idiom's book where it has one. */
export function sayReason(
  code: TripReason,
  judged: JudgedTrip,
  plan: TripPlan,
  pack: GearPack,
  idiom: TripIdiom,
): string {
  const { answer, gear, sunsetMin, sunriseMin, backMin } = judged;
  const litres = (l: number) => sayAmount(l, "volume", idiom.units);
  const labelOf = new Map(pack.rules.map(({ id, label }) => [id, tellText(label, idiom)]));
  const tell = createTell(idiom.book ?? null);
  const clockOf = (minutes: number) => sayClock(minutes, idiom);
  switch (code) {
    case "no-legs":
      return tell("Enter where to and how far.");
    case "fuel":
      return tell(
        "Fuel: out, back and as much again in hand takes {0}; usable of the {1} aboard is {2}. Fill up, go less far or slower.",
        litres(answer.needL),
        litres(plan.fuelL),
        litres(plan.fuelL * 0.9),
      );
    case "fuel-over-tank":
      return tell("More fuel is entered than the tanks hold.");
    case "wind":
      return tell(
        "Wind: it reaches {0} at {1}, and you would be back at {2}. Turn back by {3} at the latest, or do not go.",
        knots(plan.windLimitKn),
        sayContractClock(answer.windAt!, idiom),
        clockOf(backMin),
        sayContractClock(answer.latestTurnAt!, idiom),
      );
    case "wind-unchecked":
      return tell("Wind not checked: there are no figures for the whole time out. Without them this is not a go.");
    case "wind-old":
      return tell("Check the wind again that morning.");
    case "gear": {
      const missing = gear.items
        .filter((item) => item.missing > 0)
        .map((item) => {
          const label = lowerFirst(labelOf.get(item.rule) ?? item.rule);
          return item.expired > 0
            ? tell("{0} ({1} missing, {2} out of date)", label, item.missing, item.expired)
            : tell("{0} ({1} missing)", label, item.missing);
        });
      return tell("Safety gear: {0}.", idiom.book === undefined ? joinWords(missing) : missing.join("; "));
    }
    case "nobody-aboard":
      return tell("Enter who is aboard: jackets are counted by it.");
    case "dark":
      if (sunsetMin === null) return tell("It is dark: navigation lights, a torch, and slowly.");
      return backMin > sunsetMin
        ? tell(
            "It is dark for part of it: the sun sets at {0}, back at {1}. Navigation lights, a torch, and slowly.",
            clockOf(sunsetMin),
            clockOf(backMin),
          )
        : tell(
            "It is dark at first: the sun rises at {0}, and you leave at {1}. Navigation lights, a torch, and slowly.",
            clockOf(sunriseMin ?? 0),
            sayContractClock(plan.departAt, idiom),
          );
    case "sun-unknown":
      return tell("Enter the position where you start, and sunset is reckoned.");
    case "nobody-ashore":
      return tell("Nobody ashore knows: enter somebody who waits for your call.");
    default:
      throw new Error(`sayReason: expected a known reason, got ${JSON.stringify(code satisfies never)}`);
  }
}

/** The day out in a message to whoever waits ashore: when to begin to worry, and what to do then. */
export function writeAshoreMessage(
  plan: TripPlan,
  judged: JudgedTrip,
  { boatName, hull, day }: { boatName: string; hull: string; day: string },
  idiom: ClockIdiom,
): string {
  const tell = createTell(idiom.book ?? null);
  const from = sayContractClock(plan.departAt, idiom);
  const where = plan.legs.map(({ to }) => to).join(", ");
  const who =
    tellJoined(
      tell,
      plan.people.map(({ name }) => name),
    ) || tell("We");
  const clock = (minutes: number) => sayClock(minutes, idiom);
  return [
    where === ""
      ? tell("{0}: out with {1} ({2}) on {3} from {4}.", who, boatName, hull, day, from)
      : tell("{0}: out with {1} ({2}) on {3} from {4}, to {5} and back.", who, boatName, hull, day, from, where),
    tell("{0} aboard. Back at {1}.", plan.people.length, clock(judged.backMin)),
    tell(
      "If you have not heard from us by {0}, call us; if we do not answer, call marine rescue and read them this.",
      clock(judged.backMin + overdueAfterMin),
    ),
  ].join(" ");
}
