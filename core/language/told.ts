import { toClock } from "../dates/index.ts";
import type { Language } from "./language.ts";
import type { Tell } from "./sayPhrase.ts";

export interface DaySpan {
  readonly fromMin: number;
  readonly toMin: number;
}

/** A sentence kept apart from what stands in it, until it is known who reads it. */
export interface Told {
  readonly phrase: string;
  /** A list of numbers is said as one; a span is one of the day, in whole minutes after midnight. */
  readonly values: readonly (string | number | number[] | DaySpan)[];
}

/** How numbers and days are written where each language is spoken. */
export const locales: Readonly<Record<Language, string>> = { en: "en-GB", fr: "fr-FR", es: "es-ES" };

/** A whole number as the language writes it: 3,200; 3 200; 3200. */
export const formatWhole = (n: number, language: Language = "en"): string => n.toLocaleString(locales[language]);

/** What was told in the reader's words, its numbers as their language writes them, its times by `timeOf` (else by 24 hours). */
export function sayTold(
  { phrase, values }: Told,
  tell: Tell,
  language: Language = "en",
  timeOf: (minuteOfDay: number) => string = toClock,
): string {
  const say = (value: Told["values"][number]): string => {
    if (typeof value === "string") return value;
    if (typeof value === "number") return formatWhole(value, language);
    if ("fromMin" in value) return saySpan(value, timeOf);
    return value.map((n) => formatWhole(n, language)).join(", ");
  };
  return tell(phrase, ...values.map(say));
}

/** 12:40–13:25; one minute by itself. */
const saySpan = ({ fromMin, toMin }: DaySpan, timeOf: (minuteOfDay: number) => string) =>
  fromMin === toMin ? timeOf(fromMin) : `${timeOf(fromMin)}–${timeOf(toMin)}`;
