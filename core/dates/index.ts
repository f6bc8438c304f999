export { dayOf, type Instant, instantSchema, minutesOfDay, msAt, toInstant } from "./instant.ts";
export {
  addDays,
  addMonths,
  dayOfMonth,
  daysInMonth,
  differenceDays,
  fromDayNumber,
  isLocalDate,
  type LocalDate,
  localDateSchema,
  monthOf,
  startOfMonth,
  toDayNumber,
  writeDate,
  yearOf,
} from "./localDate.ts";
