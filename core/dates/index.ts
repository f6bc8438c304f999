export {
  addDays,
  addMonths,
  dayOfMonth,
  daysInMonth,
  differenceDays,
  fromDayNumber,
  type IsoDate,
  isoDateSchema,
  monthOf,
  toDayNumber,
  yearOf,
} from "./isoDate.ts";
