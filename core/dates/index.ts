export { fromClock, toClock } from "./clock.ts";
export { instantSchema, localDateSchema } from "./dateSchemas.ts";
export { dayOf, type Instant, minutesOfDay, msAt, toInstant } from "./instant.ts";
export {
  addDays,
  addMonths,
  dayOfMonth,
  daysInMonth,
  differenceDays,
  fromDayNumber,
  isLocalDate,
  type LocalDate,
  monthOf,
  startOfMonth,
  toDayNumber,
  writeDate,
  yearOf,
} from "./localDate.ts";
