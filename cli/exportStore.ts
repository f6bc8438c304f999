import { createWriteStream, renameSync, rmSync } from "node:fs";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createClock } from "../server/clock.ts";
import { readConfig } from "../server/config.ts";
import { createServices } from "../server/createServices.ts";
import { openDatabase } from "../server/database/open.ts";
import { writeStore } from "../server/keeping/storeFile.ts";
import { sayRefusals } from "../server/startRefused.ts";

/**
 * `ravik export FILE`: everything the store of RAVIK_DATA holds as one open file (`ravik.store/1`). Ravik may run meanwhile.
 * The file has its name only once it is whole.
 */
await sayRefusals(async () => {
  const [file] = process.argv.slice(2);
  if (file === undefined) {
    console.error("ravik: expected `ravik export FILE`");
    process.exitCode = 2;
    return;
  }
  const config = readConfig(process.env);
  const database = await openDatabase(config.dataFolder);
  const clock = createClock(config.timeZone);
  const part = `${file}.part`;
  try {
    const { store } = await createServices(database, clock, null).settings.read();
    let lines = 0;
    const counted = async function* () {
      for await (const line of writeStore(database, { store, at: clock.now() })) {
        lines += 1;
        if (lines % 20_000 === 0) console.log(`${lines} lines …`);
        yield line;
      }
    };
    await pipeline(Readable.from(counted()), createWriteStream(part, { mode: 0o600 }));
    renameSync(part, file);
    console.log(`${file}: ${lines - 2} rows of ${store}`);
  } finally {
    rmSync(part, { force: true });
    await database.close();
  }
});
