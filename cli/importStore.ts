import { createReadStream, existsSync, rmSync } from "node:fs";
import { join } from "node:path";
import { readConfig } from "../server/config.ts";
import { openDatabase } from "../server/database/open.ts";
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
  const { dataFolder } = readConfig(process.env);
  if (existsSync(join(dataFolder, "ravik.sqlite")))
    throw new StartRefused(`${dataFolder} holds a store already: name an empty folder by RAVIK_DATA`);
  const unlock = await lockFolder(dataFolder);
  const database = await openDatabase(dataFolder);
  let isKept = false;
  try {
    const rows = await readStore(database, splitLines(createReadStream(file)));
    isKept = true;
    console.log(`${rows} rows are in ${dataFolder}. Passwords were not in the file: run \`ravik owner --reset\`.`);
  } catch (error) {
    if (!(error instanceof StoreFileRefused)) throw error;
    throw new StartRefused(`${file}: ${error.message}. Nothing was kept.`);
  } finally {
    await database.close();
    // What was made for it goes with it, so that another try finds the folder empty.
    for (const ending of isKept ? [] : ["", "-wal", "-shm"])
      rmSync(join(dataFolder, `ravik.sqlite${ending}`), { force: true });
    await unlock();
  }
});
