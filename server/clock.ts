import type { IsoDate } from "../core/dates/index.ts";

/** The one place the server reads the time; tests put another in its place. */
export interface Clock {
  /** IANA name; days and printed times are those of this zone. */
  readonly timeZone: string;
  nowMs(): number;
  today(): IsoDate;
}

/** The wall clock, its days those of the store's time zone. */
export function createClock(timeZone: string): Clock {
  const day = new Intl.DateTimeFormat("en-CA", { timeZone, year: "numeric", month: "2-digit", day: "2-digit" });
  return {
    timeZone,
    nowMs: () => Date.now(),
    today: () => day.format(Date.now()),
  };
}
