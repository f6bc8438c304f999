import type { GearPack } from "../gear/index.ts";
import type { Idiom } from "../region/index.ts";
import { spellText } from "../region/index.ts";
import { joinWords } from "../text/index.ts";
import { sayAmount } from "../units/index.ts";
import type { JudgedTrip, TripReason } from "./judgeTrip.ts";
import type { TripPlan } from "./tripPlan.ts";

/** So long after the boat should be back, whoever is ashore begins to ring. Ours: long enough for a queue at the ramp. */
export const overdueAfterMin = 60;

/** 902 → "15:02"; past midnight "00:30 the next day". */
export function sayClock(minutes: number): string {
  const whole = Math.round(minutes);
  const days = Math.floor(whole / 1440);
  const at = whole - days * 1440;
  const clock = `${String(Math.floor(at / 60)).padStart(2, "0")}:${String(at % 60).padStart(2, "0")}`;
  if (days < 0) return `${clock} the day before`;
  return days === 0 ? clock : days === 1 ? `${clock} the next day` : `${clock}, ${days} days later`;
}

/** "HH:MM" of the contract, past midnight 24:30 and before it with a minus, in words. */
export function sayContractClock(clock: string): string {
  const [hours, minutes] = clock.replace("-", "").split(":").map(Number) as [number, number];
  return sayClock((clock.startsWith("-") ? -1 : 1) * (hours * 60 + minutes));
}

const knots = (kn: number) => `${Math.round(kn)} kn`;

/** Each reason in a sentence, with its figures and what to do. */
export function sayReason(code: TripReason, judged: JudgedTrip, plan: TripPlan, pack: GearPack, idiom: Idiom): string {
  const { answer, gear, sunsetMin, sunriseMin, backMin } = judged;
  const litres = (l: number) => sayAmount(l, "volume", idiom.units);
  const labelOf = new Map(pack.rules.map(({ id, label }) => [id, spellText(label, idiom.spelling)]));
  switch (code) {
    case "no-legs":
      return "Enter where to and how far.";
    case "fuel":
      return `Fuel: out, back and as much again in hand takes ${litres(answer.needL)}; usable of the ${litres(plan.fuelL)} aboard is ${litres(plan.fuelL * 0.9)}. Fill up, go less far or slower.`;
    case "fuel-over-tank":
      return "More fuel is entered than the tanks hold.";
    case "wind":
      return `Wind: it reaches ${knots(plan.windLimitKn)} at ${sayContractClock(answer.windAt!)}, and you would be back at ${sayClock(backMin)}. Turn back by ${sayContractClock(answer.latestTurnAt!)} at the latest, or do not go.`;
    case "wind-unchecked":
      return "Wind not checked: there are no figures for the whole time out. Without them this is not a go.";
    case "wind-old":
      return "The wind was looked at on an earlier day. Check it again on the morning.";
    case "gear": {
      const missing = gear.items.filter((item) => item.missing > 0);
      return `Safety gear: ${joinWords(missing.map((item) => `${labelOf.get(item.rule)?.toLowerCase() ?? item.rule} (${item.missing} missing${item.expired > 0 ? `, ${item.expired} out of date` : ""})`))}.`;
    }
    case "nobody-aboard":
      return "Enter who is aboard: jackets are counted by it.";
    case "dark":
      if (sunsetMin === null) return "It is dark: navigation lights, a torch, and slowly.";
      return backMin > sunsetMin
        ? `It is dark for part of it: the sun sets at ${sayClock(sunsetMin)}, back at ${sayClock(backMin)}. Navigation lights, a torch, and slowly.`
        : `It is dark at first: the sun rises at ${sayClock(sunriseMin ?? 0)}, and you leave at ${plan.departAt}. Navigation lights, a torch, and slowly.`;
    case "sun-unknown":
      return "Enter the position where you start, and sunset is reckoned.";
    case "nobody-ashore":
      return "Nobody ashore knows: enter somebody who waits for your call.";
    default:
      throw new Error(`sayReason: expected a known reason, got ${JSON.stringify(code satisfies never)}`);
  }
}

/** The day out in a message to whoever waits ashore: when to begin to worry, and what to do then. */
export function writeAshoreMessage(
  plan: TripPlan,
  judged: JudgedTrip,
  { boatName, hull, day }: { boatName: string; hull: string; day: string },
): string {
  const where = plan.legs.map(({ to }) => to);
  const who = joinWords(plan.people.map(({ name }) => name)) || "We";
  const back = sayClock(judged.backMin);
  return [
    `${who}: out with ${boatName} (${hull}) on ${day} from ${plan.departAt}${where.length === 0 ? "" : `, to ${where.join(", ")} and back`}.`,
    `${plan.people.length} aboard. Back at ${back}.`,
    `If you have not heard from us by ${sayClock(judged.backMin + overdueAfterMin)}, ring us; if we do not answer, ring marine rescue and read them this.`,
  ].join(" ");
}
