import { existsSync } from "node:fs";
import { join } from "node:path";
import { demoAccounts } from "../demo/accounts.ts";
import { demo } from "../demo/demo.ts";
import { makeFleet } from "../demo/makeFleet.ts";
import { makeDemoStore } from "../demo/makeStore.ts";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { openDatabase } from "../server/database/open.ts";
import { runServer } from "../server/runServer.ts";
import { openStoreKey } from "../server/storeKey.ts";

process.env.RAVIK_DATA ??= ".data/demo";
process.env.RAVIK_LOG ??= "warn";
const config = readConfig(process.env);

if (!existsSync(join(config.dataFolder, "ravik.sqlite"))) {
  const database = await openDatabase(config.dataFolder);
  const today = createClock(config.timeZone).today();
  await makeDemoStore(database, today, config.timeZone, openStoreKey(config.dataFolder));
  await makeFleet(database, today);
  await database.close();
}
await runServer(demo);
console.log(`\nRavik demo: http://${config.host}:${config.port}\n`);
for (const { login, password, name, role } of demoAccounts) {
  console.log(`  ${login.padEnd(8)} ${password}   ${name}, ${role}`);
}
console.log(`\nThe demo store is in ${config.dataFolder}; delete that folder for a fresh one. Stop with Ctrl-C.`);
