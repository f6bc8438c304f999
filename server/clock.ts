import { dayOf, type Instant, type LocalDate, toInstant } from "../core/dates/index.ts";

/** The one place the server reads the time; tests put another in its place. */
export interface Clock {
  /** IANA name; days and printed times are those of this zone. */
  readonly timeZone: string;
  /** The store has said where it is. */
  setTimeZone(timeZone: string): void;
  nowMs(): number;
  now(): Instant;
  today(): LocalDate;
}

/** A clock that shows `now` as this is called and goes on from there: another day, for tests and the demo. */
export const createGivenClock = (usualZone: string, now: Instant): Clock => {
  const aheadMs = Date.parse(now) - Date.now();
  return createClock(usualZone, () => Date.now() + aheadMs);
};

/** The wall clock, its days those of the store's time zone. `nowMs`: another clock in its place. */
export function createClock(usualZone: string, nowMs: () => number = Date.now): Clock {
  let timeZone = usualZone;
  return {
    get timeZone() {
      return timeZone;
    },
    setTimeZone(zone) {
      timeZone = zone;
    },
    nowMs,
    now: () => toInstant(nowMs()),
    today: () => dayOf(nowMs(), timeZone),
  };
}
