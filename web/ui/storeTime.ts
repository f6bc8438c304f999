import { dayOf, type Instant, type LocalDate, minutesOfDay } from "../../core/dates/index.ts";
import { type Region, regions } from "../../core/region/index.ts";

/** Until it is known whose page it is. */
let region: Region = regions.metric;
let timeZone = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Days and times on the screens are the store's, wherever the device thinks it is; its own until it is known whose page it is. */
export function setStoreZone(zone: string | undefined): void {
  // An answer saved by an older version names none.
  if (zone !== undefined) timeZone = zone;
}

export const storeZone = (): string => timeZone;

/** How the store writes days and money, and what it measures in. */
export function setStoreRegion(of: Region | undefined): void {
  if (of !== undefined) region = of;
}
export const storeRegion = (): Region => region;

/** The day it is, or was, at the store. */
export const storeDay = (at: Instant | number): LocalDate => dayOf(at, timeZone);

/** Minutes after midnight at the store. */
export const storeMinutes = (at: Instant | number): number => minutesOfDay(at, timeZone);
