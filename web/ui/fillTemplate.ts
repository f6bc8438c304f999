import type { Day } from "./DueDay.tsx";
import { formatDay, formatDayAndYear } from "./words.ts";

/** Puts words in the places of a message template, `{boat}` and the like; a place nobody knows stays. */
export const fillTemplate = (text: string, words: Readonly<Record<string, string>>): string =>
  text.replace(/\{(\w+)\}/g, (place, name: string) => words[name] ?? place);

/** `{falls} {date}` of something that falls due: `falls due about Mon 1 Jun`; `has likely been due since 3 May 2025`. */
export function fillFalls({ date, range, isAnyDay }: Day, isOverdue: boolean): { falls: string; date: string } {
  if (isOverdue)
    return {
      falls: `has ${range === null ? "" : "likely "}been due since`,
      date: date === null ? "" : formatDayAndYear(date),
    };
  if (isAnyDay || date === null) return { falls: "falls due", date: isAnyDay ? "any day now" : "soon" };
  return { falls: "falls due about", date: formatDay(date) };
}
