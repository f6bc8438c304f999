import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from "node:fs";
import { join } from "node:path";
import { dayOf, type LocalDate } from "../core/dates/index.ts";
import { demoAccounts } from "../demo/accounts.ts";
import { demo } from "../demo/demo.ts";
import { fillDemo } from "../demo/fillDemo.ts";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { openDatabase } from "../server/database/open.ts";
import { syncPath } from "../server/keeping/syncPath.ts";
import { runServer } from "../server/runServer.ts";
import { sayRefusals } from "../server/startRefused.ts";
import { openStoreKey } from "../server/storeKey.ts";

process.env.RAVIK_DATA ??= ".data/demo";
process.env.RAVIK_LOG ??= "warn";

await sayRefusals(async () => {
  const { dataFolder, timeZone, givenNow, host, port } = readConfig(process.env);
  const today = givenNow === null ? createClock(timeZone).today() : dayOf(givenNow, timeZone);
  if (!existsSync(join(dataFolder, "ravik.sqlite"))) await makeDemo(dataFolder, today, timeZone);
  await runServer(demo);
  console.log(`\nRavik demo: http://${host}:${port}\n`);
  for (const { login, password, name, role } of demoAccounts)
    console.log(`  ${login.padEnd(8)} ${password}   ${name}, ${role}`);
  console.log(`\nThe demo store is in ${dataFolder}; delete that folder for a fresh one. Stop with Ctrl-C.`);
});

/** Made aside and then moved, its database last: a start that is killed in the middle leaves no half a demo. */
async function makeDemo(folder: string, today: LocalDate, timeZone: string): Promise<void> {
  const part = `${folder}.part`;
  rmSync(part, { recursive: true, force: true });
  // Made aside, it is synced once, when it is whole.
  const database = await openDatabase(part, { mustLast: false });
  const storeKey = openStoreKey(part);
  await fillDemo(database, today, timeZone, storeKey);
  await database.close();
  syncPath(join(part, "ravik.sqlite"));
  mkdirSync(folder, { recursive: true });
  const names = readdirSync(part).filter((name) => name !== "ravik.sqlite");
  for (const name of [...names, "ravik.sqlite"]) renameSync(join(part, name), join(folder, name));
  rmSync(part, { recursive: true });
}
