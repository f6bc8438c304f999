export {
  addDays,
  addMonths,
  daysInMonth,
  differenceDays,
  fromDayNumber,
  type IsoDate,
  isoDateSchema,
  toDayNumber,
} from "./isoDate.ts";
