import { createReadStream, existsSync, rmSync } from "node:fs";
import { join } from "node:path";
import type { Instant } from "../core/dates/index.ts";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { openDatabase } from "../server/database/open.ts";
import { databaseFile } from "../server/keeping/backupFolder.ts";
import { beginEpoch } from "../server/keeping/epoch.ts";
import { readStore, StoreFileRefused, splitLines } from "../server/keeping/storeFile.ts";
import { lockFolder } from "../server/lockFolder.ts";
import { StartRefused, sayRefusals } from "../server/startRefused.ts";

/**
 * `ravik import FILE`: puts a store file into the empty folder of RAVIK_DATA, all of it or nothing. Everybody chooses a new
 * password after it; the owner gets a code by `ravik owner --reset`.
 */
await sayRefusals(async () => {
  const [file] = process.argv.slice(2);
  if (file === undefined) {
    console.error("ravik: expected `ravik import FILE`");
    process.exitCode = 2;
    return;
  }
  if (!existsSync(file)) throw new StartRefused(`there is no ${file}`);
  const { dataFolder, timeZone } = readConfig(process.env);
  if (existsSync(join(dataFolder, databaseFile)))
    throw new StartRefused(`${dataFolder} holds a store already: name an empty folder by RAVIK_DATA`);
  const unlock = await lockFolder(dataFolder);
  const database = await openDatabase(dataFolder);
  /** When it was written; null while nothing is kept. */
  let writtenAt: Instant | null = null;
  try {
    const { rows, at } = await readStore(database, splitLines(createReadStream(file)));
    writtenAt = at;
    console.log(`${rows} rows are in ${dataFolder}. Passwords were not in the file: run \`ravik owner --reset\`.`);
    console.log("What Ravik sends by itself waits until the owner lets it go on: More, Store.");
  } catch (error) {
    if (!(error instanceof StoreFileRefused)) throw error;
    throw new StartRefused(`${file}: ${error.message}. Nothing was kept.`);
  } finally {
    await database.close();
    const target = join(dataFolder, databaseFile);
    // Devices that worked with it elsewhere may hold what came after it.
    if (writtenAt !== null) await beginEpoch(target, { at: createClock(timeZone).now(), of: writtenAt });
    // What was made for it goes with it, so that another try finds the folder empty.
    for (const ending of writtenAt !== null ? [] : ["", "-wal", "-shm"]) rmSync(target + ending, { force: true });
    await unlock();
  }
});
