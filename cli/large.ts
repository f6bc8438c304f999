import { existsSync } from "node:fs";
import { join } from "node:path";
import { makeLargeStore } from "../demo/makeLargeStore.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { openDatabase } from "../server/database/open.ts";
import { openStoreKey } from "../server/storeKey.ts";

/** `npm run large -- 20000 FOLDER`: a store with so many boats and all their handovers, to see how Ravik does with it. */
const [boats, folder] = process.argv.slice(2);
const count = Number(boats);
if (!Number.isInteger(count) || count < 1 || folder === undefined) {
  console.error("large: expected how many boats and a folder, as in `npm run large -- 20000 .data/large`");
  process.exit(2);
}
if (existsSync(join(folder, "ravik.sqlite"))) {
  console.error(`large: there is a store in ${folder} already; it is left as it is`);
  process.exit(2);
}
const startMs = performance.now();
const database = await openDatabase(folder);
const { timeZone } = readConfig(process.env);
const today = createClock(timeZone).today();
const storeKey = openStoreKey(folder);
await makeDemoStore(database, today, timeZone, storeKey);
await makeLargeStore(database, today, count, {
  storeKey,
  tell: (made) => process.stdout.isTTY && process.stdout.write(`\r${made.toLocaleString("en-GB")} boats`),
});
const entries = await database.models.entries.count();
await database.close();
const tookS = Math.round((performance.now() - startMs) / 1000);
console.log(
  `\n${entries.toLocaleString("en-GB")} entries, made in ${tookS} s. Start it with RAVIK_DATA=${folder} npm start`,
);
