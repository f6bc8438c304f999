import { addDays, type LocalDate } from "../../core/dates/index.ts";

export const keptFor = { days: 7, weeks: 4, months: 12 } as const;

/** Any Monday; weeks are counted from it. */
const aMonday = Date.UTC(2024, 0, 1);
const dayMs = 86_400_000;
const weekOf = (day: LocalDate) => Math.floor((Date.parse(`${day}T00:00:00Z`) - aMonday) / (7 * dayMs));

/**
 * Which backups stay: the last of each of seven days, of each of four weeks and of each of twelve months before `today`. Names
 * begin with their day ("2026-11-29T0300"); the last one stays always, however old it is.
 */
export function chooseKept(names: readonly string[], today: LocalDate): Set<string> {
  const lastFirst = names.toSorted().toReversed();
  const kept = new Set(lastFirst.slice(0, 1));
  const keepOne = (isWithin: (day: LocalDate) => boolean, slotOf: (day: LocalDate) => string | number) => {
    const taken = new Set<string | number>();
    for (const name of lastFirst) {
      const day = name.slice(0, 10) as LocalDate;
      const slot = slotOf(day);
      if (!isWithin(day) || taken.has(slot)) continue;
      taken.add(slot);
      kept.add(name);
    }
  };
  const firstDay = addDays(today, 1 - keptFor.days);
  keepOne(
    (day) => day >= firstDay,
    (day) => day,
  );
  keepOne((day) => weekOf(today) - weekOf(day) < keptFor.weeks, weekOf);
  const monthOf = (day: LocalDate) => Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7));
  keepOne((day) => monthOf(today) - monthOf(day) < keptFor.months, monthOf);
  return kept;
}
