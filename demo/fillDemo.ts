import type { LocalDate } from "../core/dates/index.ts";
import type { Database } from "../server/database/open.ts";
import type { StoreKey } from "../server/storeKey.ts";
import { bookSlots } from "./bookSlots.ts";
import { closeFleet } from "./closeFleet.ts";
import { makeFleet } from "./makeFleet.ts";
import { demoWorkshop, makeDemoStore } from "./makeStore.ts";

/** Puts the whole demo into an empty store, as it is on `today`: always the same for the same day. */
export async function fillDemo(database: Database, today: LocalDate, timeZone: string, storeKey: StoreKey) {
  await makeDemoStore(database, today, timeZone, storeKey);
  await makeFleet(database, today);
  await closeFleet(database, today, timeZone, storeKey);
  await bookSlots(database, today, demoWorkshop);
}
