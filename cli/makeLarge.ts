import { makeLargeStore } from "../demo/makeLargeStore.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { openDatabase } from "../server/database/open.ts";
import { openStoreKey } from "../server/storeKey.ts";

/** Makes a store with the demo's boats and `count` more, and all their handovers, in a folder that has none; answers its entries. */
export async function makeLarge(
  count: number,
  folder: string,
  tell: (made: number) => void = () => {},
): Promise<number> {
  const { timeZone } = readConfig(process.env);
  const today = createClock(timeZone).today();
  const database = await openDatabase(folder);
  const storeKey = openStoreKey(folder);
  await makeDemoStore(database, today, timeZone, storeKey);
  await makeLargeStore(database, today, count, { storeKey, tell });
  const entries = await database.models.entries.count();
  await database.close();
  return entries;
}
